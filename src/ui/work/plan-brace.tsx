import type { Tables } from '@/core/shell/job/job-rows';

import { lineGeometry } from '@/core/findings/brace-pull';
import type { Brace } from '@/core/shell/job/entities';
import type { BracesPage } from '@/core/report/pages/braces';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import { newBrace, type NewBrace } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { FormFields } from '../kit/form-fields';

/** What a brace is planned from. */
export type PlanningRows = Tables<'jobs' | 'points' | 'dimensions' | 'braces'>;
type Planning = Pick<BracesPage, 'positions' | 'latestRoundId'> & { rows: PlanningRows; planBrace: Action<NewBrace> };

export function PlanBrace(planning: Planning) {
  return (
    <FormDialog
      title="Plan a brace"
      trigger={
        <Button look="main" className="ml-auto">
          Plan a brace
        </Button>
      }
    >
      {(close) => <BraceForm {...planning} done={close} />}
    </FormDialog>
  );
}

/** The section usual for a line of this length: long ones want more. */
const sectionFor = (line: { readonly length: number } | undefined) =>
  line && line.length > 1200 ? 'square tube 40×40×3' : 'square tube 25×25×2';

function BraceForm({ rows, positions, latestRoundId, planBrace, done }: Planning & { done: () => void }) {
  const format = useFormat();
  const find = (code = '') => rows.points.find((point) => point.code.toLowerCase() === code.trim().toLowerCase());
  const lineBetween = (a: string, b: string) => {
    const [from, to] = [find(a), find(b)];
    return from && to && positions[from.id] && positions[to.id]
      ? lineGeometry(positions[from.id]!, positions[to.id]!)
      : undefined;
  };
  const form = useEntryForm({
    schema: newBrace,
    action: planBrace,
    defaults: {
      code: `X${rows.braces.length + 1}`,
      kind: 'weldedTube' as Brace['kind'],
      from: '',
      to: '',
      section: '',
      holds: '',
    },
    read: (values, faults) => {
      const [from, to] = [find(values.from), find(values.to)];
      if (!values.code.trim()) faults.push({ path: 'code', message: 'mark it with a code' });
      if (!from) faults.push({ path: 'from', message: `no point "${values.from}"` });
      if (!to) faults.push({ path: 'to', message: `no point "${values.to}"` });
      else if (from === to) faults.push({ path: 'to', message: 'a brace has two ends' });
      const dimensionIds = wordsOf(values.holds).flatMap((code) => {
        const dimension = rows.dimensions.find((each) => each.code.toLowerCase() === code.toLowerCase());
        if (!dimension) faults.push({ path: 'holds', message: `no dimension ${code}` });
        return dimension ? [dimension.id] : [];
      });
      return {
        brace: {
          id: crypto.randomUUID(),
          jobId: rows.jobs[0]!.id,
          code: values.code.trim(),
          fromPointId: from?.id ?? '',
          toPointId: to?.id ?? '',
          kind: values.kind,
          section: values.section.trim() || sectionFor(lineBetween(values.from, values.to)),
          roundId: latestRoundId,
          note: '',
        },
        dimensionIds,
      };
    },
    done,
  });
  const line = lineBetween(form.watch('from'), form.watch('to'));
  return (
    <FormFields form={form} yes="Plan it">
      <TextField label="Code" {...form.field('code')} />
      <SelectField
        label="Kind"
        {...form.field('kind')}
        options={(Object.keys(BRACE_WORD) as Brace['kind'][]).map((kind) => [kind, BRACE_WORD[kind]])}
      />
      <TextField label="From point" {...form.field('from')} />
      <TextField label="To point" {...form.field('to')} />
      <TextField label="Section" placeholder={sectionFor(line)} {...form.field('section')} />
      <TextField label="Dimensions it holds" placeholder="DL1 DL2" {...form.field('holds')} />
      <p role="status" className="sm:col-span-2">
        {line
          ? `${format.length(line.length)} ${format.unit} between the points, rising ${line.rise.toFixed(1)}°, ${line.heading.toFixed(1)}° in plan.`
          : 'Name two points to see the length and the angles.'}
      </p>
      <p className="text-sm text-soft sm:col-span-2">
        Weld or bolt it to metal that stays, on doubled metal, out of the way of the new panel, where it can be reached
        and removed at the end.
      </p>
    </FormFields>
  );
}
