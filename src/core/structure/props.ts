import { inner } from '../maths/linear/inner';
import { Symmetric } from '../maths/linear/symmetric';
import { apart, lineBetween, pushingApart, type NodeVector, type Strut } from './shell-frame';
import type { CriticalLength, StageStiffness } from './slack';
import { displaced } from './stiffness';

/** A bar that presses and lets go when it is pulled. */
export interface Prop {
  readonly strut: Strut;
  /** What it was pressed in with, N. */
  readonly pressed: number;
  /** How far its ends stood apart when it was put in, by the shell's own weight: mm from the shell with no weight. */
  readonly stood: number;
}

/** A stage with props in it: what each carries at rest, and how lengths give. */
export interface Propped {
  /** N, of each prop; 0 where it stands loose. */
  readonly carries: readonly number[];
  /** The least that is left in each of them wherever the hand pulls, N; 0 where it lets go. */
  readonly least: readonly number[];
  /** How each length gives, mm; undefined where an end of it does not stand. */
  readonly gives: readonly ({ readonly hand: number; readonly sag: number } | undefined)[];
}

/**
 * A stage with props, that carry by pressing alone. With B their lines, Z = K⁻¹B what the shell answers to these, D = BᵀZ and each
 * prop's own give on its diagonal, and g how far their ends would go apart without them, tensions N keep
 *
 *   w = g − D·N ≥ 0,  N ≤ 0,  w·N = 0
 *
 * (a prop touches or stands off): a linear complementarity problem of a positive definite matrix, which has one solution
 * (Cottle, Pang and Stone, The Linear Complementarity Problem, §3.3). It is solved for the weight alone, and for the weight with
 * the hand at any node along any axis, either way: what the ends of a length do between the two is how far it gives.
 *
 * @param stage    without the props
 * @param handling N
 * @param uncut    how far each length sags in the shell before it was cut, mm
 */
export function propped(
  stage: StageStiffness,
  props: readonly Prop[],
  lengths: readonly CriticalLength[],
  handling: number,
  uncut: readonly number[],
): Propped {
  const { frame, stands, stiffness, sagged } = stage;
  const lines = props.map(({ strut }) => pushingApart(frame, strut.from, strut.to));
  const answers = lines.map((line) => displaced(stiffness, line));
  const gives = props.map(({ strut: { from, to, A, E } }, i) =>
    answers.map(
      (answer, j) => inner(lines[i]!, answer) + (i === j ? lineBetween(frame, from, to).length / (E * A) : 0),
    ),
  );
  const weight = props.map(({ pressed, stood }, i) => inner(lines[i]!, sagged) - stood - pressed * gives[i]![i]!);
  const rest = tensions(gives, weight);
  const freedoms = stands.flatMap((there, node) => (there ? [6 * node, 6 * node + 1, 6 * node + 2] : []));
  const least = rest.map((each) => -each);
  // What the hand at each freedom changes in each prop, either way.
  const handled = freedoms.flatMap((freedom) =>
    [handling, -handling].map((force) => {
      const now = tensions(
        gives,
        weight.map((each, i) => each + force * answers[i]![freedom]!),
      );
      now.forEach((each, i) => (least[i] = Math.min(least[i]!, -each)));
      return { freedom, force, more: now.map((each, i) => each - rest[i]!) };
    }),
  );
  return {
    carries: rest.map((each) => Math.max(0, -each)),
    least: least.map((each) => Math.max(0, each)),
    gives: lengths.map(({ from, to }, d) => {
      if (!stands[from] || !stands[to]) return undefined;
      const unit = displaced(stiffness, pushingApart(frame, from, to));
      const through = lines.map((line) => inner(line, unit));
      const taken = (by: readonly number[]) => by.reduce((sum, each, i) => sum + each * through[i]!, 0);
      let hand = pushed({ unit, own: apart(frame, from, to, unit), through }, { gives, weight, rest }, handling);
      for (const { freedom, force, more } of handled)
        hand = Math.max(hand, Math.abs(force * unit[freedom]! - taken(more)));
      return { hand, sag: apart(frame, from, to, sagged) - taken(rest) - uncut[d]! };
    }),
  };
}

/** How far a length gives when its own ends are pushed apart or drawn together. */
function pushed(
  length: { readonly unit: NodeVector; readonly own: number; readonly through: readonly number[] },
  props: {
    readonly gives: readonly (readonly number[])[];
    readonly weight: readonly number[];
    readonly rest: readonly number[];
  },
  handling: number,
): number {
  const { own, through } = length;
  const sizes = [handling, -handling].map((force) => {
    const now = tensions(
      props.gives,
      props.weight.map((each, i) => each + force * through[i]!),
    );
    return Math.abs(force * own - now.reduce((sum, each, i) => sum + (each - props.rest[i]!) * through[i]!, 0));
  });
  return Math.max(...sizes);
}

/** More exchanges than so many a prop are never needed by far. */
const EXCHANGES = 200;

/**
 * Tensions of props, none above 0, that keep the ends of those that press as far apart as the shell lets them and press in none that
 * stands off: one prop changes sides at a time, the first that is on the wrong one (Murty 1974), which ends for a positive definite
 * matrix.
 *
 * @param gives D, mm/N
 * @param apart g, mm
 */
export function tensions(gives: readonly (readonly number[])[], apart: readonly number[]): number[] {
  const presses = apart.map((each) => each < 0);
  for (let turn = 0; turn < EXCHANGES * apart.length; turn++) {
    const found = pressing(gives, apart, presses);
    const wrong = found.findIndex((each, i) => {
      if (presses[i]) return each > 0;
      const left = apart[i]! - gives[i]!.reduce((sum, give, j) => sum + give * found[j]!, 0);
      return left < -1e-12 * (1 + Math.abs(apart[i]!));
    });
    if (wrong < 0) return found;
    presses[wrong] = !presses[wrong];
  }
  throw new Error('props change sides without end');
}

/** Tensions where these press and the others carry nothing. */
function pressing(
  gives: readonly (readonly number[])[],
  apart: readonly number[],
  presses: readonly boolean[],
): number[] {
  const own = presses.flatMap((each, i) => (each ? [i] : []));
  const matrix = Symmetric.zeros(own.length);
  own.forEach((i, a) => own.forEach((j, b) => b <= a && matrix.set(a, b, gives[i]![j]!)));
  // What each gives itself stands on the diagonal: there is always one answer.
  const found = matrix.factor()!.solve(Float64Array.from(own, (i) => apart[i]!));
  const all = apart.map(() => 0);
  own.forEach((i, a) => (all[i] = found[a]!));
  return all;
}
