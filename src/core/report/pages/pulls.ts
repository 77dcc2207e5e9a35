import { aimOf, pullDistance, pullProgress, type PullProgress } from '../../findings/brace-pull';
import type { Displacement } from '../../maths/geometry/vector';
import { judgeRound } from '../../round/judge/judge-round';
import type { Point, Pull, PullEvent, PullHold } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

export interface ListedPull {
  readonly pull: Pull;
  readonly point: string;
  readonly distance: number;
  readonly lastEvent?: PullEvent;
  readonly progress: readonly PullProgress[];
  readonly holds: readonly { readonly hold: PullHold; readonly code: string }[];
  /** Points that an older note speaks of and that could be made holds: offered, never read silently. */
  readonly offered: readonly Pick<Point, 'id' | 'code'>[];
}

/** A point that deviates, and the movement that would bring it back. */
export interface Pullable {
  readonly pointId: string;
  readonly code: string;
  readonly aim: Displacement<'chart'>;
}

/** What the page of the pulls shows. */
export interface PullsPage {
  readonly pulls: readonly ListedPull[];
  readonly pullable: readonly Pullable[];
  readonly roundId: string | null;
}

export function pullsPage(job: Job): PullsPage {
  const { rows } = job;
  const judgements = job.rows.rounds.map((round) => judgeRound(job, round));
  const latest = judgements.findLast(({ round, points }) => round.shell === '' && points.some(({ judged }) => judged));
  const pulls = job.pulls.flatMap((pull): ListedPull[] => {
    const judgement = judgements.find((each) => each.round.id === pull.roundId);
    const lastEvent = job.pullEvents.findLast((event) => event.pullId === pull.id);
    const holds = rows.pullHolds.filter(({ pullId }) => pullId === pull.id);
    return [
      {
        pull,
        point: job.code(pull.pointId),
        distance: pullDistance(pull),
        ...(lastEvent ? { lastEvent } : {}),
        progress: judgement ? pullProgress(job, pull, judgement) : [],
        holds: holds.map((hold) => ({ hold, code: job.code(hold.pointId) })),
        offered: holds.length > 0 ? [] : pointsNamedIn(job, pull.heldAt),
      },
    ];
  });
  const pullable = (latest?.points ?? []).flatMap(({ point, judged }) =>
    latest && judged ? [{ pointId: point.id, code: point.code, aim: aimOf(latest, point.id)! }] : [],
  );
  return { pulls, pullable, roundId: latest?.round.id ?? null };
}

/** Points whose codes stand in a note as words of their own. */
export function pointsNamedIn(job: Job, note: string): Pick<Point, 'id' | 'code'>[] {
  const words = new Set(note.split(/[^\p{L}\p{N}]+/u).map((word) => word.toLowerCase()));
  return job.rows.points.filter(({ code }) => words.has(code.toLowerCase())).map(({ id, code }) => ({ id, code }));
}
