import type { JobRows } from '@/core/shell/job/job-rows';
import type { LengthUnit } from '@/core/maths/units/length';
import type { Fault } from '@/formats/faults';
import type { MakeOf } from '@/formats/inputs/references';
import { lengthsOf, wordsOf } from '../kit/use-entry-form';

/** What a reference can be made of by hand. */
export const KINDS = [
  'sisterCar',
  'mirroredSide',
  'earlierRound',
  'plannedChange',
  'keptPart',
  'removedPart',
  'chart',
] as const;
export type Kind = (typeof KINDS)[number];

/** What the form shows at first. */
export const FIELDS = {
  name: '',
  source: '',
  sisters: [] as string[],
  through: '',
  round: '',
  part: '',
  good: 'left' as 'left' | 'right',
  points: '',
  x: '0',
  y: '0',
  z: '0',
  figures: '',
  trust: '2',
};
export type Fields = typeof FIELDS;

/** What a filled form says the reference is made of, with a fault at each field that makes no sense. */
export function readMaking(
  values: Fields,
  kind: Kind,
  points: JobRows['points'],
  unit: LengthUnit,
  faults: Fault[],
): MakeOf {
  const length = lengthsOf(values, unit, faults);
  const pointIds = (field: 'through' | 'points') =>
    wordsOf(values[field]).flatMap((code) => {
      const point = points.find((each) => each.code.toLowerCase() === code.toLowerCase());
      if (!point) faults.push({ path: field, message: `no point "${code}"` });
      return point ? [point.id] : [];
    });
  switch (kind) {
    case 'sisterCar':
      return { kind, roundIds: values.sisters, through: pointIds('through') };
    case 'mirroredSide':
      return { kind, roundId: values.round, good: values.good };
    case 'earlierRound':
      return { kind, roundId: values.round };
    case 'removedPart':
      if (!values.part) faults.push({ path: 'part', message: 'open a round for the part under Measure first' });
      return { kind, roundId: values.part, through: pointIds('through') };
    case 'plannedChange':
      return { kind, pointIds: pointIds('points'), offset: [length('x'), length('y'), length('z')] };
    case 'keptPart':
    case 'chart':
      // A trust is typed as ±, two standard deviations, like every uncertainty on the screen.
      return { kind, figures: values.figures, unit, trust: length('trust') / 2 };
  }
}
