import { inverse, LuDecomposition, Matrix } from 'ml-matrix';
import { withFreeMotion } from '../../maths/rigid/freedom';
import type { Vector } from '../../maths/geometry/vector';
import type { Noise } from '../../maths/random/seeded';
import { chiSquareTail } from '../../maths/statistics/distributions';
import { COVERAGE } from '../../maths/statistics/verdict';
import { Room } from '../../maths/linear/room';
import { SymmetricFactor, type Symmetric } from '../../maths/linear/symmetric';
import type { Component } from '../../shell/components';
import type { Section } from '../../shell/sections';
import { bestOfEach, explained, jointOfStandardised, maximum, type Candidate } from './candidates';
import { designOf, hingeColumn, visibleComponents } from './model';
import { HingeSums } from './hinge-sums';
import { hingesToTry, type Hinge } from './sections';
import { carriedBy, isShown, type DeviatedPoint, type StoodStill } from './shown';
import { dot, gramOf, Weights, type Sparse } from './weights';

export interface PatternComponent {
  readonly name: Component;
  /** At the end of the section, chart axes, mm; differences are right minus left. */
  readonly amount: number;
  /** One standard deviation, the uncertainty of the hinge in it, mm. */
  readonly sd: number;
  /** Larger than chance makes any component of any section at any hinge, in 99 shells of 100. */
  readonly significant: boolean;
}

/** What became of one section. */
export interface SectionMovement {
  readonly section: Section;
  readonly hinge: Hinge;
  /** One standard deviation of the hinge's station, mm. */
  readonly hingeSd: number;
  readonly components: readonly PatternComponent[];
  /** The only side with points beyond the hinge, where there are none on the other. */
  readonly onlySide?: 'left' | 'right';
  /** Components the measured points cannot tell apart. */
  readonly alike: readonly (readonly [Component, Component])[];
}

/** A point that moved by itself. */
export interface LocalMovement {
  readonly id: string;
  readonly movement: Vector;
  readonly sd: Vector;
}

export interface DamagePattern {
  readonly sections: readonly SectionMovement[];
  readonly local: readonly LocalMovement[];
  /** The size of component by standard deviation that chance exceeds once in a hundred undamaged shells. */
  readonly threshold: number;
  /** Hinges that could be tried at all: none where too few points are located. */
  readonly hinges: number;
  /** Points that a section carries along farther than what stood still may be off. */
  readonly carried: readonly string[];
}

/** Chance of any false pattern in an undamaged shell: half of it for sections, half for single points. */
const FALSE_PATTERN = 0.01;
const SIMULATIONS = 1000;
/** Covariances with a free motion, of which only the inverse is kept. */
const FREED = new Room();
/** Keeps the covariance definite where a round and its reference are both held exact, mm². */
const SMALLEST_VARIANCE = 1e-4;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** Estimates correlated more than this cannot be told apart. */
const ALIKE = 0.95;

/**
 * Resolves deviations into what a metalworker calls them. Each side of a section moves linearly in x, y and
 * z beyond one hinge station; half-sums and differences of the sides are the named components; what the
 * sections leave over is local. Generalised least squares with the joint covariance and with a rigid motion
 * of the whole left free, so that the part that stood still is what the movement is measured against. The
 * hinge is searched over the stations of the points, then refined; the limit of significance is simulated
 * for the largest of all components at all hinges of all sections, so that the search is paid for.
 *
 * What is known before it is said what stood still is worked out once; `given` then finds the pattern.
 */
export class DamageSearch {
  private readonly whole: Shell;
  private readonly threshold: number;

  /**
   * @param covariance joint covariance of round and reference, 3n×3n in the order of `points`, chart axes, mm²
   * @param held       control points: a section that holds more than a third of them is what stood still
   */
  constructor(
    private readonly points: readonly DeviatedPoint[],
    covariance: Symmetric,
    held: ReadonlySet<string>,
    noise: Noise,
  ) {
    const free = withFreeMotion(
      covariance,
      points.map(({ at }) => at),
      FREED,
    );
    this.whole = new Shell(points, Weights.of(free.addDiagonal(SMALLEST_VARIANCE)), held);
    this.threshold = this.whole.threshold(noise);
  }

  /** The pattern that points which stood still do not contradict. */
  given(stoodStill: StoodStill): DamagePattern {
    const { points, threshold } = this;
    const { hinges } = this.whole;
    let shell = this.whole;
    const local: LocalMovement[] = [];
    for (;;) {
      const { sections, left } = shell.sections(threshold, stoodStill);
      const worst = shell.worstLocal(left);
      const enough = local.length > points.length / 4 || shell.points.length < 8;
      if (!worst || worst.probability > FALSE_PATTERN / 2 / points.length || enough)
        return { sections, local, threshold, hinges, carried: this.carriedAlong(sections, stoodStill) };
      local.push(worst.movement);
      shell = shell.withoutPoint(worst.movement.id);
    }
  }

  private carriedAlong(sections: readonly SectionMovement[], stoodStill: StoodStill): string[] {
    const carried = sections.flatMap(({ hinge, components }) => {
      const significant = components.filter((each) => each.significant);
      return carriedBy(this.points, hinge, significant, stoodStill);
    });
    return [...new Set(carried)];
  }
}

class Shell {
  private readonly d: Float64Array;
  private readonly tried: readonly Hinge[];
  private readonly atFirst: readonly Candidate[];
  private readonly sums: HingeSums;

  constructor(
    readonly points: readonly DeviatedPoint[],
    private readonly weights: Weights,
    private readonly held: ReadonlySet<string>,
  ) {
    this.d = Float64Array.from(points.flatMap(({ deviation }) => [...deviation]));
    this.tried = hingesToTry(points, held);
    this.sums = new HingeSums(points, weights);
    this.atFirst = this.tried.flatMap((hinge) => this.candidate(hinge, weights) ?? []);
  }

  get hinges(): number {
    return this.tried.length;
  }

  withoutPoint(id: string): Shell {
    const left = this.points.filter((point) => point.id !== id);
    const index = this.points.findIndex((point) => point.id === id);
    return new Shell(left, this.weights.withoutPoint(index), this.held);
  }

  /**
   * A hinge as an explanation; undefined where the points cannot tell its components from each other.
   *
   * @param weights the shell's own, or what is left of them
   */
  private candidate(hinge: Hinge, weights: Weights): Candidate | undefined {
    const components = visibleComponents(hinge, this.points);
    const columns = designOf(hinge, this.points, components);
    const products = components.map((component, c) => weights.less(this.sums.product(hinge, component), columns[c]!));
    const gram = new LuDecomposition(gramOf(columns, products));
    if (gram.isSingular()) return undefined;
    return {
      hinge,
      components,
      columns,
      products,
      inverted: gram.solve(Matrix.eye(columns.length)),
      right: products.map((product) => dot(product, this.d)),
    };
  }

  /**
   * What the largest |component / sd| over all candidates exceeds once in two hundred undamaged shells: chance is
   * drawn from the joint distribution of all of them.
   */
  threshold(noise: Noise): number {
    const size = this.atFirst.reduce((sum, { columns }) => sum + columns.length, 0);
    const factor = size > 0 && SymmetricFactor.of(jointOfStandardised(this.atFirst, size), size);
    if (!factor) return Infinity;
    const drawn = factor.coloured(noise(SIMULATIONS * size), SIMULATIONS);
    const largest = new Float64Array(SIMULATIONS);
    for (let run = 0, i = 0; run < SIMULATIONS; run++) {
      let most = 0;
      for (const end = i + size; i < end; i++) most = Math.max(most, Math.abs(drawn[i]!));
      largest[run] = most;
    }
    largest.sort();
    return largest[Math.ceil(SIMULATIONS * (1 - FALSE_PATTERN / 2)) - 1]!;
  }

  /** The sections that moved, the one that explains most first, each judged after those before it; and the weights they leave. */
  sections(
    threshold: number,
    stoodStill: StoodStill,
  ): { readonly sections: SectionMovement[]; readonly left: Weights } {
    const sections: SectionMovement[] = [];
    let left = this.weights;
    while (sections.length < 2) {
      const open = this.atFirst.filter(({ hinge }) => !sections.some(({ section }) => section === hinge.section));
      const judged = left === this.weights ? open : open.flatMap(({ hinge }) => this.candidate(hinge, left) ?? []);
      const found = this.firstBorneOut(bestOfEach(judged), left, threshold, stoodStill);
      if (!found) break;
      sections.push(found.movement);
      // A hinge a little elsewhere is explained with it.
      left = left.without([...found.columns, found.along]);
    }
    return { sections, left };
  }

  private firstBorneOut(best: readonly Candidate[], weights: Weights, threshold: number, stoodStill: StoodStill) {
    for (const each of best) {
      const refined = this.refine(each, weights);
      // No component is larger by its standard deviation than all of them together.
      if (explained(refined) <= threshold ** 2) continue;
      const found = this.estimate(refined, weights, threshold);
      if (this.isBorneOut(found.movement, stoodStill)) return { columns: refined.columns, ...found };
    }
    return undefined;
  }

  /** More than chance, hinged somewhere that can be told, and shown by the points themselves. */
  private isBorneOut({ hinge, hingeSd, components }: SectionMovement, stoodStill: StoodStill): boolean {
    const significant = components.filter((each) => each.significant);
    const lever = Math.abs(hinge.end - hinge.hinge);
    return (
      significant.length > 0 && COVERAGE * hingeSd <= lever / 2 && isShown(this.points, hinge, significant, stoodStill)
    );
  }

  /** The hinge between its neighbours that explains most: golden section search. */
  private refine(start: Candidate, weights: Weights): Candidate {
    const { section, end, hinge: at } = start.hinge;
    const same = this.tried
      .filter((hinge) => hinge.section === section && hinge.end === end)
      .map(({ hinge }) => hinge)
      .sort((a, b) => a - b);
    const index = same.indexOf(at);
    let [low, high] = [same[index - 1] ?? at, same[index + 1] ?? at];
    const score = (hinge: number) => {
      const tried = this.candidate({ section, end, hinge }, weights);
      return tried ? explained(tried) : -Infinity;
    };
    let [a, b] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
    let [atA, atB] = [score(a), score(b)];
    for (let step = 0; step < 12 && high - low > 5; step++)
      if (atA > atB) {
        [high, b, atB] = [b, a, atA];
        a = high - GOLDEN * (high - low);
        atA = score(a);
      } else {
        [low, a, atA] = [a, b, atB];
        b = low + GOLDEN * (high - low);
        atB = score(b);
      }
    const refined = this.candidate({ section, end, hinge: (low + high) / 2 }, weights);
    return refined && explained(refined) > explained(start) ? refined : start;
  }

  private estimate(
    { hinge, components, columns, products, inverted, right }: Candidate,
    weights: Weights,
    threshold: number,
  ): { movement: SectionMovement; along: Sparse } {
    const amounts = inverted.mmul(Matrix.columnVector([...right])).to1DArray();
    const along = hingeColumn(hinge, this.points, components, amounts);
    const whole = gramOf([...columns, along], [...products, weights.times(along)]);
    // The hinge is known beforehand to lie somewhere on the shell: that keeps the matrix definite where nothing moved.
    whole.set(columns.length, columns.length, whole.get(columns.length, columns.length) + 1 / 1000 ** 2);
    const spread = inverse(whole);
    const beyond = this.points.filter(({ at }) => (at[0] - hinge.hinge) * (hinge.end - hinge.hinge) > 0);
    const onlySide = components.length > 3 ? undefined : beyond.some(({ side }) => side === 'left') ? 'left' : 'right';
    const movement: SectionMovement = {
      section: hinge.section,
      hinge,
      hingeSd: Math.sqrt(spread.get(columns.length, columns.length)),
      components: components.map((name, c) => ({
        name,
        amount: amounts[c]!,
        sd: Math.sqrt(spread.get(c, c)),
        significant: Math.abs(amounts[c]!) / Math.sqrt(inverted.get(c, c)) > threshold,
      })),
      ...(onlySide ? { onlySide } : {}),
      alike: components.flatMap((a, i) =>
        components.slice(i + 1).flatMap((b, k) => {
          const j = i + 1 + k;
          const correlation = inverted.get(i, j) / Math.sqrt(inverted.get(i, i) * inverted.get(j, j));
          return Math.abs(correlation) > ALIKE ? [[a, b] as const] : [];
        }),
      ),
    };
    return { movement, along };
  }

  /** The point whose release explains most of what the sections leave over. */
  worstLocal(left: Weights): { movement: LocalMovement; probability: number } | undefined {
    const weighted = left.timesAll(this.d);
    const releases = this.points.map(({ id }, i) => {
      const inverted = inverse(left.block(i));
      const own = Matrix.columnVector([0, 1, 2].map((axis) => weighted[3 * i + axis]!));
      const movement = inverted.mmul(own);
      const sd = [0, 1, 2].map((k) => Math.sqrt(Math.max(0, inverted.get(k, k))));
      return {
        movement: { id, movement: movement.to1DArray() as unknown as Vector, sd: sd as unknown as Vector },
        size: movement.transpose().mmul(own).get(0, 0),
      };
    });
    const worst = maximum(releases, ({ size }) => size);
    return worst && { movement: worst.movement, probability: chiSquareTail(worst.size, 3) };
  }
}
