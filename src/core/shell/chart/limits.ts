import { point, dimension, seam, referencePoint, referenceDimension, seamStation } from '../job/entities';
import type { ChartDraft, DraftFault } from './draft';

/** What may be said of a row, field by field: the very schemas the rows themselves are kept by. */
const POINT = { code: point.shape.code, name: point.shape.name, holeDiameter: point.shape.holeDiameter };
const LIMITS = {
  points: { ...POINT, ...pick(referencePoint.shape, 'x', 'y', 'z', 'tolerance') },
  named: POINT,
  dimensions: { ...pick(dimension.shape, 'code', 'name'), ...pick(referenceDimension.shape, 'value', 'tolerance') },
  seams: pick(seam.shape, 'code', 'name', 'pairing'),
} as const;

function pick<Shape, Key extends keyof Shape>(shape: Shape, ...keys: readonly Key[]): Pick<Shape, Key> {
  return Object.fromEntries(keys.map((key) => [key, shape[key]])) as Pick<Shape, Key>;
}

const IN_WORDS: Readonly<Record<string, string>> = {
  code: 'a code has 1 to 40 letters, all of them signs that can be written',
  name: 'a name has at most 200 letters, all of them signs that can be written',
  pairing: 'at most 200 letters, all of them signs that can be written',
  x: 'no shell reaches further than 100 m',
  y: 'no shell reaches further than 100 m',
  z: 'no shell reaches further than 100 m',
  value: 'a length is above zero and below 100 m',
  tolerance: 'a limit is above zero and at most 1 m',
  holeDiameter: 'a hole is above zero and at most 500 mm wide',
};

/** Rows of a draft that no job could keep, field by field. */
export function limitFaults(draft: ChartDraft): DraftFault[] {
  const faults: DraftFault[] = [];
  for (const list of ['points', 'named', 'dimensions', 'seams'] as const)
    (draft[list] ?? []).forEach((row, index) => {
      for (const [field, schema] of Object.entries(LIMITS[list])) {
        const value = (row as unknown as Record<string, unknown>)[field];
        // A code that is missing is said where the file is read.
        if (value === '' || schema.safeParse(value).success) continue;
        faults.push({ list, index, field, message: `${field}: ${IN_WORDS[field]}` });
      }
    });
  (draft.seams ?? []).forEach(({ stations }, index) => {
    for (const { number, name, gap, flush } of stations)
      if (
        !seamStation.shape.name.safeParse(name).success ||
        [gap, flush].some((target) => target && !isTarget(target.value, target.tolerance))
      )
        faults.push({
          list: 'seams',
          index,
          field: 'stations',
          message: `station ${number}: a name of at most 200 letters, targets below 100 m, limits of at most 1 m`,
        });
  });
  return faults;
}

const isTarget = (value: number, tolerance: number): boolean =>
  referencePoint.shape.x.safeParse(value).success && referencePoint.shape.tolerance.safeParse(tolerance).success;
