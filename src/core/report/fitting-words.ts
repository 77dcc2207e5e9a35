import type { OpeningByPoints } from '../plan/panels/opening-points';
import type { PackedAt, PackPlan } from '../plan/panels/body-packers';
import type { Hidden } from '../plan/panels/hidden';
import type { HangPlan, HangSetting, WhyNoHang } from '../plan/panels/hang';
import type { FittingOrder, FitStep } from '../plan/panels/fitting-order';
import type { HoldingFault } from '../plan/panels/holding';
import {
  measureFirst,
  type MeasuredThing,
  type Separation,
  type ShapeLength,
  type ThingFound,
} from '../plan/panels/panel-or-opening';
import type { Figures, Wanted } from '../plan/panels/seat';
import { packOf } from '../plan/panels/shim-sums';
import type {
  FitCheck,
  HoldingRung,
  HungPanel,
  OpeningCorner,
  PanelEdge,
  PanelSetting,
  Shim,
  Trim,
} from '../shell/job/entities';
import { MOST_SLOT, type SpotIndex, type TrimAdvice } from '../plan/panels/trims';
import { counted, listed } from './vocabulary/words';

export const HUNG_WORD: Readonly<Record<HungPanel['kind'], string>> = {
  ...{ door: 'door', bonnet: 'bonnet', bootLid: 'boot lid', tailgate: 'tailgate' },
  ...{ wing: 'front wing', skin: 'other panel' },
};
export const EDGE_WORD: Readonly<Record<PanelEdge, string>> = {
  ...{ front: 'front', rear: 'rear', top: 'top', bottom: 'bottom', left: 'left', right: 'right' },
};
export const SETTING_WORD: Readonly<Record<PanelSetting['kind'], string>> = {
  ...{ slot: 'slots', shims: 'shims', bend: 'bent or twisted' },
  hold: 'held, cannot be set',
};
export const HOLDING_WORD: Readonly<Record<HoldingRung, string>> = {
  ...{ off: 'off', gripped: 'gripped', clamped: 'clamped', pinned: 'pinned or screwed' },
  ...{ dowelled: 'dowelled', tacked: 'tacked', welded: 'welded' },
};
export const FIXING_WORD = {
  ...{ dowel: 'dowel', screw: 'index screw', pin: 'skin pin' },
  ...{ hole: 'temporary hole', tack: 'tack to be ground', tab: 'tab to come off' },
} as const;

/** The way a place goes when a setting is turned up, and down. */
export function wayWords({ along, way }: Pick<HangSetting, 'along' | 'way'>): readonly [string, string] {
  if (!along) return ['up by', 'down by'];
  const axis = along.findIndex((value) => Math.abs(value) > 0.5);
  if (way === 'out' && axis !== 2) return ['outward', 'inward'];
  const words = (
    [
      ['rearward', 'forward'],
      ['to the right', 'to the left'],
      ['up', 'down'],
    ] as const
  )[axis]!;
  return along[axis]! > 0 ? words : [words[1], words[0]];
}

export interface Lengths {
  readonly length: (mm: number) => string;
}

/** What to do at a setting; undefined where it stays. */
export function instruction(
  setting: HangSetting,
  value: number,
  shims: readonly Shim[],
  { length }: Lengths,
): string | undefined {
  if (Math.abs(value) < 0.005) return undefined;
  const [up, down] = wayWords(setting);
  if (!setting.along)
    return `${setting.name}: ${Math.abs(value)
      .toFixed(2)
      .replace(/\.?0+$/, '')} ${value > 0 ? 'on' : 'back'}`;
  const way = value > 0 ? up : down;
  const pack = setting.kind === 'shims' ? packOf(shims, value) : undefined;
  if (!pack) return `${setting.name} ${length(Math.abs(value))} ${way}`;
  const made = listed(pack.shims.map((each) => length(each)));
  const what = `${pack.shims.length > 1 ? 'shims of' : 'a shim of'} ${made}`;
  return value > 0 ? `${setting.name} ${way}: ${what} under it` : `${setting.name} ${way}: take ${what} from under it`;
}

/** In the order they are made: height first, then along, then in and out; what bends, last. */
const ORDER = { high: 0, long: 1, out: 2 } as const;
export const inOrder = (settings: readonly HangSetting[]): readonly HangSetting[] =>
  settings.toSorted((a, b) => (a.way ? ORDER[a.way] : 3) - (b.way ? ORDER[b.way] : 3));

/** Why nothing is advised, and what to do. */
export function whyNoHangText(why: WhyNoHang): string {
  switch (why.kind) {
    case 'noSeams':
      return 'No seam is said to run along its edges: say which, and it can be judged by them.';
    case 'noSettings':
      return 'It has nothing that can be set: name a hinge, a slot or a packer. Without one it can only be dressed, or its opening moved.';
    case 'unread':
      return `No gap of it is read yet: read ${listed(why.seams)} station by station.`;
    case 'untold':
      return `What ${listed(why.seams)} should be is not said: give the gap that is wanted, or choose a reference.`;
    case 'conditions':
      return why.conditions < 6
        ? `Its settings and holds are ${why.conditions} conditions, and it takes six to say where a panel is: it could still move. Name what holds it the other ways.`
        : `Its settings and holds are ${why.conditions} conditions, and six say where a panel is: they would fight each other. Take ${why.conditions - 6} out.`;
    case 'oneCondition':
      return 'Its six settings and holds do not say where it is: two of them are the same, or something may still turn. Look at where they are and which way they move it.';
  }
}

const isOff = ({ target, limit }: Wanted, value: number): boolean => Math.abs(value - target) > limit;

/** What the advice comes to. */
export function hangText({ cost, settings, stations, after, unread }: HangPlan): string {
  const out = (figures: readonly Figures[]) =>
    stations.filter(
      ({ gap, flush }, i) => isOff(gap, figures[i]!.gap) || (flush && isOff(flush, figures[i]!.flush ?? 0)),
    ).length;
  const now = out(stations.map(({ gap, flush }) => ({ gap: gap.now, ...(flush ? { flush: flush.now } : {}) })));
  const then = out(after);
  const rest = unread.length > 0 ? ` ${listed(unread)} is not read and may get worse: read it first.` : '';
  if (settings.every(({ advised }) => advised === 0))
    return `It hangs as well as its settings allow: ${now} of ${stations.length} stations have gap or flush outside.${rest}`;
  const left = cost.free > cost.after / 2 && then > 0 ? ' What is left no position takes away.' : '';
  return `Stations with gap or flush outside: ${now} of ${stations.length} now, ${then} after it.${left}${rest}`;
}

export const THING_WORD: Readonly<Record<MeasuredThing, string>> = { panel: 'the panel', opening: 'its opening' };
/** What each length is called at a panel that stands, or lies. */
export function lengthWord(what: ShapeLength, edges: readonly PanelEdge[]): string {
  const [first, last, low, high] = [
    edges.includes('front') ? 'front' : 'left',
    edges.includes('rear') ? 'rear' : 'right',
    edges.includes('bottom') ? 'bottom' : 'left',
    edges.includes('top') ? 'top' : 'right',
  ];
  switch (what) {
    case 'low':
      return `along the ${low}`;
    case 'highUp':
      return `along the ${high}`;
    case 'front':
      return `along the ${first}`;
    case 'rear':
      return `along the ${last}`;
    case 'down':
      return `diagonal, ${first} ${high} to ${last} ${low}`;
    case 'up':
      return `diagonal, ${first} ${low} to ${last} ${high}`;
    case 'twist':
      return 'twist: what the fourth corner stands off by';
  }
}

/** What a corner of an opening is called. */
export function cornerWord(corner: OpeningCorner['corner'], edges: readonly PanelEdge[]): string {
  const first = edges.includes('front') ? 'front' : 'left';
  const last = edges.includes('rear') ? 'rear' : 'right';
  const [low, high] = edges.includes('bottom') ? ['lower', 'upper'] : ['left', 'right'];
  return {
    ...{ firstLow: `${first} ${low} corner`, lastLow: `${last} ${low} corner` },
    ...{ lastHigh: `${last} ${high} corner`, firstHigh: `${first} ${high} corner` },
  }[corner];
}

/** What datum points say of an opening. */
export const byPointsText = (
  { round, lengths }: OpeningByPoints,
  edges: readonly PanelEdge[],
  { length }: Lengths,
): string =>
  `In ${round.name} its datum points are off: ${listed(
    lengths.map(
      ({ what, between, value, wanted, sd }) =>
        `${lengthWord(what, edges)} (${between.join(' – ')}) ${length(Math.abs(value - wanted))} ± ${length(2 * sd)} too ${value < wanted ? 'small' : 'large'}`,
    ),
  )}.`;

/** Whose fault it is, what of it is wrong, and where to send it. */
export function separationText(separation: Separation, edges: readonly PanelEdge[], { length }: Lengths): string {
  const wrong = ({ lengths, thing }: ThingFound) =>
    lengths
      .filter(({ verdict }) => verdict === 'outside')
      .toSorted((a, b) => Math.abs(b.value) - Math.abs(a.value))
      .slice(0, 2)
      .map(({ what, value, plusMinus }) => {
        const size = `${length(Math.abs(value))} ± ${length(plusMinus)}`;
        if (what === 'twist') return `${THING_WORD[thing]} is twisted, its fourth corner ${size} off the other three`;
        return `${THING_WORD[thing]} is ${size} too ${value > 0 ? 'large' : 'small'} ${lengthWord(what, edges)}`;
      });
  const { panel, opening, says } = separation;
  switch (says) {
    case 'opening':
      return `The opening is wrong, the panel is right: ${listed(wrong(opening))}. That is for pulls or braces, not for hinges.`;
    case 'panel':
      return `The panel is wrong, its opening is right: ${listed(wrong(panel))}. Dress the panel, or take another; leave the opening alone.`;
    case 'both':
      return `Both are wrong: ${listed([...wrong(opening), ...wrong(panel)])}. The opening first, by pulls or braces.`;
    case 'neither':
      return 'Panel and opening both have their shape: what is left is where the panel hangs.';
    case 'cannotTell': {
      const first = measureFirst(separation).flatMap(({ thing, what }) =>
        what.slice(0, 3).map((each) => `${THING_WORD[thing]} ${lengthWord(each, edges)}`),
      );
      const known = [...wrong(opening), ...wrong(panel)];
      return `${known.length > 0 ? `${listed(known)}; of the other it cannot be told` : 'Cannot tell panel from opening'}: ${first.length > 0 ? `measure ${listed(first)}` : 'measure again, with an instrument that is finer'}.`;
    }
  }
}

const atJoint = (joint: string, said: string): string =>
  joint === '' ? said : `${joint}: ${said[0]!.toLowerCase()}${said.slice(1)}`;

/** What speaks against going up a rung, and what settles it. */
export function holdingFaultText(fault: HoldingFault, { length }: Lengths): string {
  switch (fault.kind) {
    case 'standIn':
      return 'It is a stand-in: what is tacked is the panel that stays.';
    case 'unfixed':
      return atJoint(
        fault.joint,
        fault.wants === 'dowel'
          ? 'Name the dowels it goes back on: it comes off and on many times yet.'
          : 'Name the pins or index screws it goes back on.',
      );
    case 'notLetGo':
      return atJoint(
        fault.joint,
        'Let the clamp go once and say how far it springs: a panel forced home pulls the shell.',
      );
    case 'springs':
      return `${fault.place} springs ${length(fault.sprung)} with its clamp off, and ${length(fault.most)} is let pass: relieve it, then let it go again.`;
    case 'gapsNotRead':
      return `Read ${listed(fault.seams)} again as it is held now.`;
    case 'lap':
      return `${fault.under} goes under it and is only ${HOLDING_WORD[fault.at]}: tacked now it would be shut out.`;
    case 'under':
      return `Under it: ${fault.what}. That comes first, nobody gets there afterwards.`;
    case 'floats':
      return `It stays loose until ${fault.until} is set.`;
    case 'trapped':
      return `${fault.over}, which lies over it, is tacked already: that has to come off first.`;
  }
}

/** What packing the body comes to. */
export function packedText({ packers, seams, cost }: PackPlan, { length }: Lengths): string {
  const untried = packers.filter((each) => each.untried).map(({ packer }) => packer.name);
  const rest =
    untried.length > 0 ? ` Of ${listed(untried)} no trial was read: pack it by a little and read the gaps.` : '';
  const out = (key: 'before' | 'after') => seams.filter((each) => Math.abs(each[key]) > each.limit).length;
  const worst = Math.max(...seams.map(({ after }) => Math.abs(after)));
  if (cost.before - cost.after < 1e-6) return `Packing makes no gap better: leave the body as it stands.${rest}`;
  return `Pack the body first, then set hinges: seams with a gap outside ${out('before')} now, ${out('after')} packed so, the worst ${length(worst)} off.${rest}`;
}

/** What to do at one place under the body. */
export function packText({ packer, advised, untried }: PackedAt, shims: readonly Shim[], { length }: Lengths): string {
  const by = advised - packer.inNow;
  if (untried) return 'not tried yet';
  if (Math.abs(by) < 0.005) return 'leave it';
  const pack = packer.step === null ? packOf(shims, by) : undefined;
  const made = pack ? ` (${listed(pack.shims.map((each) => length(each)))})` : '';
  return by > 0 ? `${length(by)} more${made}` : `take ${length(-by)} out${made}`;
}

/** That an opening is wrong though its gaps look right, or would. */
export const hiddenText = (hidden: Hidden): string =>
  hidden.by === 'advice'
    ? 'Hinges could make these gaps look right and hide the opening: every panel after this one would inherit it. Set the opening right first.'
    : `These gaps look right only by what is, or is left out, at ${listed(hidden.settings)}: the opening is wrong. Put the hinges back as the maker had them and set the opening right.`;

/** The order of fitting, a line a panel. */
export function orderText({ id, by, sd }: FitStep, nameOf: (id: string) => string, { length }: Lengths): string {
  if (!by) return `${nameOf(id)} first: everything else is set by it`;
  return `${nameOf(id)} by ${nameOf(by.id)}, along ${by.seam}: ± ${length(2 * sd)} by then`;
}

export function worstText({ worst }: FittingOrder, { length }: Lengths): string | undefined {
  return worst
    ? `The seam that ends worst is ${worst.seam}, ± ${length(2 * worst.sd)}; no other order ends better.`
    : undefined;
}

export const CHECK_WORD: Readonly<Record<FitCheck['kind'], string>> = {
  ...{ offset: 'off a straight edge or string', angle: 'angle, degrees', profile: 'profile against a template' },
  ...{ swage: 'step of a swage line', jointStep: 'step at a joint', latch: 'latch and striker', lamp: 'lamp' },
  ...{ bumper: 'bumper', lidSeal: 'room for a seal', screenWidth: 'screen opening, width' },
  screenDiagonal: 'screen opening, diagonal',
};
export const TRIM_WORD: Readonly<Record<Trim['kind'], string>> = {
  ...{ edge: 'edge', hole: 'hole', bead: 'bead or flange', spot: 'spot of the new against the old' },
};

/** What is to be done at a place of a new panel. */
export function trimText(
  { advice, edge }: { readonly advice: TrimAdvice } & Pick<Trim, 'edge'>,
  { length }: Lengths,
): string {
  switch (advice.kind) {
    case 'fits':
      return 'as it must be';
    case 'trim':
      return `trim ${length(advice.by)}: the line is ${length(advice.mark)} from ${edge}`;
    case 'short':
      return `${length(advice.by)} too short: no trimming helps. Move the panel, let a strip in, or take another`;
    case 'slot': {
      const way = advice.towards ? `towards ${edge}` : `away from ${edge}`;
      return advice.by > MOST_SLOT
        ? `${length(advice.by)} out of place: weld it up and drill it anew ${way}`
        : `slot it ${length(advice.by)} ${way}`;
    }
    case 'relieve':
      return `relieve it ${length(advice.by)}: it must lie ${length(advice.mark)} from ${edge}`;
  }
}

/** How far a panel sits off by its spots. */
export const spotText = ({ by, sd, spots }: SpotIndex, { length }: Lengths): string =>
  `By ${counted(spots, 'spot')} it sits ${length(Math.abs(by))}${sd === undefined ? '' : ` ± ${length(2 * sd)}`} ${by > 0 ? 'too far from' : 'too near'} the edges they are measured from.`;
