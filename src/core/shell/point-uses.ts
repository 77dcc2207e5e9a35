import { Job } from './job/job';
import type { JobRows } from './job/job-rows';

/** What in a job speaks of a point: it is not taken out from under these. */
export interface PointUses {
  readonly readings: number;
  readonly rounds: readonly string[];
  readonly dimensions: readonly string[];
  readonly pulls: readonly string[];
  readonly braces: readonly string[];
  /** Seams that lie between it and another. */
  readonly seams: readonly string[];
  readonly entries: number;
  /** Readings of mornings. */
  readonly mornings: number;
}

/** Everything of a job that rests on a point. */
export function usesOfPoint(rows: JobRows, pointId: string): PointUses {
  const readings = rows.readings.filter((each) => each.pointId === pointId || each.toPointId === pointId);
  const rounds = new Set(readings.map(({ roundId }) => roundId));
  const job = Job.of(rows);
  const holding = new Set(
    [...rows.holds, ...rows.plates].filter((each) => each.pointId === pointId).map(({ itemId }) => itemId),
  );
  return {
    readings: readings.length,
    rounds: rows.rounds.filter(({ id }) => rounds.has(id)).map(({ name }) => name),
    dimensions: rows.dimensions
      .filter(({ fromPointId, toPointId }) => fromPointId === pointId || toPointId === pointId)
      .map(({ code }) => code),
    pulls: job.pulls
      .filter((pull) => pull.pointId === pointId || pull.againstPointId === pointId || holding.has(pull.id))
      .map(({ code }) => code),
    braces: job.braces
      .filter(({ fromPointId, toPointId }) => fromPointId === pointId || toPointId === pointId)
      .map(({ code }) => code),
    seams: job.seams
      .filter(({ fromPointId, toPointId }) => fromPointId === pointId || toPointId === pointId)
      .map(({ code }) => code),
    entries: rows.logSubjects.filter((subject) => subject.pointId === pointId).length,
    mornings: rows.morningReadings.filter((each) => each.fromPointId === pointId || each.toPointId === pointId).length,
  };
}

export const isUsed = ({ readings, dimensions, pulls, braces, seams, entries, mornings }: PointUses): boolean =>
  readings + dimensions.length + pulls.length + braces.length + seams.length + entries + mornings > 0;
