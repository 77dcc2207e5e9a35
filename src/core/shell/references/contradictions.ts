import { AXES, type Axis } from '../../maths/geometry/vector';
import type { Job } from '../job/job';
import type { Figure } from './chosen';

/** Two references that cannot both be right about one figure. */
export interface Contradiction {
  readonly pointId?: string;
  readonly dimensionId?: string;
  readonly axis?: Axis;
  /** The reference judged by, and the one that contradicts it. */
  readonly used: string;
  readonly other: string;
  /** Other minus used, mm, and its standard deviation. */
  readonly difference: number;
  readonly sd: number;
}

/** Beyond so many standard deviations two figures contradict each other: one case in a thousand by chance. */
const CONTRADICTS = 3.29;
/** A figure without any spread is still only as good as its last digit, mm. */
const SMALLEST_SD = 0.3;

/**
 * Where the references that cover a subject contradict the one it is judged by beyond what both are
 * trusted to. A planned change contradicts nothing: it was agreed.
 */
export function contradictions(job: Job): Contradiction[] {
  const { points, dimensions } = job.references;
  const found: Contradiction[] = [];
  for (const [pointId, chosen] of points)
    for (const other of comparable(chosen))
      for (const axis of AXES) {
        const clash = compare(chosen, other, (row) => row[axis]);
        if (clash) found.push({ pointId, axis, ...clash });
      }
  for (const [dimensionId, chosen] of dimensions)
    for (const other of comparable(chosen)) {
      const clash = compare(chosen, other, (row) => row.value);
      if (clash) found.push({ dimensionId, ...clash });
    }
  return found.sort((a, b) => Math.abs(b.difference / b.sd) - Math.abs(a.difference / a.sd));
}

const comparable = <Row>({
  reference,
  others,
}: Figure<Row> & { readonly others: readonly Figure<Row>[] }): readonly Figure<Row>[] =>
  reference.kind === 'plannedChange' ? [] : others.filter((other) => other.reference.kind !== 'plannedChange');

function compare<Row>(
  used: Figure<Row>,
  other: Figure<Row>,
  value: (row: Row) => number,
): Pick<Contradiction, 'used' | 'other' | 'difference' | 'sd'> | undefined {
  const difference = value(other.row) - value(used.row);
  const sd = Math.max(Math.hypot(used.sd, other.sd), SMALLEST_SD);
  return Math.abs(difference) > CONTRADICTS * sd
    ? { used: used.reference.id, other: other.reference.id, difference, sd }
    : undefined;
}
