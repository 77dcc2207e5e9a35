/** What came out of a line an instrument sent. */
export type DeviceLine =
  { readonly ok: true; readonly amount: string } | { readonly ok: false; readonly reason: string };

/** The first number of a line, with the unit behind it if there is one. */
export const USUAL_PATTERN = String.raw`([+-]?\d+(?:[.,]\d+)?)\s*(mm|cm|in|")?`;

/**
 * Takes the measured amount out of a line an instrument sent: what the pattern's first group matches,
 * followed by its second group as the unit.
 *
 * @param pattern a regular expression with one or two groups, as the user set it
 */
export function readDeviceLine(line: string, pattern: string): DeviceLine {
  let expression: RegExp;
  try {
    expression = new RegExp(pattern, 'i');
  } catch {
    return { ok: false, reason: 'the pattern is not a regular expression' };
  }
  const match = expression.exec(line);
  if (!match) return { ok: false, reason: `the pattern finds nothing in "${line.trim()}"` };
  if (match[1] === undefined) return { ok: false, reason: 'the pattern needs a group in brackets round the number' };
  const number = match[1].replace(/^\+/, '').replace(/^(-?)0+(?=\d)/, '$1');
  return { ok: true, amount: `${number}${match[2] ? ` ${match[2].toLowerCase()}` : ''}` };
}

/** Cuts what came over a serial line so far into whole lines and the rest. */
export function splitLines(buffer: string): { readonly lines: readonly string[]; readonly rest: string } {
  const parts = buffer.split(/\r\n|\r|\n/);
  return { lines: parts.slice(0, -1).filter((line) => line.trim() !== ''), rest: parts.at(-1)! };
}
