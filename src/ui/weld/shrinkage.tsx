import type { JointView, SeamPlan, WeldingPage } from '@/core/report/pages/welding';
import { effectText, factorText, shrinkText } from '@/core/report/weld-words';
import { MARK_RUNS } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { setWeldMarks as schema } from '@/formats/inputs/welding';
import type { SetWeldMarks } from '@/formats/inputs/welding';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm, wordsOf } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { WeldActions } from './actions';

interface ShrinkageProps {
  readonly view: JointView & { readonly plan: SeamPlan };
  readonly factor: WeldingPage['factor'];
  readonly setWeldMarks: WeldActions['setWeldMarks'];
}

/** So many of the lengths it moves are told. */
const TOLD = 5;

/** What a seam does as it cools, what that does to the lengths that tell, and what it really did. */
export function Shrinkage({ view, factor, setWeldMarks }: ShrinkageProps) {
  const format = useFormat();
  const { plan } = view;
  if (!plan.shrinkage) return null;
  const { effects } = plan;
  const words = {
    length: (mm: number) => `${format.thin(mm)} ${format.unit}`,
    difference: (mm: number) => format.thin(mm, true),
  };
  return (
    <section aria-label={`Shrinkage at ${view.joint.beside}`} className="flex flex-col gap-1" data-shrinks>
      <p>
        {shrinkText(plan.shrinkage.across, factor, words)}
        {effects ? `, its ends about ${words.length(factor.usual * effects.along)}. ` : '. '}
        <span className="text-soft">{factorText(factor)}</span>
      </p>
      {effects === undefined ? (
        <p className="text-soft">
          Say near which datum points it ends, and what it does to the dimensions is worked out through the structure.
        </p>
      ) : effects.effects.length === 0 ? (
        <p className="text-soft">No dimension is expected to notice it.</p>
      ) : (
        <ul className="grid gap-x-6 sm:grid-cols-2" aria-label={`What it is expected to do, ${format.unit}`}>
          {effects.effects.slice(0, TOLD).map((effect) => (
            <li key={effect.lengthId} data-effect={effect.code}>
              <span className="font-semibold">{effect.code}</span>{' '}
              <span className="text-soft">{format.name(effect.name)}</span>{' '}
              <span className="figures">{effectText(effect, words)}</span>
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <FormDialog
          title={`What the joint at ${view.joint.beside} shrank`}
          description="Two punch marks on the metal, measured before it is welded and again when it is cold: across the seam, or along it near its ends. From these the shop’s own range comes."
          trigger={
            <Button look="quiet">{plan.marks.length > 0 ? 'Change what it shrank' : 'Log what it shrank'}</Button>
          }
        >
          {(close) => <MarksForm plan={plan} action={setWeldMarks} done={close} />}
        </FormDialog>
        {plan.marks.length > 0 ? (
          <span className="text-soft" data-marks={plan.marks.length}>
            {plan.marks
              .map(({ runs, before, cold }) => `${runs} ${format.thin(cold - before, true)} ${format.unit}`)
              .join('; ')}
          </span>
        ) : null}
      </div>
    </section>
  );
}

interface MarksFormProps {
  readonly plan: SeamPlan;
  readonly action: WeldActions['setWeldMarks'];
  readonly done: () => void;
}

/** How well two lengths of a caliper are read one from the other, mm. */
const CALIPER = 0.2;

/** Pairs of marks typed as `across 100 99.6, along 480 479.5`: how far apart before and cold. Faults stand at `marks`. */
export function readMarks(
  text: string,
  { seamId, sd }: { readonly seamId: string; readonly sd: number },
  length: (text: string) => number,
  faults: Fault[],
): SetWeldMarks['marks'] {
  const words = wordsOf(text);
  const marks: SetWeldMarks['marks'] = [];
  for (let i = 0; i < words.length; i += 3) {
    const runs = MARK_RUNS.find((each) => each === words[i]!.toLowerCase());
    const [before, cold] = [words[i + 1], words[i + 2]];
    if (!runs || before === undefined || cold === undefined) {
      faults.push({
        path: 'marks',
        message: `“${words.slice(i, i + 3).join(' ')}”: say across 100 99.6, or along 480 479.5`,
      });
      return [];
    }
    marks.push({ id: crypto.randomUUID(), seamId, runs, before: length(before), cold: length(cold), sd });
  }
  return marks;
}

function MarksForm({ plan, action, done }: MarksFormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const seamId = plan.seam.id;
  const shown = plan.marks.map(({ runs, before, cold }) => `${runs} ${format.thin(before)} ${format.thin(cold)}`);
  const form = useEntryForm({
    schema,
    action,
    defaults: { marks: shown.join(', '), sd: format.fine(plan.marks[0]?.sd ?? CALIPER) },
    read: (values, faults) => {
      const length = lengthsOf(values, unit, faults);
      const sd = length('sd');
      const typed = (text: string) => lengthsOf({ marks: text }, unit, faults)('marks');
      return { seamId, marks: readMarks(values.marks ?? '', { seamId, sd }, typed, faults) };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Log it">
      <div className="sm:col-span-2">
        <TextField
          label={`Marks, before and cold, ${format.unit}`}
          hint="across: one mark on each side of the seam; along: near its two ends"
          placeholder={`across ${format.thin(100)} ${format.thin(99.6)}`}
          {...form.field('marks')}
        />
      </div>
      <TextField label={`One standard deviation, ${format.unit}`} {...form.field('sd')} />
    </FormFields>
  );
}
