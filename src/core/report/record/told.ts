import { contradictedIn } from '../../days/day';
import { isFinished, ladderOf } from '../../days/ladder';
import { judgeMorning } from '../../findings/morning';
import type { RoundJudgement } from '../../round/judge/judgement';
import type { LogEntry } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { takenBack } from '../taken-back';
import type {
  RecordDocument,
  RecordDoubt,
  RecordEntry,
  RecordMorning,
  RecordStep,
  RecordTakenBack,
} from '../../shell/record-document';

// What a record tells besides what was measured: the log, the steps, what was taken back, what was taken off.

/** Readings of a round that are left out because the others contradict them. */
export const doubtsOf = (job: Job, judgement: RoundJudgement): RecordDoubt[] =>
  contradictedIn(job, judgement).map(({ subject, value, cause }) => ({
    round: judgement.round.number,
    subject,
    value,
    ...(cause ? { cause } : {}),
  }));

/** An entry of the log with what it is about and what its kind says more. */
export function entryOf(job: Job, entry: LogEntry, codes: ReadonlyMap<string, string>): RecordEntry {
  const { kind, text, reason, author, at, overturnedBy } = entry;
  const finding = job.rows.findingDetails.find(({ entryId }) => entryId === entry.id);
  const decision = job.rows.decisionDetails.find(({ entryId }) => entryId === entry.id);
  return {
    ...{ kind, text, reason, author, at },
    about: job.rows.logSubjects
      .filter((subject) => subject.entryId === entry.id)
      .map((subject) => codes.get(subject.pointId ?? subject.dimensionId ?? '') ?? ''),
    ...(overturnedBy ? { overturnedBy } : {}),
    ...(finding ? { finding: without(finding) } : {}),
    ...(decision ? { decision: without(decision) } : {}),
  };
}

function without<Detail extends { readonly entryId: string }>(detail: Detail): Omit<Detail, 'entryId'> {
  const { entryId: _, ...rest } = detail;
  return rest;
}

/** Steps done and dropped, rung by rung. */
export const stepsDone = (job: Job): RecordStep[] =>
  ladderOf(job).rungs.flatMap(({ steps }) =>
    steps.flatMap((each): RecordStep[] => {
      const { step, event } = each;
      return isFinished(each) && event
        ? [{ rung: step.rung, title: step.title, state: event.kind as 'done', at: event.at, author: event.author }]
        : [];
    }),
  );

export const takenBackOf = (job: Job): RecordTakenBack[] =>
  takenBack(job).map(({ what, withdrawal: { reason, at, author } }) => ({ what, reason, at, author }));

/** Parts taken off, by their tags. */
export const partsOf = (job: Job): NonNullable<RecordDocument['parts']> =>
  job.rows.partTags
    .filter(({ id }) => !job.withdrawal(id))
    .map(({ number, part, takenFrom, state, shelf, keepUntil }) => ({
      ...{ number, part, takenFrom, state, shelf, keepUntil },
    }));

/** Every morning's readings and what they said. */
export const morningsOf = (job: Job): RecordMorning[] =>
  job.rows.morningChecks.map((check) => {
    const { verdict, readings } = judgeMorning(job, check);
    return {
      at: check.at,
      author: check.author,
      round: job.round(check.roundId)?.number ?? 0,
      verdict,
      readings: readings.map(({ ends, change, plusMinus }) => ({ ends, change, plusMinus })),
    };
  });
