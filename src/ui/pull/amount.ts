import type { Fault } from '@/formats/faults';

/** A number above nought, or null where nothing was typed; anything else is a fault at its field. */
export function amountOf(typed: string, path: string, unit: string, faults: Fault[]): number | null {
  const text = typed.trim().replace(',', '.');
  if (text === '') return null;
  const value = Number(text);
  if (value > 0) return value;
  faults.push({ path, message: `a number of ${unit} above nought, or nothing` });
  return null;
}
