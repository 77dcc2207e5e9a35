import { isBraceIn, plannedBraces, unreadPulls } from '../../findings/brace-pull';
import { closeOut } from '../../plan/panels/holding';
import { contradictedIn } from '../../days/day';
import { isFinished, ladderOf } from '../../days/ladder';
import type { RoundJudgement } from '../../round/judge/judgement';
import type { Job } from '../../shell/job/job';
import type { RecordOpen } from '../../shell/record-document';
import { acceptedSubjects } from './accepted';

type Open = readonly [kind: RecordOpen['kind'], subject: string];

/**
 * What is open in a job: what somebody who signs its record has to settle or to accept with a reason.
 *
 * @param judgements the rounds of this shell with readings in them, oldest first; the last one is what is signed
 */
export function openOf(job: Job, judgements: readonly RoundJudgement[]): RecordOpen[] {
  const last = judgements.at(-1);
  const open: Open[] = [
    ...judgements
      .filter(({ round }) => round.closedAt === null)
      .map(({ round }): Open => ['openRound', `${round.number}. ${round.name}`]),
    ...judgements.flatMap((judgement) =>
      contradictedIn(job, judgement).map(({ subject, round }): Open => ['doubt', `${subject}, ${round.name}`]),
    ),
    ...(last ? figuresOpen(job, last) : []),
    ...workOpen(job, judgements),
    ...findingsOpen(job),
    ...ladderOf(job)
      .rungs.flatMap(({ steps }) => steps)
      .filter((step) => !isFinished(step) && step.step.doneBy === null)
      .map(({ step }): Open => ['openStep', step.title]),
  ];
  return open.map(([kind, subject]) => ({ kind, subject, reason: '' }));
}

/** Figures of the last round that are undecided, unmeasured or loose. */
function figuresOpen(job: Job, { round, points, dimensions, net }: RoundJudgement): Open[] {
  const accepted = acceptedSubjects(job, round);
  const undecided = [
    ...dimensions.map(({ dimension: { id, code }, judged }) => ({ id, code, judged })),
    ...points.map(({ point: { id, code }, judged }) => ({ id, code, judged })),
  ].filter(({ id, judged }) => judged?.verdict === 'undecided' && !accepted.has(id));
  return [
    ...undecided.map(({ code }): Open => ['undecided', code]),
    ...dimensions
      .filter(({ lacking }) => lacking === 'notMeasured')
      .map(({ dimension }): Open => ['unmeasured', dimension.code]),
    ...net.loose.map(({ id }): Open => ['loose', job.code(id)]),
  ];
}

const workOpen = (job: Job, judgements: readonly RoundJudgement[]): Open[] => [
  ...plannedBraces(job).map(({ code }): Open => ['plannedBrace', code]),
  // What stands only while it is braced does not stand.
  ...job.braces.filter((brace) => isBraceIn(job, brace)).map(({ code }): Open => ['braceIn', code]),
  ...closeOut(job).map(({ panel, fixing }): Open => ['closeOut', `${panel} ${fixing.name}`]),
  ...unreadPulls(job, judgements).map(({ code }): Open => ['unreadPull', code]),
];

/** Findings of parts nobody saw, and of one side where the other is still to be looked at. */
function findingsOpen(job: Job): Open[] {
  return job.logEntries.flatMap(({ id, text }): Open[] => {
    const detail = job.rows.findingDetails.find(({ entryId }) => entryId === id);
    const short = text.length > 60 ? `${text.slice(0, 57)}…` : text;
    return [
      ...(detail?.sort === 'notSeen' ? [['notSeen', short] as const] : []),
      ...(detail?.otherSide ? [['otherSide', short] as const] : []),
    ];
  });
}
