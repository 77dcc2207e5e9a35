import { minimise } from '../maths/search/small-quadratic';
import { localStiffness } from './elements';
import { lineBetween, localAxes, type NodeVector, type ShellFrame } from './shell-frame';
import { displaced, factorise, type Stiffness } from './stiffness';

/** Where a member may yield: one of its ends, about one of its local axes, at a moment that is the same both ways, N·mm. */
export interface Hinge {
  readonly id: string;
  /** By its place among the frame's members. */
  readonly member: number;
  readonly end: 'from' | 'to';
  readonly about: 'y' | 'z';
  readonly moment: number;
}

export interface Yielded {
  /** Share of the whole load at which the first hinge begins to turn; null where none does. */
  readonly first: number | null;
  /** Displacements under the whole load, and once it is gone. */
  readonly loaded: NodeVector;
  readonly released: NodeVector;
  /** After release: turn of each member's end less that of its node, rad, and the moment left, N·mm. */
  readonly hinges: readonly { readonly turned: number; readonly moment: number }[];
}

export type YieldResult =
  | { readonly ok: true; readonly value: Yielded }
  | { readonly ok: false; readonly why: 'loose'; readonly nodes: readonly string[] }
  /** These hinges let the load grow no further than this share of it. */
  | { readonly ok: false; readonly why: 'mechanism'; readonly share: number; readonly hinges: readonly string[] };

/** A moment so near what its hinge carries has reached it. */
const REACHED = 1e-10;
/** Turns are held in by so much of the stiffest hinge's stiffness: of sets that fit the smallest is left. */
const RIDGE = 1e-11;
/** What the ridge carries of the load where nothing else does: above this the hinges are a mechanism. */
const CARRIED = 1e-3;

/**
 * What a frame with rigid, perfectly plastic hinges does under a load that grows from nothing and goes back to nothing (Maier
 * 1970, Massonnet and Save, Plastic Analysis). With a the moments at the hinges under the elastic load and R those that unit turns
 * cause, m = λ·a + R·θ; while λ changes, the turns of hinges at their moment solve a linear complementarity problem, which is the
 * quadratic programme min ½pᵀQp − cᵀp, p ≥ 0, with Q = S·R·S and c = λ̇·S·a, S the signs of the moments. Between events all of it is
 * linear.
 */
export function yieldUnder(frame: ShellFrame, hinges: readonly Hinge[], load: NodeVector): YieldResult {
  const result = factorise(frame);
  if (!result.ok) return { ok: false, why: 'loose', nodes: result.loose };
  const hinged = hingedFrame(result.stiffness, hinges);
  const { ends, answers, R } = hinged;
  const elastic = displaced(result.stiffness, load);
  const a = hinged.moments(elastic);
  const path = followed(hinges, a, R, Math.max(1e-300, ...ends.map(({ local, freedom }) => local[freedom]!)));
  if (!path.ok) return path;
  const moved = (share: number, turns: readonly number[]) =>
    elastic.map((value, i) => share * value - turns.reduce((sum, turn, j) => sum + turn * answers[j]![i]!, 0));
  return {
    ok: true,
    value: {
      first: path.first,
      loaded: moved(1, path.loaded),
      released: moved(0, path.turns),
      hinges: hinges.map((_, i) => ({ turned: path.turns[i]!, moment: path.moments[i]! })),
    },
  };
}

/** A freedom that an end of a member can have against its node: a turn about a local axis, or a slide along itself. */
export interface EndFreedom extends Pick<Hinge, 'member' | 'end'> {
  readonly about: Hinge['about'] | 'along';
}

/** A frame with hinges at which members can turn against their nodes, or slide along themselves. */
export interface HingedFrame {
  readonly ends: readonly HingedEnd[];
  /** Displacements under the forces that a unit turn of each hinge asks for: turning it moves everything by as much, the other way. */
  readonly answers: readonly NodeVector[];
  /** Moments that unit turns cause, N·mm/rad: symmetric, nowhere bent up. */
  readonly R: readonly (readonly number[])[];
  /** Moments at the hinges under displacements that nothing turned in, N·mm. */
  readonly moments: (elastic: NodeVector) => number[];
}

export function hingedFrame(stiffness: Stiffness, hinges: readonly EndFreedom[]): HingedFrame {
  const { frame } = stiffness;
  const ends = hinges.map((hinge) => endOf(frame, hinge));
  const answers = ends.map(({ forces }) => {
    const all = new Float64Array(6 * frame.nodes.length);
    for (const [freedom, force] of forces) all[freedom]! += force;
    return displaced(stiffness, all);
  });
  const R = ends.map((end, i) =>
    ends.map((other, j) => {
      const own = hinges[i]!.member === hinges[j]!.member ? end.local[other.freedom]! : 0;
      return own - product(end.forces, answers[j]!);
    }),
  );
  return { ends, answers, R, moments: (elastic) => ends.map(({ forces }) => product(forces, elastic)) };
}

/** Forces at a few freedoms. */
type Sparse = readonly (readonly [freedom: number, force: number])[];

interface HingedEnd {
  /** Row of the member's own stiffness, and the freedom among its twelve. */
  readonly local: Float64Array;
  readonly freedom: number;
  readonly forces: Sparse;
}

const product = (a: Sparse, b: NodeVector): number => a.reduce((sum, [i, value]) => sum + value * b[i]!, 0);

/** An end of a member: its freedom among the member's twelve, and the forces that a unit turn of it would ask of all freedoms. */
function endOf(frame: ShellFrame, { member: at, end, about }: EndFreedom): HingedEnd {
  const member = frame.members[at]!;
  const { length, along } = lineBetween(frame, member.from, member.to);
  const axes = localAxes(along);
  const k = localStiffness(member, length);
  const freedom = (end === 'from' ? 0 : 6) + { along: 0, y: 4, z: 5 }[about];
  const local = k.subarray(12 * freedom, 12 * freedom + 12);
  const forces = [member.from, member.from, member.to, member.to].flatMap((node, block) =>
    [0, 1, 2].map((c): [number, number] => {
      let sum = 0;
      for (let r = 0; r < 3; r++) sum += axes[r]![c]! * local[3 * block + r]!;
      return [6 * node + 3 * (block % 2) + c, sum];
    }),
  );
  return { local, freedom, forces };
}

interface Path {
  readonly ok: true;
  readonly first: number | null;
  /** Turns under the whole load, and after release; moments after release. */
  readonly loaded: readonly number[];
  readonly turns: readonly number[];
  readonly moments: readonly number[];
}

function followed(
  hinges: readonly Hinge[],
  a: readonly number[],
  R: readonly (readonly number[])[],
  stiffest: number,
): Path | Extract<YieldResult, { readonly why: 'mechanism' }> {
  const turns = hinges.map(() => 0);
  const moments = hinges.map(() => 0);
  let first: number | null = null;
  let share = 0;
  const walk = (way: 1 | -1): string[] | undefined => {
    const end = way === 1 ? 1 : 0;
    for (let events = 0; events < 20 * hinges.length + 200; events++) {
      const left = Math.abs(end - share);
      if (left <= 1e-13) break;
      const at = hinges.flatMap(({ moment }, i) => (Math.abs(moments[i]!) >= moment * (1 - REACHED) ? [i] : []));
      const turning = rates(at, moments, a, R, way, stiffest);
      if (turning.mechanism) return turning.mechanism.map((i) => hinges[i]!.id);
      const turnRates = hinges.map((_, i) => turning.rates.get(i) ?? 0);
      if (way === 1 && first === null && turnRates.some((rate) => rate !== 0)) first = share;
      const momentRates = a.map((own, i) => way * own + turnRates.reduce((sum, rate, j) => sum + R[i]![j]! * rate, 0));
      let step = left;
      hinges.forEach(({ moment }, i) => {
        const rate = momentRates[i]!;
        // What turns keeps its moment; what rests there already and would pass it is turning.
        if (turnRates[i] !== 0 || Math.abs(rate) * left <= REACHED * moment) return;
        const room = ((rate > 0 ? moment : -moment) - moments[i]!) / rate;
        if (room > 1e-13 && room < step) step = room;
      });
      share += way * step;
      for (let i = 0; i < hinges.length; i++) {
        turns[i]! += step * turnRates[i]!;
        moments[i] = turnRates[i] !== 0 ? moments[i]! : moments[i]! + step * momentRates[i]!;
      }
    }
    return undefined;
  };
  const stuck = walk(1);
  if (stuck) return { ok: false, why: 'mechanism', share, hinges: stuck };
  const loaded = [...turns];
  const back = walk(-1);
  if (back) return { ok: false, why: 'mechanism', share, hinges: back };
  return { ok: true, first, loaded, turns, moments };
}

/** How fast each hinge at its moment turns while the load changes one way; or the hinges that nothing resists. */
function rates(
  at: readonly number[],
  moments: readonly number[],
  a: readonly number[],
  R: readonly (readonly number[])[],
  way: 1 | -1,
  stiffest: number,
): { readonly rates: ReadonlyMap<number, number>; readonly mechanism?: readonly number[] } {
  if (at.length === 0) return { rates: new Map() };
  const sign = at.map((i) => Math.sign(moments[i]!));
  const c = at.map((i, k) => way * sign[k]! * a[i]!);
  const ridge = RIDGE * stiffest;
  const Q = at.map((i, k) => at.map((j, l) => sign[k]! * R[i]![j]! * sign[l]! + (k === l ? ridge : 0)));
  const bounds = at.map((_, k) => ({ a: at.map((__, l) => (l === k ? -1 : 0)), b: 0 }));
  const p = minimise(Q, c, bounds);
  const most = Math.max(...c.map(Math.abs));
  const loose = at.filter((_, k) => ridge * p[k]! > CARRIED * most);
  if (loose.length > 0) return { rates: new Map(), mechanism: loose };
  return { rates: new Map(at.flatMap((i, k) => (p[k]! > 0 ? [[i, -sign[k]! * p[k]!] as const] : []))) };
}
