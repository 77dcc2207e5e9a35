import { Printer } from 'lucide-react';
import { SOURCE_WORD } from '@/core/report/cut-words';
import type { CuttingPage, TemplateView } from '@/core/report/pages/cutting';
import { TEMPLATE_SOURCES, type Template } from '@/core/shell/job/entities';
import { OUTLINE_COLUMNS, readOutline } from '@/formats/cut-text';
import { savedTemplate, type SavedTemplate } from '@/formats/inputs/cut';
import { typedUnit } from '@/formats/preferences';
import { Button, buttonClass } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextArea, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';
import type { CuttingActions } from './actions';

interface TemplatesProps {
  readonly page: CuttingPage;
  readonly actions: Pick<CuttingActions, 'saveTemplate'>;
}

/** Shapes kept flat, of card, paper or a good part: printed at true scale to mark metal by. */
export function Templates({ page, actions }: TemplatesProps) {
  const { format } = usePreferences();
  return (
    <section aria-label="Templates" className="no-print flex flex-col gap-2">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Templates</h2>
        <TemplateDialog page={page} actions={actions} />
      </div>
      <ul className="empty:hidden">
        {page.templates.map((view) => {
          const { template, panel } = view;
          return (
            <li key={template.id} className="flex flex-wrap items-center gap-2 border-b border-faint py-1">
              <strong>{format.name(template.name)}</strong>
              <span className="text-soft">
                {SOURCE_WORD[template.source]}
                {template.takenFrom ? ` from ${format.name(template.takenFrom)}` : ''}, lies on the {template.face}
                {template.mirrored ? ', turned over for the other side' : ''}
                {panel ? `, for ${format.name(panel)}` : ''}
              </span>
              <a className={`${buttonClass()} ml-auto`} href={`/api/jobs/${page.jobId}/templates/${template.id}`}>
                <Printer size={18} aria-hidden /> At true scale
              </a>
              <TemplateDialog page={page} actions={actions} known={view} />
            </li>
          );
        })}
      </ul>
    </section>
  );
}

type DialogProps = TemplatesProps & { readonly known?: TemplateView };

const TemplateDialog = (props: DialogProps) => (
  <FormDialog
    title={props.known ? `Correct ${props.known.template.name}` : 'A template'}
    trigger={
      props.known ? <Button look="quiet">Correct …</Button> : <Button className="ml-auto">Add a template</Button>
    }
  >
    {(close) => <TemplateForm {...props} done={close} />}
  </FormDialog>
);

function TemplateForm({ page, actions, known, done }: DialogProps & { readonly done: () => void }) {
  const { format, preferences } = usePreferences();
  const outline = known?.corners.map(({ x, y }) => `${format.length(x)}; ${format.length(y)}`).join('\n') ?? '';
  const form = useEntryForm({
    schema: savedTemplate,
    action: actions.saveTemplate,
    defaults: {
      name: known?.template.name ?? '',
      source: known?.template.source ?? ('card' as Template['source']),
      takenFrom: known?.template.takenFrom ?? '',
      face: known?.template.face ?? ('outside' as Template['face']),
      mirrored: known?.template.mirrored ? 'yes' : 'no',
      panelId: known?.template.panelId ?? '',
      outline,
    },
    read: (values, faults, identity): SavedTemplate => {
      const id = known?.template.id ?? identity;
      const { name, source, takenFrom, face, panelId } = values;
      // What was not touched stays to the last digit, not to the digit shown.
      const read =
        known && values.outline === outline
          ? { corners: known.corners, faults: [] }
          : readOutline(values.outline, typedUnit(preferences));
      faults.push(...read.faults);
      return {
        template: {
          ...{ id, jobId: page.jobId, panelId: panelId || null, name, source, takenFrom, face },
          ...{ mirrored: values.mirrored === 'yes', version: known?.template.version ?? 1 },
        },
        corners: read.corners.map(({ x, y }, ordinal) => ({ id: crypto.randomUUID(), templateId: id, ordinal, x, y })),
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes={known ? 'Keep it so' : 'Add'}>
      <TextField label="What it is of" {...form.field('name')} />
      <SelectField
        label="Taken with"
        options={TEMPLATE_SOURCES.map((source) => [source, SOURCE_WORD[source]] as const)}
        {...form.field('source')}
      />
      <TextField label="Taken from" hint="the right side, a sister car, the old panel" {...form.field('takenFrom')} />
      <SelectField
        label="It lies on the face that is"
        options={[
          ['outside', 'outside'],
          ['inside', 'inside'],
        ]}
        {...form.field('face')}
      />
      <SelectField
        label="Is it for the other side?"
        options={[
          ['no', 'no'],
          ['yes', 'yes: it is turned over'],
        ]}
        {...form.field('mirrored')}
      />
      <SelectField
        label="For the panel"
        options={[
          ['', 'none in particular'],
          ...page.panels.map(({ panel }) => [panel.id, format.name(panel.part)] as const),
        ]}
        {...form.field('panelId')}
      />
      <div className="sm:col-span-2">
        <TextArea
          label={`Outline, ${format.unit}`}
          hint={`a corner a line, in order round, from one of its own corners: ${OUTLINE_COLUMNS.join('; ')}`}
          rows={5}
          {...form.field('outline')}
        />
      </div>
    </FormFields>
  );
}
