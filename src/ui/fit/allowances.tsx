import type { Allowance } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { allowances as schema } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { BoardActions } from './actions';

interface AllowancesProps {
  readonly rows: Pick<JobRows, 'jobs' | 'allowances' | 'seams'>;
  readonly setAllowances: BoardActions['setAllowances'];
}

/** Paint takes so much of a gap, on both edges together, unless the shop says otherwise, mm. */
const PAINT = -0.4;

/** What is not fitted yet and will change the gaps: what is wanted now leaves room for it. */
export function Allowances(props: AllowancesProps) {
  const { rows, setAllowances } = props;
  const format = useFormat();
  const { run, faults } = useAction(setAllowances);
  const jobId = rows.jobs[0]!.id;
  const all = (allowances: readonly Allowance[]) => run({ jobId, allowances: [...allowances] });
  const code = (id: string | null) => rows.seams.find((seam) => seam.id === id)?.code ?? 'every seam';
  const paint: Allowance = {
    id: '',
    jobId,
    seamId: null,
    name: 'paint on both edges',
    gap: PAINT,
    flush: 0,
    fitted: false,
  };
  return (
    <section aria-label="Not fitted yet" className="flex flex-col gap-1">
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="caps">Not fitted yet, and what it will do to gaps</h3>
        {rows.allowances.length === 0 ? (
          <Button look="quiet" onClick={() => all([{ ...paint, id: crypto.randomUUID() }])}>
            Paint takes {format.thin(-PAINT)} {format.unit}
          </Button>
        ) : null}
        <FormDialog title="Something that is not fitted yet" trigger={<Button look="quiet">Add one</Button>}>
          {(close) => <AllowanceForm {...props} done={close} />}
        </FormDialog>
      </div>
      {rows.allowances.length === 0 ? (
        <p className="text-sm text-soft">Nothing is said: gaps are judged as if everything were fitted and painted.</p>
      ) : null}
      <ul>
        {rows.allowances.map((each) => (
          <li key={each.id} className="flex flex-wrap items-center gap-3">
            <span>
              {each.name}, {code(each.seamId)}: gap {format.thin(each.gap, true)}, flush {format.thin(each.flush, true)}{' '}
              {format.unit}, {each.fitted ? 'fitted' : 'still to come'}
            </span>
            <Button
              look="quiet"
              onClick={() =>
                all(
                  rows.allowances.map((other) => (other.id === each.id ? { ...other, fitted: !other.fitted } : other)),
                )
              }
            >
              {each.fitted ? 'Not fitted' : 'It is fitted'}
            </Button>
            <Button look="quiet" onClick={() => all(rows.allowances.filter(({ id }) => id !== each.id))}>
              Take out
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={faults} />
    </section>
  );
}

function AllowanceForm({ rows, setAllowances, done }: AllowancesProps & { done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const form = useEntryForm({
    schema,
    action: setAllowances,
    defaults: { name: '', seamId: '', gap: '', flush: format.thin(0) },
    read: (values, faults, id) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      const name = values.name.trim();
      if (!name) faults.push({ path: 'name', message: 'say what: seal, hinge bushes, engine in' });
      const made = {
        id,
        jobId: rows.jobs[0]!.id,
        seamId: values.seamId === '' ? null : values.seamId,
        name,
        fitted: false,
      };
      return {
        jobId: rows.jobs[0]!.id,
        allowances: [...rows.allowances, { ...made, gap: length('gap'), flush: length('flush') }],
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField label="What" placeholder="seal" {...form.field('name')} />
      <SelectField
        label="Along"
        options={[['', 'every seam'], ...rows.seams.map((seam) => [seam.id, `${seam.code} ${seam.name}`] as const)]}
        {...form.field('seamId')}
      />
      <TextField
        label={`Will do to the gap, ${format.unit}`}
        hint="narrower is negative"
        placeholder="-0.4"
        {...form.field('gap')}
      />
      <TextField label={`Will do to the flush, ${format.unit}`} hint="prouder is positive" {...form.field('flush')} />
    </FormFields>
  );
}
