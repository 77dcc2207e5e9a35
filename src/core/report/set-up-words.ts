import type { Against, WhyMounts } from '../plan/set-up/choose-mounts';
import type { SupportTie } from '../findings/support-tie';
import type { GaugeSays } from '../findings/gauges';
import type { Vector } from '../maths/geometry/vector';
import type { SetUpFault } from '../plan/set-up/build';
import type { LevelFault } from '../plan/set-up/level';
import type { Lacking } from '../plan/set-up/stacks/shortage';

/** How the caller names things and shows lengths. */
export interface SetUpWords {
  /** A mount by its point's code. */
  readonly mount: (id: string) => string;
  /** What lies on the shelf, by its code. */
  readonly piece: (id: string) => string;
  /** A length with its unit. */
  readonly length: (mm: number) => string;
}

const kg = (value: number): string => `${Math.round(value)} kg`;

export const AGAINST_WORD: Readonly<Record<Against, string>> = {
  rust: 'rusty or worn',
  moved: 'outside its limit',
  toBeCut: 'will be cut',
  suspension: 'behind the suspension',
  gone: 'gone',
  buried: 'buried',
};

/** Why a set of mounts is proposed. */
export function whyMountsText(why: WhyMounts, { length }: SetUpWords): string {
  switch (why.kind) {
    case 'spread':
      return `${length(why.length)} by ${length(why.width)} apart: an error at a mount is ${why.leverage.toFixed(1)} times as large at the worst corner`;
    case 'load':
      return `each carries ${kg(why.least)} to ${kg(why.most)}`;
    case 'inside':
      return `the weight stands ${length(why.margin)} inside of them`;
    case 'steadier':
      return `${why.percent} % steadier than the next set`;
    case 'evener':
      return `${kg(why.kilograms)} more even than the next set`;
  }
}

/** What stands in the way of a set-up, and the nearest thing that would work. */
export function setUpFaultText(fault: SetUpFault, { mount, length }: SetUpWords): string {
  switch (fault.kind) {
    case 'beyondRails':
      return `${mount(fault.id)} lies ${length(Math.abs(fault.by))} ${fault.by < 0 ? 'ahead of the first' : 'behind the last'} hole: move the shell ${fault.by < 0 ? 'back' : 'forward'} by as much`;
    case 'beyondBeam':
      return `${mount(fault.id)} lies ${length(fault.by)} beyond the beam’s end: take a point nearer the middle, or a longer beam`;
    case 'underBeam':
      return `${mount(fault.id)} lies ${length(fault.by)} under the beam’s top: raise the shell by as much`;
    case 'collide':
      return `the towers of ${mount(fault.ids[0])} and ${mount(fault.ids[1])} are ${length(fault.by)} in each other’s way: give one a beam of its own`;
    case 'beamsTooNear':
      return `the beams at holes ${fault.holes[0] + 1} and ${fault.holes[1] + 1} are in each other’s way: move one, for ${fault.ids.map(mount).join(', ')}`;
    case 'beamsShort':
      return `${fault.wanted} beams wanted, ${fault.there} there: take points that share a beam`;
    case 'noHead':
      return `no head on the shelf fits the hole of ${mount(fault.id)}, ${length(fault.diameter)} across`;
    case 'notBuilt':
      return `nothing on the shelf builds ${mount(fault.id)}: ${length(fault.height)} from the beam to the point`;
    case 'builtOff':
      return `${mount(fault.id)} stands ${length(Math.abs(fault.by))} too ${fault.by > 0 ? 'tall' : 'short'} for where it is planned now: build it again, and untick it until then`;
    case 'onLine':
      return 'the first mounts stand on one line: the shell would tip; take one well off that line';
    case 'tips':
      return `the weight stands ${length(fault.by)} outside of the first mounts: take one on the other side of it`;
    case 'overloaded':
      return `${mount(fault.id)} would carry ${kg(fault.kilograms)}, rated for ${kg(fault.rating)}`;
    case 'emptyShelf':
      return 'there is nothing on the shelf of this bench: write down its towers and heads first';
  }
}

/** Something the shelf lacks. */
export const lackingText = ({ id, height, count, mounts }: Lacking, words: SetUpWords): string =>
  `${count} ${id ? `more ${words.piece(id)}` : `of ${words.length(height)}, made`}, for ${mounts.map(words.mount).join(', ')}`;

/** What is asked while a support stands on metal that will be replaced. */
export function tieText({ going, staying, tiedBy }: SupportTie, code: (pointId: string) => string): string {
  const named = going.map(({ pointId, part }) => `${code(pointId)} (${part})`).join(', ');
  if (tiedBy) return `${named} will be cut; the round “${tiedBy}” ties old and new support together.`;
  return staying < 3
    ? `${named} will be cut: put ${3 - staying} more mounts on metal that stays, before the cut.`
    : `${named} will be cut: take a round that locates all mounts, old and new, while both exist.`;
}

/** What a head or a hole of a part says of the shell, and what to do about it. */
export const GAUGE_WORD: Readonly<Record<GaugeSays, string>> = {
  agrees: 'agrees with the rest of the round',
  shell: 'the shell is off here',
  shellOrStack: 'the shell is off, or its stack: type the height it was built at into the card',
  stackOrReading: 'it goes in, but the rest has this point elsewhere: look at its stack, then read the point again',
  shouldEnter: 'the rest has the point right there: look for dirt, paint or a wrong head',
  cannotTell: 'the rest cannot tell: read a fourth head or hole of it, and this point from two or three others',
  bent: 'the part contradicts its own holes: it has no voice',
  unchecked: 'nobody taped this hole against the part’s others: it has no voice yet',
  fewHoles: 'read at least three holes of this part',
};

/** How far something lies from something else: `4 rearward, 2 up`; what is less than half a millimetre is left out. */
export function offText(by: Vector, length: (mm: number) => string): string {
  const words = [
    ['forward', 'rearward'],
    ['left', 'right'],
    ['down', 'up'],
  ] as const;
  const told = by.flatMap((mm, k) =>
    Math.abs(mm) < 0.5 ? [] : [`${length(Math.abs(mm))} ${words[k as 0 | 1 | 2][mm < 0 ? 0 : 1]}`],
  );
  return told.length > 0 ? told.join(', ') : 'right there';
}

/** Why nothing can be said of levelling yet. */
export function levelFaultText(fault: LevelFault): string {
  switch (fault.kind) {
    case 'tooFewHeights':
      return `read the heights of at least three undisturbed points: ${fault.read} read`;
    case 'heightsOnLine':
      return 'the heights read lie on one line: read one on the other side';
    case 'tooFewSupports':
      return `a shell stands on at least three mounts: ${fault.there} planned`;
  }
}
