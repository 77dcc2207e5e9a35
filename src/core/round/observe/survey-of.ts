import type { Job } from '../../shell/job/job';
import { formerPosition, referencePosition } from '../../shell/references/chosen';
import { roughStart, type RoughStart } from '../../survey/rough-start';
import type { Survey, SurveyReading } from '../../survey/survey';
import { entering, headsOf, holesOf, type Gauged } from './gauges';
import type { Observed } from './observe';
import { startingPoints } from './starting-points';

/** A round as a net; its points and readings go by their identities. */
export interface RoundSurvey {
  readonly survey: Survey;
  /** Where the starting coordinates come from. */
  readonly start: 'chart' | 'readings';
  /** What rough coordinates leave open, where there is no chart. */
  readonly rough?: RoughStart;
  /** Points whose fixture heads do not enter: findings. */
  readonly notEntering: readonly string[];
  /** Heads and holes of parts, those too that do not go in, as they are laid on the start. */
  readonly gauges: readonly Gauged[];
}

/**
 * The net of a round's observed readings in the round's own axes. The chart only gives the starting coordinates,
 * moved as a whole to where the round's heights, lengths and widths put it.
 */
export function surveyOf(job: Job, observed: readonly Observed[]): RoundSurvey {
  const { points } = job.rows;
  const { references } = job;
  const about = observed.filter(({ reading }) => reading.stationId === null);
  const readings = about.flatMap(netReading);
  const gauges = about.flatMap(({ reading }) => (reading.quantity === 'fixture' ? [reading] : []));
  const round = job.round(gauges[0]?.roundId ?? '');
  const notEntering = about.flatMap(({ reading }) => (reading.fit === 'none' ? [reading.pointId!] : []));
  if (points.some(({ id }) => referencePosition(references, id))) {
    const started = startingPoints(points, references, readings, (id) => formerPosition(job.rows, id));
    const bodies = [...headsOf(job, round, gauges), ...holesOf(job, gauges, started)];
    return {
      survey: { points: started, readings: [...readings, ...entering(bodies)] },
      ...{ start: 'chart', notEntering, gauges: bodies },
    };
  }
  const rough = roughStart(
    points.map(({ id }) => id),
    readings,
    (id) => job.pointOf(id)?.side,
    (id) => job.code(id),
  );
  const started = points.map(({ id }) => ({ id, start: rough.positions.get(id) ?? ([0, 0, 0] as const) }));
  const bodies = holesOf(job, gauges, started);
  return {
    survey: { points: started, readings: [...readings, ...entering(bodies)] },
    ...{ start: 'readings', rough, notEntering, gauges: bodies },
  };
}

const KIND = { length: 'station', width: 'offset', height: 'height' } as const;

/** An observed reading as the solver takes it. */
function netReading({ reading, value, pointers, sigma, bias }: Observed): SurveyReading[] {
  const { id, quantity, measure, pointId, toPointId } = reading;
  if (quantity === 'distance') {
    const kind = measure === 'level' ? 'plan' : 'distance';
    const length = { id, value, sigma, kind, from: pointId!, to: toPointId! } as const;
    // A round has thousands of these: what most have not is not looked at as if they had it.
    return pointers || bias ? [{ ...length, ...(pointers ? { pointers } : {}), ...(bias ? { bias } : {}) }] : [length];
  }
  // Heads and holes of parts are places on a body, and follow.
  if (quantity === 'fixture') return [];
  const kind = KIND[quantity as keyof typeof KIND];
  return [bias ? { id, value, sigma, bias, kind, point: pointId! } : { id, value, sigma, kind, point: pointId! }];
}
