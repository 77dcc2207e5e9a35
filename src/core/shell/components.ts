/**
 * What a metalworker calls the movement of a section. The two sides' mean along, across and up; and their
 * difference, right minus left: of length (diamond), of width (spread), of height (twist).
 */
export const COMPONENTS = ['mash', 'sway', 'sag', 'diamond', 'spread', 'twist'] as const;
export type Component = (typeof COMPONENTS)[number];
