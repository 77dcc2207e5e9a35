import { useState } from 'react';

/** The value of an earlier rendering for as long as the new one is the same to all that matters. */
export function useSame<T>(value: T, same: (a: T, b: T) => boolean): T {
  const [kept, keep] = useState(value);
  if (kept === value || same(kept, value)) return kept;
  keep(value);
  return value;
}
