import { dimensionsOf } from '../../days/day';
import { braceGeometry, braceState, type BraceGeometry } from '../../findings/brace-pull';
import type { Position } from '../../maths/geometry/vector';
import { judgeRound } from '../../round/judge/judge-round';
import { placedPosition } from '../../round/judge/judgement';
import type { Brace, BraceEvent, Dimension } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';

export interface ListedBrace {
  readonly brace: Brace;
  readonly from: string;
  readonly to: string;
  readonly geometry?: BraceGeometry;
  readonly state: BraceEvent['kind'];
  readonly lastEvent?: BraceEvent;
  readonly holds: readonly Dimension[];
}

/** What the page of the braces shows. */
export interface BracesPage {
  readonly braces: readonly ListedBrace[];
  /** Where points stand by the latest round, else by the reference, by their identities. */
  readonly positions: Readonly<Record<string, Position<'chart'>>>;
  readonly latestRoundId: string | null;
}

export function bracesPage(job: Job): BracesPage {
  const { rows, references } = job;
  const judgements = job.ownRounds.map((round) => judgeRound(job, round));
  const latest = judgements.findLast((each) => each.measured.points.size > 0);
  const braces = job.braces.map((brace): ListedBrace => {
    const judgement = judgements.find((each) => each.round.id === brace.roundId);
    const geometry = braceGeometry(brace, judgement, references);
    const lastEvent = job.braceEvents.findLast((event) => event.braceId === brace.id);
    return {
      brace,
      from: job.code(brace.fromPointId),
      to: job.code(brace.toPointId),
      ...(geometry ? { geometry } : {}),
      state: braceState(job, brace),
      ...(lastEvent ? { lastEvent } : {}),
      holds: dimensionsOf(job, brace),
    };
  });
  const positions = Object.fromEntries(
    rows.points.flatMap(({ id }) => {
      const at = (latest && placedPosition(latest, id)) ?? referencePosition(references, id);
      return at ? [[id, at] as const] : [];
    }),
  );
  return { braces, positions, latestRoundId: latest?.round.id ?? null };
}
