import { varianceAlong } from '../maths/linear/gradient';
import { linearise, newRow, type Observation, type Row } from './observations';
import { covarianceOf, sumOfSquares, type NetSolution } from './solve';
import { pointsOf } from './survey';

/** √(non-centrality) of a test with 0.1 % false alarms and 80 % power: Baarda 1968. */
export const DETECTABLE = 4.13;
/** |w| beyond this accuses a reading (0.1 % of sound ones, two-sided). */
export const SUSPECT = 3.29;
/** A redundancy below this leaves a reading unchecked. */
export const UNCHECKED = 1e-6;

/** How one scalar observation fits, and how well the others check it. */
export interface ObservationCheck {
  readonly observation: Observation;
  /** Adjusted minus observed, mm. */
  readonly residual: number;
  /** rᵢ = (Q_vv P)ᵢᵢ: 0 nothing checks it, 1 the others know it anyway. */
  readonly redundancy: number;
  /** Residual by its own standard deviation; null where nothing checks it. */
  readonly w: number | null;
  /** The smallest error that would be noticed, mm. */
  readonly smallestDetectable: number | null;
  readonly suspect: boolean;
}

/**
 * Reliability of every observation of a net after Baarda (1968), A testing procedure for use in
 * geodetic networks.
 *
 * @param kept the share of its weight each observation kept, where the solution is one brought back to
 *   full weight (`atFullWeight`)
 */
export function checkObservations(solution: NetSolution, kept: Float64Array = solution.kept): ObservationCheck[] {
  const { equations, x, biases } = solution;
  const row = newRow();
  return equations.observations.map((observation, i) => {
    linearise(equations, observation, x, biases, row);
    const residual = row.value - observation.observed;
    const redundancy = redundancyOf(solution, row, observation.sigma, solution.kept[i]!);
    if (redundancy < UNCHECKED)
      return {
        observation,
        residual,
        redundancy: Math.max(0, redundancy),
        w: null,
        smallestDetectable: null,
        suspect: false,
      };
    const root = Math.sqrt(redundancy);
    // A reading that was weighed down hardly pulls at the net: its residual is its whole error already.
    const w = kept[i]! < 1 ? (residual * root) / observation.sigma : residual / (observation.sigma * root);
    return {
      observation,
      residual,
      redundancy,
      w,
      smallestDetectable: (DETECTABLE * observation.sigma) / root,
      suspect: Math.abs(w) > SUSPECT,
    };
  });
}

/**
 * 1 − a Q aᵀ/σ² with the observation at its full weight. Where it kept only a share f of its weight,
 * Q is first brought to the full one: with h = a Q aᵀ/σ², the leverage at full weight is
 * h/(1 + (1 − f) h) (Sherman and Morrison 1950).
 */
function redundancyOf(solution: NetSolution, row: Row, sigma: number, kept: number): number {
  const h = varianceAlong(covarianceOf(solution), row) / sigma ** 2;
  return 1 - h / (1 + (1 - kept) * h);
}

/** Readings (a position counts three) + three for each numeric hold − unknowns (six a body) + freedoms of the datum. */
export const degreesOfFreedom = ({ equations, freedoms }: NetSolution): number =>
  equations.observations.length - equations.coordinates - 6 * equations.bodies.length + freedoms;

/** vᵀPv by the degrees of freedom; null where there are none. */
export function varianceFactor(solution: NetSolution): number | null {
  const degrees = degreesOfFreedom(solution);
  return degrees > 0 ? sumOfSquares(solution) / degrees : null;
}

/** A redundancy below this leaves a reading, and the point it determines, practically unchecked. */
export const PRACTICALLY_UNCHECKED = 0.02;

/** The points some reading of which nothing else checks. */
export function uncheckedPoints(solution: NetSolution): string[] {
  const { survey } = solution;
  const unchecked = new Set<string>();
  for (const check of checkObservations(solution)) {
    if (check.redundancy >= PRACTICALLY_UNCHECKED) continue;
    const reading = survey.readings[check.observation.reading];
    for (const id of reading ? pointsOf(reading) : []) unchecked.add(id);
  }
  return [...unchecked];
}
