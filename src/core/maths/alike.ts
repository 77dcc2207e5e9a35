const NONE: ReadonlySet<string> = new Set();

/**
 * Whether two plain values say the same: numbers, texts, lists and records of these. What is the same object is not
 * looked into.
 *
 * @param aside fields of records that do not count
 */
export function alike(a: unknown, b: unknown, aside: ReadonlySet<string> = NONE): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [one, other] = [a as Record<string, unknown>, b as Record<string, unknown>];
  let fields = 0;
  for (const field in one) {
    fields++;
    if (!aside.has(field) && !(field in other && alike(one[field], other[field], aside))) return false;
  }
  for (const _ in other) fields--;
  return fields === 0;
}
