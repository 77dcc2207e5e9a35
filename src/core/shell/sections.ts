export const SECTIONS = ['front', 'centre', 'rear'] as const;
export type Section = (typeof SECTIONS)[number];

/** Shares of the shell's length between which the centre section lies. */
export const CENTRE_SHARE = [0.27, 0.68] as const;

/** The section of the shell a station lies in, by its share of the shell's length. */
export function sectionAt(x: number, [from, to]: readonly [number, number]): Section {
  const part = (x - from) / Math.max(to - from, 1);
  return part < CENTRE_SHARE[0] ? 'front' : part > CENTRE_SHARE[1] ? 'rear' : 'centre';
}

/** The foremost and rearmost of some stations. */
export const extentOf = (stations: readonly number[]): [number, number] => [
  Math.min(...stations),
  Math.max(...stations),
];
