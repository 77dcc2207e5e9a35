import { Symmetric } from '../maths/linear/symmetric';
import type { NodeVector } from './shell-frame';
import { displaced, type Stiffness } from './stiffness';
import { hingedFrame, type EndFreedom, type HingedFrame } from './yielding';

/**
 * A hinge, or a place where a member folds up along itself, that carries more the further it has gone (kinematic hardening,
 * Prager 1956).
 */
export interface HardeningHinge extends EndFreedom {
  readonly id: string;
  /** What it carries before it gives, N·mm, or N where it slides, and how much more for each radian or millimetre; above zero. */
  readonly moment: number;
  readonly hardening: number;
}

/** What a load does to a frame whose hinges harden. Displacements count from before anything had turned. */
export interface Hardened {
  readonly loaded: NodeVector;
  readonly released: NodeVector;
  /** What each hinge has turned once the load is gone, the way its moment went, rad; mm where it slides. */
  readonly turns: readonly number[];
}

/** A frame as it rested when it was held anew: turns of its hinges, displacements of its nodes, and what its hinges had eased by. */
interface Stood {
  readonly turns: readonly number[];
  readonly moved: NodeVector;
  readonly eased: readonly number[];
}

/** So many times it is decided anew which hinges turn. */
const MOST_ROUNDS = 80;
/** Of a hinge's moment: nearer than this it is at it. */
const AT_MOMENT = 1e-9;

/**
 * A frame whose hinges turn past their moment and harden. With m = λa − Rθ, θ the turns counted the way their moments go, and what a hinge carries moving along with its turn,
 * the turns after a step of load are those that make ½θᵀ(R + H)θ − λaᵀθ + Σ M·|θ − θ₀| smallest: the step taken backward at once
 * (Simo and Hughes, Computational Inelasticity, ch. 1). Which hinges turn is found by a primal-dual active set (Hintermüller, Ito
 * and Kunisch 2003): those that turn are solved for together. Hardening leaves one answer.
 */
export class HardeningFrame {
  /** Turns before any load. */
  readonly untouched: readonly number[];
  private readonly hinged: HingedFrame;
  /** R + H. */
  private readonly Q: Symmetric;

  /**
   * @param stood where it stood, and what its hinges had turned and carried, when it was held as it is now
   */
  constructor(
    private readonly stiffness: Stiffness,
    private readonly hinges: readonly HardeningHinge[],
    private readonly stood?: Stood,
  ) {
    this.hinged = hingedFrame(stiffness, hinges);
    const n = hinges.length;
    this.untouched = stood?.turns ?? hinges.map(() => 0);
    this.Q = Symmetric.zeros(n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j <= i; j++) this.Q.set(i, j, this.hinged.R[i]![j]! + (i === j ? hinges[i]!.hardening : 0));
  }

  /** The same frame held anew where it rests: its hinges keep what they have turned and carry, and its places stand where they are. */
  heldAnew(stiffness: Stiffness, turns: readonly number[]): HardeningFrame {
    const moved = this.moved(new Float64Array(6 * this.stiffness.frame.nodes.length), 0, turns);
    return new HardeningFrame(stiffness, this.hinges, { turns, moved, eased: this.eased(turns) });
  }

  /** One load, to be put on with any force. */
  load(unit: NodeVector): HardeningLoad {
    const elastic = displaced(this.stiffness, unit);
    return new HardeningLoad(this, elastic, this.hinged.moments(elastic));
  }

  /**
   * Turns once the moments that the load alone would cause, as it is held now, are these.
   *
   * @param from what was turned before
   */
  turned(moments: readonly number[], from: readonly number[]): number[] {
    const { Q, hinges } = this;
    const before = this.eased(from);
    // What every hinge would carry did none turn any more, and how far past its moment that is.
    const carried = moments.map((own, i) => own - before[i]!);
    const moment = (i: number) => hinges[i]!.moment;
    let turns = hinges.map(() => 0);
    let signs = carried.map((own, i) => (Math.abs(own) > moment(i) ? Math.sign(own) : 0));
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const active = signs.flatMap((sign, i) => (sign === 0 ? [] : [i]));
      const by = Q.part(active)
        .factor()
        ?.solve(Float64Array.from(active, (i) => carried[i]! - signs[i]! * moment(i)));
      if (!by) break;
      turns = hinges.map(() => 0);
      active.forEach((i, k) => (turns[i] = by[k]!));
      const eased = Q.times(turns);
      const next = carried.map((own, i) => {
        const left = own - eased[i]!;
        // One that turns the other way than its moment stops; one that carries too much begins.
        if (signs[i] !== 0) return turns[i]! * signs[i]! > 0 ? signs[i]! : 0;
        return Math.abs(left) > moment(i) * (1 + AT_MOMENT) ? Math.sign(left) : 0;
      });
      if (next.every((sign, i) => sign === signs[i])) break;
      signs = next;
    }
    return turns.map((turn, i) => from[i]! + turn);
  }

  /** Where everything comes to rest as it is held now with nothing on it, once its hinges had turned so far held otherwise. */
  rested(turns: readonly number[]): NodeVector {
    const none = turns.map(() => 0);
    return this.moved(new Float64Array(6 * this.stiffness.frame.nodes.length), 0, this.turned(none, turns));
  }

  /** How much less of what a load alone would cause the hinges carry for what they have turned. */
  private eased(turns: readonly number[]): number[] {
    const { Q, stood, untouched } = this;
    const eased = Q.times(turns.map((turn, i) => turn - untouched[i]!));
    return Array.from(eased, (by, i) => by + (stood?.eased[i] ?? 0));
  }

  /** How turns move everything, added to what a load moves elastically. */
  moved(elastic: NodeVector, force: number, turns: readonly number[]): NodeVector {
    const { stood, untouched } = this;
    const all = elastic.map((value, i) => force * value + (stood?.moved[i] ?? 0));
    turns.forEach((turned, j) => {
      const turn = turned - untouched[j]!;
      const answer = this.hinged.answers[j]!;
      if (turn !== 0) for (let i = 0; i < all.length; i++) all[i]! += turn * answer[i]!;
    });
    return all;
  }

  /** How far turns move something that unit movements of the freedoms move by `weights`. */
  movedBy(turns: readonly number[], weights: readonly (readonly [freedom: number, weight: number])[]): number {
    const { stood, untouched } = this;
    const weighed = (moves: NodeVector) => weights.reduce((sum, [i, weight]) => sum + weight * moves[i]!, 0);
    return turns.reduce(
      (sum, turn, j) => (turn === untouched[j] ? sum : sum + (turn - untouched[j]!) * weighed(this.hinged.answers[j]!)),
      stood ? weighed(stood.moved) : 0,
    );
  }
}

/** A load on a frame, of unit size. */
export class HardeningLoad {
  constructor(
    private readonly frame: HardeningFrame,
    private readonly elastic: NodeVector,
    private readonly moments: readonly number[],
  ) {}

  /** Turns of the hinges with so much of it on, and once it is gone. */
  turns(force: number, from: readonly number[] = this.frame.untouched) {
    const on = this.frame.turned(
      this.moments.map((each) => force * each),
      from,
    );
    return {
      on,
      off: this.frame.turned(
        this.moments.map(() => 0),
        on,
      ),
    };
  }

  under(force: number, from: readonly number[] = this.frame.untouched): Hardened {
    const { on, off } = this.turns(force, from);
    return {
      loaded: this.frame.moved(this.elastic, force, on),
      released: this.frame.moved(this.elastic, 0, off),
      turns: off,
    };
  }
}
