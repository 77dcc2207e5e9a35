import { position, type Position } from '../../maths/geometry/vector';
import type { Reading } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { formerPosition, referencePosition } from '../../shell/references/chosen';
import { roughStart, type RoughStart } from '../../survey/rough-start';
import type { Survey, SurveyReading } from '../../survey/survey';
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
}

/**
 * The net of a round's observed readings in the round's own axes. The chart only gives the starting coordinates,
 * moved as a whole to where the round's heights, lengths and widths put it.
 */
export function surveyOf(job: Job, observed: readonly Observed[]): RoundSurvey {
  const { points } = job.rows;
  const { references } = job;
  const about = observed.filter(({ reading }) => reading.stationId === null);
  const readings = about.flatMap((each) => netReading(each, referencePosition(references, each.reading.pointId!)));
  const notEntering = about.flatMap(({ reading }) => (reading.fit === 'none' ? [reading.pointId!] : []));
  if (points.some(({ id }) => referencePosition(references, id)))
    return {
      survey: { points: startingPoints(points, references, readings, (id) => formerPosition(job.rows, id)), readings },
      start: 'chart',
      notEntering,
    };
  const rough = roughStart(
    points.map(({ id }) => id),
    readings,
    (id) => job.pointOf(id)?.side,
    (id) => job.code(id),
  );
  const started = points.map(({ id }) => ({ id, start: rough.positions.get(id) ?? ([0, 0, 0] as const) }));
  return { survey: { points: started, readings }, start: 'readings', rough, notEntering };
}

/** An observed reading as the solver takes it. */
function netReading(
  { reading, value, pointers, sigma, bias }: Observed,
  head: Position<'chart'> | undefined,
): SurveyReading[] {
  const common = { id: reading.id, value, sigma, ...(bias ? { bias } : {}) };
  if (reading.quantity === 'distance')
    return [
      {
        ...common,
        ...(pointers ? { pointers } : {}),
        kind: reading.measure === 'level' ? 'plan' : 'distance',
        from: reading.pointId!,
        to: reading.toPointId!,
      },
    ];
  if (reading.quantity === 'fixture') return head && reading.fit !== 'none' ? [headReading(reading, head)] : [];
  const kind = ({ length: 'station', width: 'offset', height: 'height' } as const)[
    reading.quantity as 'length' | 'width' | 'height'
  ];
  return [{ ...common, kind, point: reading.pointId! }];
}

/**
 * A head that enters says where its hole is, within its clearance: evenly anywhere in it when it enters
 * freely (sd = c/√3), within half of it when tight (c/√12). The bench was set to the chart, so that the head
 * stands in the round's axes where the chart has its point.
 */
function headReading(reading: Reading, at: Position<'chart'>): SurveyReading {
  const sd = reading.value / Math.sqrt(reading.fit === 'tight' ? 12 : 3);
  const stands: Position<'round'> = position([at[0], at[1], at[2]]);
  return { id: reading.id, kind: 'position', point: reading.pointId!, value: stands, sigma: [sd, sd, sd] };
}
