import type { HungView } from '@/core/report/pages/fitting';
import { spotText, TRIM_WORD, trimText } from '@/core/report/fitting-words';
import { TRIM_KINDS, type Trim } from '@/core/shell/job/entities';
import { trim as schema } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { PanelActions } from './actions';

interface TrimsProps {
  readonly view: HungView;
  readonly actions: PanelActions;
}

/** What a new panel wants: trimmed, slotted or relieved, each line measured from an edge that stays. */
export function Trims({ view, actions }: TrimsProps) {
  const format = useFormat();
  const putting = useAction(actions.putTrim);
  const removing = useAction(actions.removeTrim);
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const { panel, trims, spots } = view;
  return (
    <section aria-label={`Trim ${panel.code}`} className="flex flex-col gap-1">
      <div className="flex flex-wrap items-center gap-3">
        <h4 className="caps">Trim, slot, relieve</h4>
        <FormDialog
          title={`An edge, hole or spot of ${panel.code}`}
          description="Where it is now and where it must be, both from the same edge that stays"
          trigger={<Button look="quiet">Say where it is</Button>}
        >
          {(close) => <TrimForm {...{ view, actions }} done={close} />}
        </FormDialog>
      </div>
      {spots ? <p>{spotText(spots, words)}</p> : null}
      <ul>
        {trims.map(({ advice, ...trim }) => (
          <li key={trim.id} className="flex flex-wrap items-center gap-3">
            <span className={trim.done ? 'text-soft line-through' : ''}>
              {TRIM_WORD[trim.kind]}, {trim.place}:{' '}
              {trim.kind === 'spot'
                ? `${words.length(trim.isAt)} where the old one was ${words.length(trim.mustBe)}`
                : trimText({ advice, edge: trim.edge }, words)}
            </span>
            {trim.kind === 'spot' || advice.kind === 'fits' ? null : (
              <Button look="quiet" onClick={() => putting.run({ ...trim, done: !trim.done })}>
                {trim.done ? 'Not done' : 'Done'}
              </Button>
            )}
            <Button look="quiet" onClick={() => removing.run({ id: trim.id })}>
              Take out
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={[...putting.faults, ...removing.faults]} />
    </section>
  );
}

function TrimForm({ view, actions, done }: TrimsProps & { done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const form = useEntryForm({
    schema,
    action: actions.putTrim,
    defaults: { kind: 'edge' as Trim['kind'], place: '', edge: '', isAt: '', mustBe: '' },
    read: (values, faults, id) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      const [place, edge] = [values.place.trim(), values.edge.trim()];
      if (!place) faults.push({ path: 'place', message: 'say which: lower rear corner' });
      if (!edge) faults.push({ path: 'edge', message: 'say which edge stays: it is measured from there' });
      const [isAt, mustBe] = [length('isAt'), length('mustBe')];
      return { id, hungId: view.panel.id, kind: values.kind, place, edge, isAt, mustBe, done: false };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <SelectField label="What" options={TRIM_KINDS.map((kind) => [kind, TRIM_WORD[kind]])} {...form.field('kind')} />
      <TextField label="Which" placeholder="lower rear corner" {...form.field('place')} />
      <TextField label="Measured from" placeholder="A post flange" {...form.field('edge')} />
      <TextField label={`It is at, ${format.unit}`} {...form.field('isAt')} />
      <TextField
        label={`It must be at, ${format.unit}`}
        hint="of a spot: where the old one was"
        {...form.field('mustBe')}
      />
    </FormFields>
  );
}
