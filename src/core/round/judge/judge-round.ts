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
  readonly measured: MeasuredRound;
  readonly net: RoundNet;
  /** Kept only where readings come one by one: it is as large as several nets. */
  readonly solved?: Solved;
  readonly located: LocatedPoints;
}

/** Nets kept, the last used ones of a few rounds. */
const NETS = new Map<string, SolvedRound & { readonly madeOf: string }>();
const MOST_NETS = 12;

function netOf(job: Job, round: Round, warm: boolean): SolvedRound {
  const madeOf = whatNetHangsOn(job, round);
  const known = NETS.get(round.id);
  if (known?.madeOf === madeOf) return known;
  const observed = observeRound(job, round);
  const { net, solved } = solveRoundFrom(job, observed, warm ? known?.solved : undefined);
  const made = { measured: measure(observed), net, located: locatedPoints(net), madeOf, ...(warm ? { solved } : {}) };
  NETS.delete(round.id);
  NETS.set(round.id, made);
  for (const oldest of NETS.keys()) if (NETS.size > MOST_NETS) NETS.delete(oldest);
  return made;
}

/** Everything the net of a round is computed from, as text to compare. */
function whatNetHangsOn(job: Job, round: Round): string {
  const readings = job.standingReadings(round);
  const versions = new Set(readings.map(({ instrumentVersionId }) => instrumentVersionId));
  const { points, pointConditions, instrumentVersions } = job.rows;
  return JSON.stringify([
    round.temperature,
    readings.map(({ receivedAt: _, takenAt: _at, ...reading }) => [Object.values(reading), job.isKept(reading.id)]),
    instrumentVersions.filter(({ id }) => versions.has(id)).map((version) => Object.values(version)),
    pointConditions.filter(({ roundId }) => roundId === round.id).map(({ pointId, kind }) => [pointId, kind]),
    points.map(({ id, code, side, holeDiameter, substituteForId }) => [id, code, side, holeDiameter, substituteForId]),
    [...job.references.points].map(([id, { row }]) => [id, row.x, row.y, row.z]),
  ]);
}
