import { alike } from '../../maths/alike';
import { once, onceFor } from '../../maths/once';
import { APART_FROM_ROUNDS } from '../../shell/job/apart';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { alignRound, locatedPoints, type LocatedPoints } from '../align/align-round';
import { solveRoundFrom, type RoundNet, type Solved } from '../net/net';
import { measure, type MeasuredRound } from '../observe/measured';
import { observeRound } from '../observe/observe';
import { judgeAligned, type RoundJudgement } from './judgement';

/**
 * Solves a round as one net, aligns it on its control points and judges every point and dimension of the job by it:
 * observe → net → align → judge. The net hangs on nothing that is ticked or judged, so it is kept for as long as what
 * it was made of stays the same, whatever else changes in the job.
 *
 * @param warm start from where the net of this round stood when it was judged last: quicker while readings come one by one
 */
export function judgeRound(job: Job, round: Round, warm = false): RoundJudgement {
  const hangsOn = job.without(APART_FROM_ROUNDS);
  return once(judgedOf(hangsOn), round, () => judgeAnew(hangsOn, round, warm));
}

/** Several parts of one page judge the same rows, and the next page too where nothing was read: each round is judged once for them. */
const judgedOf = onceFor((_: Job) => new Map<Round, RoundJudgement>());

function judgeAnew(job: Job, round: Round, warm: boolean): RoundJudgement {
  const { measured, net, located } = netOf(job, round, warm);
  const controlIds = job.rows.roundControls.flatMap(({ roundId, pointId }) => (roundId === round.id ? [pointId] : []));
  const alignment = alignRound(job, round, controlIds, located);
  return judgeAligned(
    job,
    { round, measured, net, located, references: job.referencesOf(round), alignment },
    controlIds,
  );
}

interface SolvedRound {
  /** What it was made of. */
  readonly job: Job;
  readonly round: Round;
  readonly measured: MeasuredRound;
  readonly net: RoundNet;
  /** Kept only where readings come one by one: it is as large as several nets. */
  readonly solved?: Solved;
  readonly located: LocatedPoints;
}

/** Nets kept, the last used ones of a few rounds. */
const NETS = new Map<string, SolvedRound>();
const MOST_NETS = 12;

function netOf(job: Job, round: Round, warm: boolean): SolvedRound {
  const known = NETS.get(round.id);
  if (known && hangsOnTheSame(known, job, round)) return known;
  const observed = observeRound(job, round);
  const { net, solved } = solveRoundFrom(job, observed, warm ? known?.solved : undefined);
  const made = {
    job,
    round,
    measured: measure(observed),
    net,
    located: locatedPoints(net),
    ...(warm ? { solved } : {}),
  };
  NETS.delete(round.id);
  NETS.set(round.id, made);
  for (const oldest of NETS.keys()) if (NETS.size > MOST_NETS) NETS.delete(oldest);
  return made;
}

/** Whether all that the net of a round is computed from is as it was. */
function hangsOnTheSame({ job: then, round: before }: SolvedRound, job: Job, round: Round): boolean {
  const [old, now] = [then.standingReadings(before), job.standingReadings(round)];
  const versions = new Set(now.map(({ instrumentVersionId }) => instrumentVersionId));
  const versionsOf = ({ rows }: Job) => rows.instrumentVersions.filter(({ id }) => versions.has(id));
  const conditionsOf = ({ rows }: Job) => rows.pointConditions.filter(({ roundId }) => roundId === round.id);
  return (
    before.temperature === round.temperature &&
    alike(old, now, NOT_COUNTED) &&
    now.every(({ id }) => then.isKept(id) === job.isKept(id)) &&
    alike(versionsOf(then), versionsOf(job)) &&
    alike(conditionsOf(then), conditionsOf(job)) &&
    alike(then.rows.points, job.rows.points) &&
    alike(chartedPlaces(then), chartedPlaces(job))
  );
}

const chartedPlaces = ({ references }: Job) =>
  [...references.points].map(([id, { row }]) => ({ id, x: row.x, y: row.y, z: row.z }));

/** When a reading was taken and when it came changes nothing of what it says. */
const NOT_COUNTED: ReadonlySet<string> = new Set(['takenAt', 'receivedAt']);
