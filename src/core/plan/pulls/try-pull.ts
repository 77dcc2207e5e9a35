import { dot, type Vector } from '../../maths/geometry/vector';
import { SOUND } from '../../structure/model-hinges';
import type { NodeVector } from '../../structure/shell-frame';
import { movedAt } from './moves';
import type { PullModel } from './pull-model';

/** A further plate of a bar: what share of the force goes through it. */
export interface PlateAt {
  readonly node: number;
  readonly share: number;
}

/**
 * A pull on the model: on a node, along a unit direction; against another node where a jack or strap takes the force there; by a
 * bar also on further nodes, its own then taking what they leave. How far it goes is measured at its own node.
 */
export interface PullAt {
  readonly node: number;
  readonly direction: Vector;
  readonly against?: number;
  readonly plates?: readonly PlateAt[];
}

/** What the model says of a pull that leaves its place moved by so much. Movements of all nodes, six freedoms each, mm and rad. */
export interface TriedPull {
  readonly loaded: NodeVector;
  /** Let go, with what holds the shell for the pull still on: what is read after a stroke. */
  readonly released: NodeVector;
  /** Once that is off too. */
  readonly stays: NodeVector;
  /** How far its own place comes home along the pull when it is let go, mm. */
  readonly springBack: number;
  /** Members that yield though nothing was wrong with them. */
  readonly soundYields: readonly string[];
  /** What it took on the model, N: for choosing chain and clamps, never for pumping to. */
  readonly force: number;
}

/** Before anything is tried: held against made-up shells the model lets metal come home by somewhat too much. */
const COMES_HOME = 0.85;
const UNSURE = 0.5;
const LEAST_UNSURE = 1.5;
/** Where there is no model, mm. */
const USUAL_SPRING_BACK = { by: 3.5, sd: 2 };

/** How far a pull is expected to come home before one was tried here, mm, and one standard deviation of that. */
export function expectedSpringBack(tried: Pick<TriedPull, 'springBack'> | undefined): {
  readonly by: number;
  readonly sd: number;
} {
  if (!tried) return USUAL_SPRING_BACK;
  const by = COMES_HOME * tried.springBack;
  return { by, sd: Math.max(LEAST_UNSURE, UNSURE * by) };
}

/** Forces are looked for up to this, N: beyond it the metal is not what moves. */
const MOST = 300_000;
const FIRST = 4_000;
/** A gain this near the wanted one is the wanted one. */
const NEAR = 0.02;
/** A bend of less than this, rad, or a fold of less than that, mm, is not seen in metal: it is no yielding. */
const TURNS = 1e-3;
const FOLDS = 0.3;

/** How far a movement goes along a pull, at its place less that of what takes the force. */
export const along = (moves: NodeVector, { node, direction, against }: PullAt): number =>
  dot(movedAt(moves, node), direction) - (against === undefined ? 0 : dot(movedAt(moves, against), direction));

/** What share of a pull's force goes through each of its nodes; less than none where something takes it. */
export function sharesOf({ node, against, plates = [] }: Omit<PullAt, 'direction'>): PlateAt[] {
  const own = plates.reduce((left, { share }) => left - share, 1);
  return [{ node, share: own }, ...plates, ...(against === undefined ? [] : [{ node: against, share: -1 }])];
}

export function loadOf({ frame }: Pick<PullModel, 'frame'>, pull: PullAt): NodeVector {
  const load = new Float64Array(6 * frame.nodes.length);
  for (const { node, share } of sharesOf(pull))
    for (let k = 0; k < 3; k++) load[6 * node + k]! += share * pull.direction[k]!;
  return load;
}

/**
 * Pulls harder and harder until what stays of it at its own place is `gain`, by doubling and then by halving what is between.
 *
 * @param gain mm along the pull, above zero
 * @returns undefined where no force the model knows leaves that much: the place is held, or nothing there yields
 */
export function tryPull(model: PullModel, pull: PullAt, gain: number): TriedPull | undefined {
  const unit = loadOf(model, pull);
  const load = model.yielding.load(unit);
  const weights = sharesOf({ ...pull, plates: [] }).flatMap(({ node, share }) =>
    [0, 1, 2].map((k): [number, number] => [6 * node + k, share * pull.direction[k]!]),
  );
  const gained = (force: number) => model.yielding.movedBy(load.turns(force).off, weights);
  let [low, high] = [0, FIRST];
  while (gained(high) < gain) {
    [low, high] = [high, 2 * high];
    if (high > MOST) return undefined;
  }
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    const by = gained(middle);
    if (by < gain) low = middle;
    else high = middle;
    if (Math.abs(by - gain) <= NEAR * gain) break;
  }
  const best = load.under(high);
  const yields = best.turns.flatMap((turn, i) => {
    const hinge = model.hinges[i]!;
    return Math.abs(turn) > (hinge.about === 'along' ? FOLDS : TURNS) ? [hinge] : [];
  });
  const sound = new Set(yields.filter(({ share }) => share === SOUND).map(({ code }) => code));
  return {
    ...{ loaded: best.loaded, released: best.released },
    stays: model.resting === model.yielding ? best.released : model.resting.rested(best.turns),
    springBack: along(best.loaded, pull) - along(best.released, pull),
    ...{ soundYields: [...sound], force: high },
  };
}
