import { COVERAGE } from '../../maths/statistics/verdict';
import { stageStiffness, type StageStiffness } from '../../structure/slack';
import { apart, pushingApart, lineBetween, STEEL, type NodeVector } from '../../structure/shell-frame';
import { frameOf } from '../../structure/shell-model';
import { displaced } from '../../structure/stiffness';
import { frameAfter, type CutModel } from './cut-model';
import { stiffnessAfter } from './worked-stages';
import type { NamedLength } from './lengths';
import { bracesIn, strutsOf } from './stages';
import { readableLengths } from './telling';

/** A length read again after metal came out, and what it was before. */
export interface ReadAgain {
  readonly length: NamedLength;
  /** mm, with one standard deviation of each. */
  readonly before: number;
  readonly beforeSd: number;
  readonly now: number;
  readonly nowSd: number;
}

export interface LengthVerdict {
  readonly lengthId: string;
  readonly code: string;
  /** Now minus before, mm, and two standard deviations of it. */
  readonly moved: number;
  readonly plusMinus: number;
  readonly verdict: 'stayed' | 'moved';
}

/** What made the shell move, as far as its pattern says. */
export type Cause =
  /** Stress locked into the metal was let go by what was cut. */
  | { readonly kind: 'sprung' }
  /** A brace does not hold. */
  | { readonly kind: 'braceLoose'; readonly code: string }
  /** A support moved. */
  | { readonly kind: 'supportShifted'; readonly node: string }
  /** The others say it of one reading alone. */
  | { readonly kind: 'oneReading'; readonly code: string };

export interface AfterCut {
  readonly lengths: readonly LengthVerdict[];
  readonly moved: boolean;
  /** Absent where nothing moved, or where the pattern fits several causes as well. */
  readonly cause?: Cause;
  /** Lengths that would tell the causes apart which are still open. */
  readonly readToo: readonly NamedLength[];
}

/** A pattern of movement: what every length does for one unit of it. */
interface Pattern {
  readonly cause: Cause;
  readonly moves: readonly number[];
}

/** A cause is named where it explains the readings and the next best explains them so much worse (of χ²). */
const CLEARLY = 4;
/** What a cause must take off to be one at all: more than chance would by one figure. */
const WORTH = 9;

/**
 * Compares lengths read after a cut with what they were, and looks for what moved them: stress let go by a part that was cut
 * (along it, or across), a brace that does not hold (its length changes as if by itself), a support that shifted, or one
 * reading alone. Each is one pattern of unknown size; the sizes are fitted by least squares and the best is named if its
 * χ² is clearly below that of every other cause.
 */
export function judgeAfterCut(cut: CutModel, stage: number, read: readonly ReadAgain[]): AfterCut {
  const sds = read.map(({ beforeSd, nowSd }) => Math.hypot(beforeSd, nowSd));
  const moved = read.map(({ before, now }) => now - before);
  const lengths = read.map(({ length: { id, code } }, i): LengthVerdict => {
    const plusMinus = COVERAGE * sds[i]!;
    return {
      lengthId: id,
      code,
      moved: moved[i]!,
      plusMinus,
      verdict: Math.abs(moved[i]!) > plusMinus ? 'moved' : 'stayed',
    };
  });
  const any = lengths.some(({ verdict }) => verdict === 'moved');
  if (!any) return { lengths, moved: false, readToo: [] };
  const own = read.map(({ length }) => length);
  const more = stillReadable(cut, stage).filter(
    ({ from, to }) => !own.some((each) => each.from === from && each.to === to),
  );
  const fits = fitted(patternsOf(cut, stage, [...own, ...more]), moved, sds);
  const open = openCauses(fits, moved, sds);
  if (open.length === 1) return { lengths, moved: true, cause: open[0]!.cause, readToo: [] };
  return { lengths, moved: true, readToo: apartBest(open, more, own.length) };
}

function stillReadable(cut: CutModel, stage: number): NamedLength[] {
  const held = stiffnessAfter(cut, stage, cut.stiffness.usual, true);
  return held.ok ? readableLengths(cut, stage, held.value) : [];
}

/** Below this a pattern moves nothing that is read. */
const NOTHING = 1e-12;

/** A pattern at the size that fits best, and the χ² it leaves. */
interface Fit extends Pattern {
  readonly left: number;
}

function fitted(patterns: readonly Pattern[], moved: readonly number[], sds: readonly number[]): Fit[] {
  const y = moved.map((value, i) => value / sds[i]!);
  const whole = y.reduce((sum, value) => sum + value * value, 0);
  return patterns
    .map(({ cause, moves }): Fit => {
      const x = y.map((_, i) => moves[i]! / sds[i]!);
      const size = x.reduce((sum, value) => sum + value * value, 0);
      const along = x.reduce((sum, value, i) => sum + value * y[i]!, 0);
      const factor = size > NOTHING ? along / size : 0;
      return { cause, moves: moves.map((value) => factor * value), left: whole - factor * along };
    })
    .toSorted((a, b) => a.left - b.left);
}

/** The causes that explain what moved about as well as the best, each by its best pattern; none where not even that one does. */
function openCauses(fits: readonly Fit[], moved: readonly number[], sds: readonly number[]): Fit[] {
  const whole = moved.reduce((sum, value, i) => sum + (value / sds[i]!) ** 2, 0);
  const [best] = fits;
  // What is left must be chance: of n readings and one size.
  const free = moved.length - 1;
  const chance = free + 3 * Math.sqrt(2 * Math.max(1, free));
  if (!best || whole - best.left < WORTH || best.left > chance) return [];
  const close = fits.filter(({ left }) => left - best.left <= CLEARLY);
  return close.filter(({ cause }, i) => close.findIndex((each) => nameOf(each.cause) === nameOf(cause)) === i);
}

const MOST_MORE = 6;

/** The lengths not read yet in which open causes differ most. */
function apartBest(open: readonly Fit[], more: readonly NamedLength[], from: number): NamedLength[] {
  const spread = (i: number) => {
    const values = open.map(({ moves }) => moves[from + i]!);
    return Math.max(...values) - Math.min(...values);
  };
  const differ = more
    .map((length, i) => ({ length, by: open.length > 1 ? spread(i) : 0 }))
    .filter(({ by }) => by > 0)
    .toSorted((a, b) => b.by - a.by);
  // One a point at first, so that they do not all say the same.
  const taken = new Set<number>();
  const chosen = differ.filter(({ length: { from: a, to: b } }) => {
    if (taken.has(a) && taken.has(b)) return false;
    taken.add(a).add(b);
    return true;
  });
  return chosen.slice(0, MOST_MORE).map(({ length }) => length);
}

const nameOf = (cause: Cause): string => {
  switch (cause.kind) {
    case 'sprung':
      return 'sprung';
    case 'braceLoose':
    case 'oneReading':
      return `${cause.kind} ${cause.code}`;
    case 'supportShifted':
      return `support ${cause.node}`;
  }
};

function patternsOf(cut: CutModel, stage: number, lengths: readonly NamedLength[]): Pattern[] {
  const held = stiffnessAfter(cut, stage, cut.stiffness.usual, true);
  if (!held.ok) return [];
  const { frame, stiffness } = held.value;
  const read = (moved: NodeVector) => lengths.map(({ from, to }) => apart(frame, from, to, moved));
  const under = (load: NodeVector) => read(displaced(stiffness, load));
  const sprung = releasedParts(cut, stage, held.value).map((load): Pattern => ({
    cause: { kind: 'sprung' },
    moves: under(load),
  }));
  const braces = bracesIn(cut.braces, cut.stages, stage).map(({ brace, from, to }): Pattern => ({
    cause: { kind: 'braceLoose', code: brace.code },
    moves: under(pushingApart(frame, from, to)),
  }));
  const single = lengths.map(({ code }, i): Pattern => ({
    cause: { kind: 'oneReading', code },
    moves: lengths.map((_, k) => (k === i ? 1 : 0)),
  }));
  return [...sprung, ...braces, ...shiftedSupports(cut, stage, lengths), ...single];
}

/** Unit forces that a part which was cut no longer takes, at what stays of its ends: along it, across it level and upright. */
export function releasedParts(cut: CutModel, stage: number, { frame, stands }: StageStiffness): NodeVector[] {
  const { model } = cut.structure;
  const before = cut.stages[stage - 1]?.left;
  const now = cut.stages[stage]!.left;
  const out = model.members.filter(({ code }) => (now.get(code) ?? 1) < (before?.get(code) ?? 1));
  return out.flatMap(({ from, to }) => {
    const { along } = lineBetween(frame, from, to);
    const across = [-along[1], along[0], 0] as const;
    return [along, across, [0, 0, 1] as const].flatMap((direction) => {
      const load = new Float64Array(6 * frame.nodes.length);
      let any = false;
      for (const [node, sign] of [
        [from, -1],
        [to, 1],
      ] as const)
        if (stands[node]) {
          any = true;
          for (let k = 0; k < 3; k++) load[6 * node + k]! += sign * direction[k]!;
        }
      return any ? [load] : [];
    });
  });
}

/** A support's spring, stiff beside any shell, N/mm: a shift of it is this many newtons a millimetre. */
const SUPPORT = 1e7;

/** What every length does when a support shifts by a millimetre along an axis it holds. */
function shiftedSupports(cut: CutModel, stage: number, lengths: readonly NamedLength[]): Pattern[] {
  const { usual } = cut.stiffness;
  const frame = frameAfter(cut, stage, usual);
  const braced = stiffnessAfter(cut, stage, usual, true);
  if (!braced.ok) return [];
  return frame.supports.flatMap(({ node, fix }) =>
    fix.flatMap((freedom): Pattern[] => {
      const k = ['x', 'y', 'z'].indexOf(freedom);
      if (k < 0 || !braced.value.stands[node]) return [];
      const moved = shiftedBy(cut, stage, node, k as 0 | 1 | 2);
      if (!moved) return [];
      return [
        {
          cause: { kind: 'supportShifted', node: frame.nodes[node]!.id },
          moves: lengths.map(({ from, to }) => apart(frame, from, to, moved)),
        },
      ];
    }),
  );
}

/** Displacements when one support is shifted by 1 mm along one axis: held there by a stiff spring that is pushed instead. */
export function shiftedBy(cut: CutModel, stage: number, node: number, axis: 0 | 1 | 2): NodeVector | undefined {
  const { stands } = cut;
  const freed = stands.supports.map((support) =>
    support.node === node
      ? { ...support, fix: support.fix.filter((each) => each !== (['x', 'y', 'z'] as const)[axis]) }
      : support,
  );
  // The spring is a bar to a place of its own, a metre off.
  const far = cut.structure.model.nodes.length;
  const at = cut.structure.model.nodes[node]!.at;
  const anchor = at.map((value, k) => (k === axis ? value + 1000 : value)) as unknown as readonly [
    number,
    number,
    number,
  ];
  const model = {
    ...cut.structure.model,
    nodes: [...cut.structure.model.nodes, { code: 'anchor', name: '', at: anchor, pointId: null }],
  };
  const supports = [...freed, { node: far, fix: ['x', 'y', 'z'] as const }];
  const spring = { id: 'spring', from: node, to: far, A: (SUPPORT * 1000) / STEEL.E, E: STEEL.E, density: 1e-9 };
  const frame = frameOf(model, supports, cut.stages[stage]!.left, cut.stiffness.usual);
  const braces = strutsOf(bracesIn(cut.braces, cut.stages, stage));
  const held = stageStiffness(frame, [], [...braces, spring]);
  if (!held.ok) return undefined;
  const load = new Float64Array(6 * model.nodes.length);
  load[6 * node + axis] = SUPPORT;
  return displaced(held.value.stiffness, load);
}
