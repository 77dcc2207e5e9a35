import type { LayoutFault, LayoutNote, WeldLayout } from '../plan/weld-order/layout';
import type { AroundKind } from '../plan/weld-order/around';
import type { BetweenStep } from '../plan/weld-order/between';
import type { Effect } from '../plan/weld-order/shrink-effect';
import { ENOUGH_JOINTS, type ShrinkFactor } from '../plan/weld-order/shrinkage';
import type { WeldPlan } from '../plan/weld-order/schools';
import type { HoldingRung, WeldSeam, WeldStretch } from '../shell/job/entities';
import { HOLDING_WORD } from './fitting-words';
import { counted, listed } from './vocabulary/words';

export const WELD_WORD: Readonly<Record<WeldSeam['kind'], string>> = {
  ...{ plug: 'plugs', spot: 'resistance spots', butt: 'butt seam', lap: 'lap seam' },
  ...{ braze: 'brazed', bond: 'bonded' },
};
export const PROCESS_WORD: Readonly<Record<NonNullable<WeldSeam['process']>, string>> = {
  ...{ mig: 'MIG', tig: 'TIG', gas: 'gas', resistance: 'spot gun' },
};
export const SCHOOL_WORD: Readonly<Record<WeldSeam['school'], string>> = {
  coolest: 'wherever it is coolest',
  centre: 'from the middle outwards, every other first',
  oneEnd: 'in one go, towards the free end',
  backStep: 'in steps, each laid backwards',
  inTurn: 'one half and the other in turn',
};
export const FREE_WORD: Readonly<Record<WeldSeam['freeEnd'], string>> = {
  ...{ both: 'both ends', first: 'its first end', last: 'its last end', none: 'neither end' },
};
export const STRETCH_WORD: Readonly<Record<WeldStretch['what'], string>> = {
  ...{ corner: 'corner', double: 'a third sheet', void: 'nothing behind it' },
  ...{ unreachable: 'out of reach', brass: 'brass', lead: 'lead' },
};
/** What is done before and after a joint is made. */
export const AROUND_WORD: Readonly<Record<AroundKind, string>> = {
  access: 'Wiring, lines and pads out of the way; what belongs inside fitted and photographed',
  strip: 'Strip both faces to bright metal',
  fit: 'Fit it dry and read its gaps',
  deburr: 'Deburr holes and edges',
  weldPrime: 'Weld-through primer on the closed faces',
  abrade: 'Abrade and degrease the faces to be bonded',
  clamp: 'Clamp tight at every place',
  weld: 'Weld it, by its card',
  glue: 'Bond and clamp it',
  readCold: 'Read cold what it must keep',
  dress: 'Dress the welds',
  treat: 'Metal treatment',
  prime: 'Prime it',
  sealFirst: 'Seam sealer, first layer',
  sealSecond: 'Seam sealer, last layer',
  wax: 'Cavity wax',
};
/** A step of a joint, as the ladder has it. */
export const aroundTitle = (kind: AroundKind, beside: string): string => `${AROUND_WORD[kind]}: ${beside}`;

/** What one place of a seam is called. */
export const placeWord = ({ kind }: Pick<WeldSeam, 'kind'>): string =>
  ({ plug: 'plug', spot: 'spot', butt: 'run', lap: 'run', braze: 'run', bond: 'place' })[kind];

/** That the panel is not held as it must be before it is welded there; undefined where it is. */
export function heldText({ panel, rung }: { readonly panel: string; readonly rung: HoldingRung }): string | undefined {
  if (rung === 'tacked' || rung === 'welded') return undefined;
  return rung === 'off' || rung === 'gripped'
    ? `${panel} is only ${HOLDING_WORD[rung]} here: both sheets are clamped tight at each place before it is welded.`
    : `${panel} is ${HOLDING_WORD[rung]} here and not tacked: tack it, and read what it must keep, before it is welded.`;
}

/** What is done between two places. */
export const BETWEEN_WORD: Readonly<Record<BetweenStep['kind'], string>> = {
  tap: 'Tap the last runs down while they are warm',
  planish: 'Planish what is welded with hammer and dolly: it stretches what shrank',
  read: 'Let it cool; read what it must keep',
};

interface Signed {
  readonly length: (mm: number) => string;
  readonly difference: (mm: number) => string;
}

/** What a seam does by itself as it cools, with its range. */
export function shrinkText(across: number, { low, usual, high }: ShrinkFactor, { length }: Lengths): string {
  const at = (factor: number) => length(factor * across);
  return `Its two sides come about ${at(usual)} together (${at(low)} to ${at(high)})`;
}

/** What its shrinkage is expected to do to one length. */
export const effectText = ({ low, usual, high }: Effect, { difference }: Signed): string =>
  `${difference(usual)}, from ${difference(Math.abs(low) < Math.abs(high) ? low : high)} to ${difference(Math.abs(low) < Math.abs(high) ? high : low)}`;

/** What the range of shrinkage rests on. */
export const factorText = ({ joints, usual }: ShrinkFactor): string =>
  joints === 0
    ? 'No joint of this shop is logged: shrinkage is known to a factor of three.'
    : `${counted(joints, 'joint')} of this shop logged, which shrank ${usual.toFixed(1)} times what the model says${
        joints < ENOUGH_JOINTS ? `; the range narrows from ${ENOUGH_JOINTS} joints on` : ''
      }.`;

interface Lengths {
  readonly length: (mm: number) => string;
}

/** What speaks against a layout, and what settles it. */
export function layoutFaultText(fault: LayoutFault, { length }: Lengths): string {
  switch (fault.kind) {
    case 'noThickness':
      return 'How thick the sheets are is not said: holes, heat and gap are those of 1 mm until it is, with the joint on Cut.';
    case 'noProcess':
      return 'Say what it is welded with: order and waits hang on it.';
    case 'soft':
      return `There is ${fault.what} from ${length(fault.from)} to ${length(fault.to)}: nothing is welded over it. Take it off, and strike it from the list.`;
    case 'flangeNarrow':
      return `The flange is ${length(fault.flange)} wide and such a hole wants ${length(fault.least)}: it would break out at the edge.`;
    case 'tooNear':
      return `Places come as near as ${length(fault.pitch)}, and ${length(fault.least)} keeps metal between them: take a wider pitch, or fewer where the maker lets you.`;
  }
}

/** What is to be done for a layout. */
export function layoutNoteText(note: LayoutNote, { length }: Lengths): string {
  switch (note.kind) {
    case 'scrapePrimer':
      return 'Weld-through primer is scraped out of every plug hole; both panels clamped tight at each plug.';
    case 'peelFirst':
      return 'Before the first: weld a scrap of the same sheets and peel it. It must tear a hole, not come off.';
    case 'bondCold':
      return 'No heat beside it, before or after.';
    case 'backing':
      return `Nothing lies behind ${numbersText(note.numbers)}: back them with copper, or check that the sheet there is sound.`;
    case 'unreachable':
      return `No gun or clamp gets to ${numbersText(note.numbers)}: plan another process there, before access is lost.`;
    case 'gap':
      return note.gap === 0 ? 'The edges touch.' : `Leave a gap of up to ${length(note.gap)} between the edges.`;
    case 'more':
      return `${counted(note.count, 'place')} where the factory had ${note.factory}.`;
  }
}

const numbersText = (numbers: readonly number[]): string =>
  numbers.length > 6
    ? counted(numbers.length, 'place')
    : `${numbers.length === 1 ? 'place' : 'places'} ${listed(numbers.map(String))}, counted from the first end`;

/** Seconds as a clock shows them: `4:05`. */
export const clock = (seconds: number): string =>
  `${Math.floor(Math.round(seconds) / 60)}:${String(Math.round(seconds) % 60).padStart(2, '0')}`;

/** What a school comes to. */
export const schoolText = ({ finished, waited, waits }: WeldPlan): string =>
  waits === 0
    ? `${clock(finished)} without waiting`
    : `${clock(finished)}, of it ${clock(waited)} waiting, ${waits === 1 ? 'once' : `${waits} times`}`;

/** What a seam is marked out as. */
export const layoutText = (
  seam: WeldSeam,
  { places, stops, minutes, wire }: WeldLayout,
  { length }: Lengths,
): string => {
  if (seam.kind === 'bond') {
    const times = [
      ...(seam.openFor === null ? [] : [`open for ${seam.openFor} min`]),
      ...(seam.clampedFor === null ? [] : [`clamped for ${seam.clampedFor} min`]),
    ];
    return [`Bonded along ${length(seam.long)}`, ...times].join(', ');
  }
  const wired = wire > 0 && seam.process === 'mig' ? `, ${Math.ceil(wire)} g of wire` : '';
  const inOneGo = seam.process === 'tig' || seam.process === 'gas';
  const stopped = inOneGo && stops.length > 0 ? `; stops at ${listed(stops.map(length))}` : '';
  return `${counted(places.length, placeWord(seam))} along ${length(seam.long)}; about ${Math.round(minutes)} min with preparing and dressing${wired}${stopped}`;
};
