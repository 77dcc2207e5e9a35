import type { Tables } from '@/core/shell/job/job-rows';
import { lineGeometry } from '@/core/findings/brace-pull';
import type { Brace } from '@/core/shell/job/entities';
import type { BracesPage } from '@/core/report/pages/braces';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import type { Fault } from '@/formats/faults';
import { SelectField, TextField } from '../kit/field';
import { wordsOf } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';

/** What a brace is planned from. */
export type PlanningRows = Tables<'jobs' | 'points' | 'dimensions' | 'braces'>;

/** A brace as its form has it. */
export type BraceTexts = Record<'code' | 'from' | 'to' | 'section' | 'holds', string> & {
  readonly kind: Brace['kind'];
};

export interface BraceFrom {
  readonly rows: PlanningRows;
  readonly positions: BracesPage['positions'];
}

/** The section usual for a line of this length: long ones want more. */
const sectionFor = (line: { readonly length: number } | undefined) =>
  line && line.length > 1200 ? 'square tube 40×40×3' : 'square tube 25×25×2';

const pointOf = (rows: PlanningRows, code = '') =>
  rows.points.find((point) => point.code.toLowerCase() === code.trim().toLowerCase());

function lineBetween({ rows, positions }: BraceFrom, a: string, b: string) {
  const [from, to] = [positions[pointOf(rows, a)?.id ?? ''], positions[pointOf(rows, b)?.id ?? '']];
  return from && to ? lineGeometry(from, to) : undefined;
}

/** What the fields of a brace say, with a fault for each that makes no sense. */
export function readBrace(from: BraceFrom, values: BraceTexts, faults: Fault[]) {
  const { rows } = from;
  const [a, b] = [pointOf(rows, values.from), pointOf(rows, values.to)];
  if (!values.code.trim()) faults.push({ path: 'code', message: 'mark it with a code' });
  if (!a) faults.push({ path: 'from', message: `no point “${values.from}”` });
  if (!b) faults.push({ path: 'to', message: `no point “${values.to}”` });
  else if (a === b) faults.push({ path: 'to', message: 'a brace has two ends' });
  const dimensionIds = wordsOf(values.holds).flatMap((code) => {
    const dimension = rows.dimensions.find((each) => each.code.toLowerCase() === code.toLowerCase());
    if (!dimension) faults.push({ path: 'holds', message: `no dimension ${code}` });
    return dimension ? [dimension.id] : [];
  });
  return {
    fields: {
      code: values.code.trim(),
      fromPointId: a?.id ?? '',
      toPointId: b?.id ?? '',
      kind: values.kind,
      section: values.section.trim() || sectionFor(lineBetween(from, values.from, values.to)),
    },
    dimensionIds,
  };
}

interface Drawn {
  readonly from: BraceFrom;
  readonly field: (name: keyof BraceTexts) => object;
  readonly watch: (name: 'from' | 'to') => string;
}

/** The fields of a brace, and the length and angles its two ends make. */
export function BraceFields({ from, field, watch }: Drawn) {
  const format = useFormat();
  const line = lineBetween(from, watch('from'), watch('to'));
  return (
    <>
      <TextField label="Code" {...field('code')} />
      <SelectField
        label="Kind"
        {...field('kind')}
        options={(Object.keys(BRACE_WORD) as Brace['kind'][]).map((kind) => [kind, BRACE_WORD[kind]])}
      />
      <TextField label="From point" {...field('from')} />
      <TextField label="To point" {...field('to')} />
      <TextField label="Section" placeholder={sectionFor(line)} {...field('section')} />
      <TextField label="Dimensions it holds" placeholder="DL1 DL2" {...field('holds')} />
      <p role="status" className="sm:col-span-2">
        {line
          ? `${format.length(line.length)} ${format.unit} between the points, rising ${line.rise.toFixed(1)}°, ${line.heading.toFixed(1)}° in plan.`
          : 'Name two points to see the length and the angles.'}
      </p>
      <p className="text-sm text-soft sm:col-span-2">
        Weld or bolt it to metal that stays, on doubled metal, out of the way of the new panel, where it can be reached
        and removed at the end.
      </p>
    </>
  );
}
