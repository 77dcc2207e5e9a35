import type { Subjects } from './line';

/** A way to go on with a half-typed line: what the whole line becomes. */
export interface Completion {
  readonly code: string;
  readonly name: string;
  readonly text: string;
}

/**
 * Codes that begin like the last word of a half-typed line; nothing once a number is being typed. A
 * second code is offered only behind a point, not behind a station.
 */
export function completions(
  text: string,
  subjects: Subjects & { readonly names?: ReadonlyMap<string, string> },
  most = 6,
): Completion[] {
  const words = text.trimStart().split(/\s+/);
  const last = words.at(-1) ?? '';
  if (words.length > 2 || last === '' || !/^[a-z]/i.test(last)) return [];
  const typed = last.toLowerCase();
  const before = text.slice(0, text.length - last.length);
  const codes = [
    ...subjects.points.map(({ code }) => code),
    ...(words.length === 1 ? subjects.stations.map(({ code }) => code) : []),
  ];
  if (words.length === 2 && !subjects.points.some(({ code }) => code.toLowerCase() === words[0]!.toLowerCase()))
    return [];
  return codes
    .filter((code) => code.toLowerCase().startsWith(typed) && code.toLowerCase() !== typed)
    .slice(0, most)
    .map((code) => ({ code, name: subjects.names?.get(code) ?? '', text: `${before}${code} ` }));
}
