import { listed } from './vocabulary/words';
import type { Component } from '../shell/components';
import type { DamagePattern, LocalMovement, PatternComponent, SectionMovement } from '../findings/pattern/pattern';

/** How the caller names points and shows lengths. */
export interface PatternWords {
  /** A length without sign and unit: `5.5`. */
  readonly length: (mm: number) => string;
  /** Two standard deviations of one, without sign and unit. */
  readonly uncertainty: (mm: number) => string;
  readonly unit: string;
  /** A charted point near a station, for the hinge: `C1 (rear seat crossmember hole)`. */
  readonly near: (station: number) => string;
  readonly code: (id: string) => string;
  /** The section in the reader's words: `center`. */
  readonly section: (section: SectionMovement['section']) => string;
  /** +1 on the right, −1 on the left, 0 in the middle. */
  readonly side: (id: string) => number;
}

type SpokenSection = Omit<SectionMovement, 'hingeSd'>;

/** As much of a pattern as is said of it. */
export interface SpokenPattern extends Pick<DamagePattern, 'hinges' | 'local'> {
  readonly sections: readonly SpokenSection[];
}

/** What each component is called. */
export const COMPONENT_WORD: Readonly<Record<Component, string>> = {
  mash: 'mash, the section shortened or drawn out',
  sway: 'sway, bent sideways',
  sag: 'sag, bent up or down',
  diamond: 'diamond, one side ahead of the other',
  spread: 'spread, the sides apart or together',
  twist: 'twist, one side above the other',
};

/** The pattern in plain sentences: the whole section first, then how its sides differ, then single points. */
export function patternSentences(pattern: SpokenPattern, words: PatternWords): string[] {
  if (pattern.hinges === 0)
    return ['Too few points are located to look for a pattern: locate three or more of one end, and more of the rest.'];
  if (pattern.sections.length + pattern.local.length === 0)
    return ['No pattern: what the points are off by is no more than the readings and chance explain.'];
  return [
    ...pattern.sections.flatMap((section) => sectionSentences(section, words)),
    ...pattern.local.map((local) => localSentence(local, words)),
  ];
}

function sectionSentences(movement: SpokenSection, words: PatternWords): string[] {
  const { hinge, components, onlySide, alike } = movement;
  const section = words.section(movement.section);
  const significant = components.filter((each) => each.significant);
  const of = (names: readonly Component[]) => significant.filter(({ name }) => names.includes(name));
  const way = hinge.end > hinge.hinge ? 'back' : 'forward';
  const from = `from ${words.near(hinge.hinge)} ${way}`;
  const whole = of(['mash', 'sway', 'sag']).map((each) => wholePhrase(each, movement, words));
  const sides = of(['diamond', 'twist', 'spread']).map((each) => sidePhrase(each, movement, words));
  const subject = onlySide ? `The ${onlySide} side of the ${section}` : `The ${section}`;
  const first = whole.length > 0 ? `${subject} has gone ${listed(whole)} ${from}.` : '';
  const second =
    sides.length === 0
      ? ''
      : first
        ? `Its left side is also ${listed(sides)}.`
        : `The ${section}’s left side is ${listed(sides)} ${from}.`;
  const doubt = onlySide
    ? `Only its ${onlySide} side is measured there: mash cannot be told from diamond, sway from spread, nor sag from twist.`
    : alike.length > 0
      ? `The measured points cannot tell apart ${alike.map(([a, b]) => `${a} and ${b}`).join(', ')}.`
      : '';
  return [first, second, doubt].filter((sentence) => sentence !== '');
}

const amount = ({ amount: mm, sd }: PatternComponent, { length, uncertainty, unit }: PatternWords): string =>
  `${length(Math.abs(mm))} ± ${uncertainty(2 * sd)} ${unit}`;

function wholePhrase(each: PatternComponent, _: SpokenSection, words: PatternWords): string {
  const plus = each.amount >= 0;
  const direction = {
    mash: plus ? 'rearward' : 'forward',
    sway: plus ? 'to the right' : 'to the left',
    sag: plus ? 'up' : 'down',
  }[each.name as 'mash' | 'sway' | 'sag'];
  return `${amount(each, words)} ${direction}`;
}

/** How the left side differs from the right; amounts are right minus left. */
function sidePhrase(each: PatternComponent, { hinge }: SpokenSection, words: PatternWords): string {
  const rightFarther = each.amount >= 0;
  if (each.name === 'diamond') {
    const leftShorter = hinge.end > hinge.hinge ? rightFarther : !rightFarther;
    return `${amount(each, words)} ${leftShorter ? 'shorter' : 'longer'} than the right`;
  }
  if (each.name === 'twist') return `${amount(each, words)} ${rightFarther ? 'lower' : 'higher'} than the right`;
  return `${amount(each, words)} ${rightFarther ? 'farther from' : 'nearer to'} the right than it was`;
}

function localSentence({ id, movement, sd }: LocalMovement, words: PatternWords): string {
  const axis = [0, 1, 2].reduce((best, i) => (Math.abs(movement[i]!) > Math.abs(movement[best]!) ? i : best), 0);
  const mm = movement[axis]!;
  const outward = words.side(id) === 0 ? undefined : mm * words.side(id) > 0;
  const across = outward === undefined ? (mm > 0 ? 'to the right' : 'to the left') : outward ? 'outward' : 'inward';
  const direction = [mm > 0 ? 'rearward' : 'forward', across, mm > 0 ? 'up' : 'down'][axis]!;
  return `${words.code(id)} stands ${words.length(Math.abs(mm))} ± ${words.uncertainty(2 * sd[axis]!)} ${words.unit} ${direction} by itself: a local dent or bulge, no part of a pattern.`;
}
