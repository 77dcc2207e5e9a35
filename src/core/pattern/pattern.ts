import { inverse, Matrix } from 'ml-matrix';
import { withFreeMotion } from '../alignment/rigid-freedom';
import type { Vector } from '../geometry/vector';
import type { Random } from '../random/seeded';
import { chiSquareTail } from '../statistics/distributions';
import { designOf, hingeColumn, visibleComponents, Whitened, type Component } from './model';
import { hingesToTry, type Hinge, type PatternPoint, type Section } from './sections';

/** A point with its deviation after alignment, chart axes, mm. */
export interface DeviatedPoint extends PatternPoint {
  readonly deviation: Vector;
}

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
}

/** Chance of any false pattern in an undamaged shell: half of it for sections, half for single points. */
const FALSE_PATTERN = 0.01;
const SIMULATIONS = 1000;
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
 * @param covariance joint covariance of round and reference, 3n×3n in the order of `points`, chart axes, mm²
 * @param held       control points: a section that holds more than a third of them is what stood still
 */
export function damagePattern(
  points: readonly DeviatedPoint[],
  covariance: Matrix,
  held: ReadonlySet<string>,
  random: Random,
): DamagePattern {
  const local: LocalMovement[] = [];
  let left = points.map((_, i) => i);
  let [threshold, hinges] = [0, 0];
  for (;;) {
    const some = left.map((i) => points[i]!);
    const rows = left.flatMap((i) => [3 * i, 3 * i + 1, 3 * i + 2]);
    const shell = new Shell(some, covariance.selection(rows, rows), held);
    threshold ||= shell.threshold(random);
    hinges ||= shell.hinges;
    const sections = shell.sections(threshold);
    const worst = shell.worstLocal(sections);
    const enough = local.length > points.length / 4 || some.length < 8;
    if (!worst || worst.probability > FALSE_PATTERN / 2 / points.length || enough)
      return { sections, local, threshold, hinges };
    local.push(worst.movement);
    left = left.filter((i) => points[i]!.id !== worst.movement.id);
  }
}

interface Candidate {
  readonly hinge: Hinge;
  readonly components: readonly Component[];
  /** Whitened design, one column a component. */
  readonly columns: readonly Float64Array[];
}

class Shell {
  private readonly whitened: Whitened;
  private readonly z: Float64Array;
  private readonly candidates: readonly Candidate[];

  constructor(
    private readonly points: readonly DeviatedPoint[],
    covariance: Matrix,
    held: ReadonlySet<string>,
  ) {
    const free = withFreeMotion(covariance, points.map(({ at }) => at)).add(Matrix.eye(covariance.rows).mul(1e-4)); // prettier-ignore
    this.whitened = new Whitened(free);
    this.z = this.whitened.column(points.flatMap(({ deviation }) => [...deviation]));
    this.candidates = hingesToTry(points, held).map((hinge) => this.candidate(hinge));
  }

  get hinges(): number {
    return this.candidates.length;
  }

  private candidate(hinge: Hinge): Candidate {
    const components = visibleComponents(hinge, this.points);
    const columns = this.whitened.columns(designOf(hinge, this.points, components));
    return { hinge, components, columns };
  }

  /**
   * What the largest |component / sd| over all candidates exceeds once in two hundred undamaged shells. The
   * directions along which the components read the deviations span far fewer dimensions than there are
   * coordinates: chance is drawn there.
   */
  threshold(random: Random): number {
    const directions = this.candidates.flatMap(({ columns }) => unitDirections(columns));
    if (directions.length === 0) return Infinity;
    const basis = orthonormal(directions, [], 0.1);
    const size = basis.length;
    const inBasis = new Float64Array(directions.length * size);
    directions.forEach((direction, d) => basis.forEach((each, b) => (inBasis[d * size + b] = product(each, direction))));
    const noise = new Float64Array(size);
    const largest = new Float64Array(SIMULATIONS);
    for (let run = 0; run < SIMULATIONS; run++) {
      for (let b = 0; b < size; b++) noise[b] = random.normal();
      let most = 0;
      for (let d = 0; d < directions.length; d++) {
        let sum = 0;
        for (let b = 0; b < size; b++) sum += inBasis[d * size + b]! * noise[b]!;
        most = Math.max(most, Math.abs(sum));
      }
      largest[run] = most;
    }
    largest.sort();
    return largest[Math.ceil(SIMULATIONS * (1 - FALSE_PATTERN / 2)) - 1]!;
  } // prettier-ignore

  /** The sections that moved, the one that explains most first, each judged after those before it. */
  sections(threshold: number): SectionMovement[] {
    const found: SectionMovement[] = [];
    let taken: Float64Array[] = [];
    while (found.length < 2) {
      const residual = without(this.z, taken);
      const free = this.candidates.filter(({ hinge }) => !found.some(({ section }) => section === hinge.section)); // prettier-ignore
      const best = maximum(free, ({ columns }) => explained(columns, residual, taken));
      if (!best) break;
      const refined = this.refine(best, residual, taken);
      const movement = this.estimate(refined, residual, taken, threshold);
      if (!movement.components.some(({ significant }) => significant)) break;
      found.push(movement);
      taken = [...taken, ...this.spannedBy(movement, taken)];
    }
    return found;
  }

  /** What a section's movement can explain, a hinge a little elsewhere included. */
  private spannedBy({ hinge, components }: SectionMovement, taken: readonly Float64Array[]): Float64Array[] {
    const { columns, components: names } = this.candidate(hinge);
    const along = hingeColumn(hinge, this.points, names, components.map(({ amount }) => amount));
    return orthonormal([...columns, this.whitened.column(along.to1DArray())], taken);
  } // prettier-ignore

  /** The hinge between its neighbours that explains most: golden section search. */
  private refine(start: Candidate, residual: Float64Array, taken: readonly Float64Array[]): Candidate {
    const { section, end } = start.hinge;
    const same = this.candidates.filter(({ hinge }) => hinge.section === section && hinge.end === end).map(({ hinge }) => hinge.hinge).sort((a, b) => a - b); // prettier-ignore
    const at = same.indexOf(start.hinge.hinge);
    let [low, high] = [same[at - 1] ?? start.hinge.hinge, same[at + 1] ?? start.hinge.hinge];
    const score = (hinge: number) => explained(this.candidate({ ...start.hinge, hinge }).columns, residual, taken); // prettier-ignore
    const ratio = (Math.sqrt(5) - 1) / 2;
    for (let step = 0; step < 12 && high - low > 5; step++) {
      const [a, b] = [high - ratio * (high - low), low + ratio * (high - low)];
      if (score(a) > score(b)) high = b;
      else low = a;
    }
    const refined = this.candidate({ ...start.hinge, hinge: (low + high) / 2 });
    return explained(refined.columns, residual, taken) > explained(start.columns, residual, taken) ? refined : start; // prettier-ignore
  } // prettier-ignore

  private estimate({ hinge, components, columns }: Candidate, residual: Float64Array, taken: readonly Float64Array[], threshold: number): SectionMovement {
    const own = columns.map((column) => without(column, taken));
    const amounts = leastSquares(own, residual);
    const alone = inverse(gram(own));
    const along = without(this.whitened.column(hingeColumn(hinge, this.points, components, amounts).to1DArray()), taken);
    const whole = gram([...own, along]);
    // The hinge is known beforehand to lie somewhere on the shell: that keeps the matrix definite where nothing moved.
    whole.set(own.length, own.length, whole.get(own.length, own.length) + 1 / 1000 ** 2);
    const spread = inverse(whole);
    const beyond = this.points.filter(({ at }) => (at[0] - hinge.hinge) * (hinge.end - hinge.hinge) > 0);
    const onlySide = components.length > 3 ? undefined : beyond.some(({ side }) => side === 'left') ? 'left' : 'right';
    return {
      section: hinge.section,
      hinge,
      hingeSd: Math.sqrt(spread.get(own.length, own.length)),
      components: components.map((name, c) => ({
        name,
        amount: amounts[c]!,
        sd: Math.sqrt(spread.get(c, c)),
        significant: Math.abs(amounts[c]!) / Math.sqrt(alone.get(c, c)) > threshold,
      })),
      ...(onlySide ? { onlySide } : {}),
      alike: components.flatMap((a, i) => components.slice(i + 1).flatMap((b, k) => {
        const j = i + 1 + k;
        const correlation = alone.get(i, j) / Math.sqrt(alone.get(i, i) * alone.get(j, j));
        return Math.abs(correlation) > ALIKE ? [[a, b] as const] : [];
      })),
    };
  } // prettier-ignore

  /** The point whose release explains most of what the sections leave over. */
  worstLocal(sections: readonly SectionMovement[]): { movement: LocalMovement; probability: number } | undefined {
    const taken = sections.reduce<Float64Array[]>((all, section) => [...all, ...this.spannedBy(section, all)], []);
    const residual = without(this.z, taken);
    const releases = this.points.map(({ id }, i) => {
      const own = [0, 1, 2].map((axis) => {
        const unit = new Float64Array(this.z.length);
        unit[3 * i + axis] = 1;
        return without(this.whitened.column(unit), taken);
      });
      const movement = leastSquares(own, residual);
      const inverted = inverse(gram(own));
      const size = own.reduce((sum, column, k) => sum + product(column, residual) * movement[k]!, 0);
      const sd = [0, 1, 2].map((k) => Math.sqrt(inverted.get(k, k)));
      return { movement: { id, movement: movement as unknown as Vector, sd: sd as unknown as Vector }, size };
    });
    const worst = maximum(releases, ({ size }) => size);
    return worst && { movement: worst.movement, probability: chiSquareTail(worst.size, 3) };
  } // prettier-ignore
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

/** What is left of a column outside the space of orthonormal ones. */
function without(column: Float64Array, basis: readonly Float64Array[]): Float64Array {
  const rest = Float64Array.from(column);
  for (const direction of basis) {
    const part = product(direction, rest);
    for (let i = 0; i < rest.length; i++) rest[i]! -= part * direction[i]!;
  }
  return rest;
}

/** An orthonormal basis of the columns outside the space of those taken already (modified Gram–Schmidt). */
function orthonormal(columns: readonly Float64Array[], taken: readonly Float64Array[], smallest = 1e-6): Float64Array[] {
  const basis: Float64Array[] = [];
  for (const column of columns) {
    const rest = without(column, [...taken, ...basis]);
    const length = Math.sqrt(product(rest, rest));
    if (length > smallest * Math.sqrt(product(column, column)) && length > 0) {
      for (let i = 0; i < rest.length; i++) rest[i]! /= length;
      basis.push(rest);
    }
  }
  return basis;
} // prettier-ignore

/** Fall of the weighted sum of squares when these columns come in. */
const explained = (columns: readonly Float64Array[], residual: Float64Array, taken: readonly Float64Array[]): number =>
  orthonormal(columns, taken).reduce((sum, direction) => sum + product(direction, residual) ** 2, 0); // prettier-ignore

/** For each column the direction along which its own estimate, freed of the others, reads the deviations. */
const unitDirections = (columns: readonly Float64Array[]): Float64Array[] =>
  columns.flatMap((column, k) => orthonormal([column], orthonormal(columns.filter((_, i) => i !== k), []))); // prettier-ignore

function gram(columns: readonly Float64Array[]): Matrix {
  const matrix = Matrix.zeros(columns.length, columns.length);
  columns.forEach((a, i) => columns.forEach((b, k) => matrix.set(i, k, product(a, b))));
  return matrix;
}

function leastSquares(columns: readonly Float64Array[], right: Float64Array): number[] {
  const products = Matrix.columnVector(columns.map((column) => product(column, right)));
  return inverse(gram(columns)).mmul(products).to1DArray();
}

const maximum = <T>(items: readonly T[], size: (item: T) => number): T | undefined =>
  items.reduce<{ item: T; at: number } | undefined>((best, item) => {
    const at = size(item);
    return !best || at > best.at ? { item, at } : best;
  }, undefined)?.item;
