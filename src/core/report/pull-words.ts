import { norm, type Vector } from '../maths/geometry/vector';
import { BAR } from '../plan/pulls/candidates';
import type { PullReason } from '../plan/pulls/plan-pulls';
import type { TooFarGone } from '../plan/pulls/too-far-gone';
import type { Pull } from '../shell/job/entities';
import type { WhyNot } from './pages/pulling';
import { directionWord, listed } from './vocabulary/words';

/** How the caller names points and shows lengths. */
export interface PullWords {
  readonly point: (id: string) => string;
  /** A length with its unit. */
  readonly length: (mm: number) => string;
}

export const ATTACH_WORD: Readonly<Record<NonNullable<Pull['attach']>, string>> = {
  plate: 'pull plate, fully welded',
  tab: 'tab tacked to skin',
  clamp: 'bolted clamp',
  hook: 'hook in a hole or box',
  strap: 'strap',
  bolt: 'bolt in a threaded hole',
  jack: 'screw jack or turnbuckle between two points',
};

export const ANCHOR_WORD: Readonly<Record<NonNullable<Pull['anchor']>, string>> = {
  tower: 'tower on the bench',
  floor: 'anchor in the floor',
};

/** What each way of taking hold asks for. */
export const ATTACH_RULE: Readonly<Record<NonNullable<Pull['attach']>, string>> = {
  plate: 'Weld it all round before it is loaded: never load a structural plate on tacks.',
  tab: 'Tacks are for skin alone, with a light pull: structure tears them off.',
  clamp: 'Tighten it again after the first tension: metal thins under the jaws.',
  hook: 'Load the hook in its bowl, never on its tip.',
  strap: 'Pad sharp edges; a strap stretches and lets go without warning.',
  bolt: 'Full thread, strong bolt, plate against the metal: no bending of the bolt.',
  jack: 'Pads and timber under both ends, tethered, unloaded slowly: it can fly out.',
};

const AXES = ['x', 'y', 'z'] as const;

/** `12.9 forward, 4.8 to the left`: a movement or direction by its parts. */
export function partsText(by: Vector, length: (mm: number) => string, least = 0.1): string {
  const parts = AXES.flatMap((axis, k) =>
    Math.abs(by[k]!) >= least ? [`${length(Math.abs(by[k]!))} ${directionWord(axis, by[k]!)}`] : [],
  );
  return parts.join(', ') || 'nowhere';
}

/** `forward and slightly up`: a direction in words, the larger parts first. */
export function wayText(direction: Vector): string {
  const size = norm(direction) || 1;
  const parts = AXES.map((axis, k) => ({ axis, part: direction[k]! / size }))
    .filter(({ part }) => Math.abs(part) > 0.12)
    .toSorted((a, b) => Math.abs(b.part) - Math.abs(a.part));
  const [first] = parts;
  return listed(
    parts.map(({ axis, part }) =>
      first && Math.abs(part) < 0.45 * Math.abs(first.part)
        ? `slightly ${directionWord(axis, part)}`
        : directionWord(axis, part),
    ),
  );
}

/** The key of a proposed pull as people read it: `R3L rearward`. */
export function pullKeyText(key: string): string {
  const words = key.split(' ');
  const way = words.at(-1)!;
  const [point, other] = words.slice(0, -1);
  const towards = directionWord(way[1] as 'x' | 'y' | 'z', way[0] === '-' ? -1 : 1);
  return `${point}${other === BAR ? ' and others by a bar' : other ? ` against ${other}` : ''} ${towards}`;
}

export function goneText(gone: TooFarGone): string {
  if (gone.by === 'rust')
    return `${Math.round(100 * gone.gone)} % of the section of ${gone.member} is gone: it tears before it moves. Replace it`;
  return `${gone.by === 'crack' ? 'torn' : 'creased'} here (“${gone.text}”): pulled straight it comes back thin and cracks later. Replace it`;
}

/** Why a pull is proposed, and what speaks against it. */
export function pullReasonText(why: PullReason, { point, length }: PullWords): string {
  switch (why.kind) {
    case 'brings':
      return `brings ${point(why.pointId)} from ${length(why.before)} out to ${length(why.after)}`;
    case 'springsBack':
      return `about ${length(why.by)} is expected to come home when it is let go: the first stroke tells`;
    case 'soundYields':
      return `bends ${listed(why.members)}, which was sound: hold nearer to the damage, or pull elsewhere`;
    case 'deepestFirst':
      return `the deepest of ${listed(why.pointIds.map(point))}, ${length(why.bow)} beyond the line of the others: pull it alone until a bar goes straight through plates at all of them, then all together`;
    case 'bar':
      return `by a bar through plates at ${listed(why.pointIds.map(point))}: they stand in one line, and come out together`;
    case 'leaves':
      return `the point leaves with “${why.panel}”: pull while it is there, it has something to take hold of`;
    case 'tooFarGone':
      return goneText(why);
  }
}

/** Why nothing can be reckoned, and what to do. */
export function whyNotText(why: WhyNot): string {
  switch (why.why) {
    case 'noStructure':
      return 'Too little is known to make a structure of this shell: say which body it is on the rung Brace, or lay its points out. A pull can be planned all the same, from a point’s own deviation.';
    case 'noRound':
      return 'No round of this shell is judged yet: measure it and align it with three control points first.';
    case 'nothingOut':
      return 'No point is out of its limits: there is nothing to pull.';
    case 'allUndecided':
      return 'Every deviation is undecided: none is out for certain. Measure the points again, or with something finer, before metal is moved.';
    case 'noHold':
      return `Nothing holds ${listed(why.nodes.slice(0, 6))} against a pull: the shell would come along. Name what it is held at, by clamps or heads, on both sides.`;
  }
}
