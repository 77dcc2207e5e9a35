import type { JobRows } from '@/core/shell/job/job-rows';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import type { Fault } from '@/formats/faults';

/** What a reference can be made of by hand. */
export const KINDS = ['sisterCar', 'mirroredSide', 'earlierRound', 'plannedChange', 'keptPart', 'chart'] as const;
export type Kind = (typeof KINDS)[number];

/** What a filled form says, with a fault at each field that makes no sense. */
export function readReferenceForm(
  form: FormData,
  kind: Kind,
  points: JobRows['points'],
  unit: LengthUnit,
): { readonly value: { name: string; source: string; of: object }; readonly faults: readonly Fault[] } {
  const faults: Fault[] = [];
  const text = (field: string) => String(form.get(field) ?? '').trim();
  const length = (field: string) => {
    const parsed = parseLength(text(field) || '0', unit);
    if (!parsed.ok) faults.push({ path: field, message: parsed.reason });
    return parsed.ok ? parsed.mm : 0;
  };
  const pointIds = (field: string) =>
    text(field)
      .split(/[\s,;]+/)
      .filter(Boolean)
      .flatMap((code) => {
        const point = points.find((each) => each.code.toLowerCase() === code.toLowerCase());
        if (!point) faults.push({ path: field, message: `no point "${code}"` });
        return point ? [point.id] : [];
      });
  // A trust is typed as ±, two standard deviations, like every uncertainty on the screen.
  const typed = () => ({ figures: text('figures'), unit, trust: length('trust') / 2 });
  const of = {
    sisterCar: () => ({ roundIds: form.getAll('sister').map(String), through: pointIds('through') }),
    mirroredSide: () => ({ roundId: text('round'), good: text('good') }),
    earlierRound: () => ({ roundId: text('round') }),
    plannedChange: () => ({ pointIds: pointIds('points'), offset: [length('x'), length('y'), length('z')] }),
    keptPart: typed,
    chart: typed,
  }[kind]();
  return { value: { name: text('name'), source: text('source'), of: { kind, ...of } }, faults };
}
