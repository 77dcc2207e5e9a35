/** The words for the parts of a body: the program's own, and the two the user chooses between. */
export type Words = 'uk' | 'us';

export const TERMS = {
  innerSill: { uk: 'inner sill', us: 'inner rocker' },
  sill: { uk: 'sill', us: 'rocker panel' },
  frontWing: { uk: 'front wing', us: 'front fender' },
  rearQuarter: { uk: 'rear wing', us: 'quarter panel' },
  bonnet: { uk: 'bonnet', us: 'hood' },
  bootLid: { uk: 'boot lid', us: 'trunk lid' },
  tailgate: { uk: 'tailgate', us: 'liftgate' },
  bulkhead: { uk: 'bulkhead', us: 'firewall' },
  scuttle: { uk: 'scuttle', us: 'cowl' },
  chassisLeg: { uk: 'chassis leg', us: 'frame rail' },
  slamPanel: { uk: 'slam panel', us: 'radiator support' },
  innerWing: { uk: 'inner wing', us: 'inner fender apron' },
  wheelhouse: { uk: 'inner wheel arch', us: 'wheelhouse' },
  aPost: { uk: 'A post', us: 'A pillar' },
  bPost: { uk: 'B post', us: 'B pillar' },
  cPost: { uk: 'C post', us: 'C pillar' },
  cantrail: { uk: 'cantrail', us: 'roof side rail' },
  rearPanel: { uk: 'rear panel', us: 'tail panel' },
  windscreen: { uk: 'windscreen', us: 'windshield' },
  swageLine: { uk: 'swage line', us: 'body line' },
  centre: { uk: 'centre', us: 'center' },
  metre: { uk: 'metre', us: 'meter' },
  millimetre: { uk: 'millimetre', us: 'millimeter' },
  licence: { uk: 'licence', us: 'license' },
  shutLine: { uk: 'shut line', us: 'panel gap' },
} as const satisfies Record<string, Record<Words, string>>;

export type Term = keyof typeof TERMS;

export const term = (name: Term, words: Words): string => TERMS[name][words];

const other = (words: Words): Words => (words === 'uk' ? 'us' : 'uk');

const PATTERN: Readonly<Record<Words, RegExp>> = { uk: patternFrom('uk'), us: patternFrom('us') };

function patternFrom(words: Words): RegExp {
  const all = Object.values(TERMS).map((each) => each[words]);
  const longestFirst = all.sort((a, b) => b.length - a.length).join('|');
  return new RegExp(String.raw`\b(?:${longestFirst})(s?)\b`, 'gi');
}

const PANEL_FOLLOWS = /^ panels?\b/i;

/** A name as typed, with the parts of the body called as the reader calls them. */
export function inWords(text: string, words: Words): string {
  const from = other(words);
  return text.replace(PATTERN[from], (found, plural: string, at: number) => {
    const singular = plural ? found.slice(0, -1) : found;
    const match = Object.values(TERMS).find((each) => each[from].toLowerCase() === singular.toLowerCase());
    const named = (match?.[words] ?? singular) + plural;
    // A “sill panel” is a rocker panel, and no rocker panel panel.
    const isSaid = PANEL_FOLLOWS.test(text.slice(at + found.length));
    const translated = isSaid ? named.replace(/ panel$/, '') : named;
    const capital = found[0] === found[0]?.toUpperCase();
    return capital ? translated[0]!.toUpperCase() + translated.slice(1) : translated;
  });
}
