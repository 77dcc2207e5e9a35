import { useState } from 'react';

/** Lists of the same things in the same order. */
export const sameList = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((each, i) => each === b[i]);

/** Records with the same fields of the same things. */
export const sameFields = <T extends object>(a: T, b: T): boolean =>
  (Object.keys(a) as (keyof T)[]).every((field) => a[field] === b[field]);

/** The value of an earlier rendering for as long as the new one is the same to all that matters. */
export function useSame<T>(value: T, same: (a: T, b: T) => boolean): T {
  const [kept, keep] = useState(value);
  if (kept === value || same(kept, value)) return kept;
  keep(value);
  return value;
}
