import type { CrackView, StiffeningPage } from '@/core/report/pages/stiffening';
import { concentrationText, crackStepText } from '@/core/report/stiffening-words';
import { PROCESS_WORD } from '@/core/report/weld-words';
import { workText } from '@/core/report/calendar-words';
import { savedCrack } from '@/formats/inputs/welding';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextArea, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import { freeCode } from '../work/free-code';
import type { WeldActions } from './actions';

interface CracksProps {
  readonly jobId: string;
  readonly page: StiffeningPage;
  readonly actions: Pick<WeldActions, 'saveCrack' | 'recordItemEvent' | 'withdraw'>;
}

/** Cracks: stopped, welded and looked at again, step by step. */
export function Cracks(props: CracksProps) {
  return (
    <section aria-label="Cracks" className="flex flex-col gap-3 border-t-2 border-ink pt-2">
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="text-xl">Cracks</h2>
        <CrackDialog {...props} />
      </div>
      {props.page.cracks.length === 0 ? (
        <p className="text-soft">None is noted. Look at posts, hinge mounts, jacking points and old repairs.</p>
      ) : (
        props.page.cracks.map((view) => <CrackCard key={view.crack.id} {...props} view={view} />)
      )}
    </section>
  );
}

function CrackCard({ view, ...props }: CracksProps & { readonly view: CrackView }) {
  const format = useFormat();
  const ticking = useAction(props.actions.recordItemEvent);
  const { crack, plan, done } = view;
  const length = (mm: number) => `${format.thin(mm)} ${format.unit}`;
  return (
    <article className="flex flex-col gap-1" data-crack={crack.code}>
      <div className="flex flex-wrap items-center gap-x-4">
        <h3 className="text-lg">
          {crack.code} {format.name(crack.place)}
        </h3>
        <p className="text-soft">
          {length(crack.long)} long, sheet {length(crack.thickness)}, {PROCESS_WORD[crack.process]}
          {crack.toEdge ? ', runs out at an edge' : ''}
        </p>
        <span className="ml-auto flex gap-2">
          <CrackDialog {...props} known={view} />
          <TakeBack
            what={crack.code}
            row={{ jobId: crack.jobId, tableName: 'work_item', rowId: crack.id }}
            withdraw={props.actions.withdraw}
          />
        </span>
      </div>
      <p className="text-soft">{concentrationText(plan)}</p>
      {crack.cause === '' ? null : <p>Why: {format.name(crack.cause)}</p>}
      <ol className="flex flex-col">
        {plan.steps.map(({ kind, minutes }) => (
          <li key={kind}>
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 shrink-0"
                checked={done.includes(kind)}
                disabled={ticking.pending}
                onChange={() =>
                  void ticking.run({
                    ...{ id: crypto.randomUUID(), itemId: crack.id, key: kind, reason: '', value: null },
                    kind: done.includes(kind) ? 'unticked' : 'ticked',
                  })
                }
              />
              <span>
                {crackStepText(kind, crack, plan, { length })} <span className="text-soft">{workText(minutes)}</span>
              </span>
            </label>
          </li>
        ))}
      </ol>
      <Faults faults={ticking.faults} />
    </article>
  );
}

function CrackDialog({ jobId, page, actions, known }: CracksProps & { readonly known?: CrackView }) {
  return (
    <FormDialog
      wide
      title={known ? `Crack ${known.crack.code}` : 'A crack'}
      description="Where it is, how long it shows, and whether one end runs out at an edge."
      trigger={<Button look="quiet">{known ? 'Change' : 'Note a crack'}</Button>}
    >
      {(close) => <CrackForm {...{ jobId, page, actions, done: close }} {...(known ? { known } : {})} />}
    </FormDialog>
  );
}

interface CrackFormProps extends CracksProps {
  readonly known?: CrackView;
  readonly done: () => void;
}

function CrackForm({ jobId, page, actions, known, done }: CrackFormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const crack = known?.crack;
  const form = useEntryForm({
    schema: savedCrack,
    action: actions.saveCrack,
    defaults: {
      ...{ code: crack?.code ?? freeCode(page.usedCodes, 'CR'), place: crack?.place ?? '', cause: crack?.cause ?? '' },
      ...{ long: crack ? format.thin(crack.long) : '', thickness: format.thin(crack?.thickness ?? 1) },
      toEdge: crack?.toEdge ? ('yes' as const) : ('no' as 'yes' | 'no'),
      process: crack?.process ?? ('mig' as 'mig' | 'tig' | 'gas'),
    },
    read: (values, faults, identity) => {
      const length = lengthsOf(values, unit, faults);
      const [id, version] = [crack?.id ?? identity, crack?.version ?? 1];
      const place = (values.place ?? '').trim();
      if (place === '') faults.push({ path: 'place', message: 'say where it is' });
      return {
        item: {
          ...{ id, jobId, kind: 'crack' as const, code: (values.code ?? '').trim(), name: place },
          version: known?.item.version ?? 1,
        },
        crack: {
          ...{ id, jobId, version, place, long: length('long'), thickness: length('thickness') },
          ...{ toEdge: values.toEdge === 'yes', process: values.process, cause: values.cause ?? '' },
        },
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Note it">
      <TextField label="Code" {...form.field('code')} />
      <TextField
        label="Where"
        placeholder={format.name('Left A post, under the upper hinge')}
        {...form.field('place')}
      />
      <TextField label={`Length that shows, ${format.unit}`} {...form.field('long')} />
      <TextField label={`Sheet, ${format.unit}`} {...form.field('thickness')} />
      <SelectField
        label="One end at an edge"
        options={[
          ['no', 'no, both ends in the sheet'],
          ['yes', 'yes'],
        ]}
        {...form.field('toEdge')}
      />
      <SelectField
        label="Welded with"
        options={(['mig', 'tig', 'gas'] as const).map((each) => [each, PROCESS_WORD[each]])}
        {...form.field('process')}
      />
      <div className="sm:col-span-2">
        <TextArea label="Why it cracked, as far as anybody knows" {...form.field('cause')} />
      </div>
    </FormFields>
  );
}
