import type { Point, Round, WorkItem } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** A blasting of the shell, or of some of it, and what it takes with it and asks for. */
export interface Blasting {
  readonly item: WorkItem;
  /** When it was done; absent while it is planned. */
  readonly doneAt?: string;
  readonly eventId?: string;
  /** Points that are only drawn: they will be wiped; once it is done those that nobody read since. */
  readonly drawn: readonly Pick<Point, 'id' | 'code' | 'name'>[];
  /** The first round that was read after it. */
  readonly readAgain?: Pick<Round, 'id' | 'name'>;
  /** Findings written down since: bare metal shows rust that nobody saw. */
  readonly found: number;
}

/**
 * Blastings in the order they were planned. It wipes every mark that is only drawn and shows more rust: marks are punched before, and
 * a new round and a look at the metal come after.
 */
export function blastings(job: Job): Blasting[] {
  const drawn = job.rows.points
    .filter(({ kind }) => kind === 'drawn')
    .map(({ id, code, name }) => ({ id, code, name }));
  const items = job.rows.workItems.filter(({ id, kind }) => kind === 'blasting' && !job.withdrawal(id));
  return items.map((item): Blasting => {
    const done = job.rows.workEvents.findLast(
      ({ id, itemId, kind }) => itemId === item.id && kind === 'done' && !job.withdrawal(id),
    );
    if (!done) return { item, drawn, found: 0 };
    const readAgain = job.ownRounds.find((round) =>
      job.standingReadings(round).some(({ takenAt }) => takenAt >= done.at),
    );
    const since = new Set(
      job.rows.readings.flatMap(({ takenAt, pointId, toPointId }) => (takenAt >= done.at ? [pointId, toPointId] : [])),
    );
    return {
      ...{ item, doneAt: done.at, eventId: done.id },
      drawn: drawn.filter(({ id }) => !since.has(id)),
      ...(readAgain ? { readAgain: { id: readAgain.id, name: readAgain.name } } : {}),
      found: job.logEntries.filter(({ kind, at }) => kind === 'finding' && at >= done.at).length,
    };
  });
}

/** Blastings after which nobody read the shell again. */
export const unreadBlastings = (job: Job): Blasting[] =>
  blastings(job).filter(({ doneAt, readAgain }) => doneAt !== undefined && !readAgain);
