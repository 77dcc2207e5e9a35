import { AXES } from '../maths/geometry/vector';
import type { Brace, CodedBrace, CodedPull, Dimension, Quantity, Round, Rung } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { isFinished, ladderOf, type LadderStep } from './ladder';
import { braceState, plannedBraces, unreadPulls } from '../findings/brace-pull';
import { judgeMorning, type MorningVerdict } from '../findings/morning';
import { morningThree, type MorningProposal, type NoMorning } from '../plan/morning';
import { compareRounds, type RoundChange } from '../findings/change';
import { judgeRound } from '../round/judge/judge-round';
import type { RoundJudgement } from '../round/judge/judgement';
import { unreadBlastings } from '../plan/cut/blasting';
import { settle, type SettleProposal } from '../plan/settle';
import type { Subject } from '../walk/decide';

/** The five answers wanted at the end of a day. */
export interface DaySheet {
  readonly latest?: RoundJudgement;
  /** What moved between the last two rounds, and what was done between them. */
  readonly moved?: { readonly change: RoundChange; readonly after: readonly string[] };
  /** Braces in place, with the dimensions each is there to hold. */
  readonly holding: readonly { readonly brace: CodedBrace; readonly dimensions: readonly Dimension[] }[];
  readonly beforeCut: readonly BeforeCut[];
  readonly doubtful: readonly Doubt[];
  /** Readings of the last two rounds that the rest of their round contradicts. */
  readonly contradicted: readonly Contradicted[];
  readonly tomorrow: {
    readonly first?: LadderStep;
    readonly curing: readonly LadderStep[];
    readonly missing: readonly LadderStep[];
    /** Braces that are only planned, and pulls nobody finished or read after release. */
    readonly unfitted: readonly CodedBrace[];
    readonly unread: readonly CodedPull[];
  };
  /** The three readings before the first tool of the day. */
  readonly morning: MorningProposal | NoMorning;
  readonly mornings: readonly MorningVerdict[];
}

export type BeforeCut =
  | { readonly kind: 'need'; readonly step: LadderStep }
  | { readonly kind: 'afterBrace'; readonly brace: CodedBrace; readonly dimension: Dimension }
  | { readonly kind: 'neverMeasured'; readonly dimensions: readonly Dimension[] }
  /** Blasted, and not read since. */
  | { readonly kind: 'blasted'; readonly name: string };

export interface Contradicted {
  readonly round: Pick<Round, 'id' | 'name'>;
  /** `F2L – R4L`, `F2L height`. */
  readonly subject: string;
  /** As read, mm. */
  readonly value: number;
  readonly cause?: string;
}

export interface Doubt {
  readonly code: string;
  readonly subject: Subject;
  readonly quantity: Quantity;
  readonly deviation: number;
  readonly plusMinus: number;
  readonly limit: number;
  readonly settledBy: SettleProposal | undefined;
}

/** Works out the day's page from everything the job holds. */
export function daySheet(job: Job): DaySheet {
  const ladder = ladderOf(job);
  const steps = ladder.rungs.flatMap((rung) => rung.steps);
  const read = new Set(job.rows.readings.filter((each) => each.pullId === null).map((each) => each.roundId));
  const rounds = job.ownRounds.filter((round) => read.has(round.id));
  const latest = rounds.length > 0 ? judgeRound(job, rounds.at(-1)!) : undefined;
  const before = rounds.length > 1 ? judgeRound(job, rounds.at(-2)!) : undefined;
  const judged = job.ownRounds.map((round) => judgeRound(job, round));
  const fitted = job.braces.filter((brace) => braceState(job, brace) === 'fitted');
  return {
    ...(latest ? { latest } : {}),
    ...(latest && before
      ? {
          moved: {
            change: compareRounds(job, before, latest),
            after: doneBetween(job, before.round, latest.round),
          },
        }
      : {}),
    holding: fitted.map((brace) => ({ brace, dimensions: dimensionsOf(job, brace) })),
    beforeCut: beforeNextCut(job, steps, fitted, rounds),
    doubtful: latest ? doubts(job, latest) : [],
    contradicted: [before, latest].flatMap((judgement) => (judgement ? contradictedIn(job, judgement) : [])),
    tomorrow: {
      ...(ladder.next ? { first: ladder.next } : {}),
      curing: steps.filter((step) => step.state === 'curing'),
      missing: steps.filter((step) => step.state === 'missing'),
      unfitted: plannedBraces(job),
      unread: unreadPulls(job, judged),
    },
    morning: morningThree(job),
    mornings: job.rows.morningChecks.map((check) => judgeMorning(job, check)),
  };
}

export function contradictedIn(job: Job, { round, net }: RoundJudgement): Contradicted[] {
  return net.doubts.flatMap(({ readingId, cause }) => {
    const reading = job.reading(readingId);
    if (!reading) return [];
    const codes = [reading.pointId, reading.toPointId].flatMap((id) => job.pointOf(id)?.code ?? []);
    const subject = reading.toPointId ? codes.join(' – ') : `${codes[0]} ${reading.quantity}`;
    return [{ round, subject, value: reading.value, ...(cause ? { cause: cause.text } : {}) }];
  });
}

export const dimensionsOf = (job: Job, brace: Brace): Dimension[] =>
  job.rows.braceDimensions.filter((each) => each.braceId === brace.id).map((each) => job.dimension(each.dimensionId));

/** Rungs whose steps change the metal; fitting and removing braces are events of their own. */
const CHANGES_METAL: ReadonlySet<Rung> = new Set<Rung>(['cut', 'pull', 'fit', 'weld']);

/** What happened to the shell between the last reading of one round and the start of the next, in order. */
export function doneBetween(job: Job, earlier: Round, later: Round): string[] {
  const readings = job.rows.readings.filter((reading) => reading.roundId === earlier.id && reading.pullId === null);
  const from = readings.at(-1)?.takenAt ?? earlier.startedAt;
  const within = (at: string) => at > from && at <= later.startedAt;
  const stepOf = new Map(
    job.rows.steps.filter((step) => CHANGES_METAL.has(step.rung)).map((step) => [step.id, step.title]),
  );
  const braceOf = new Map(job.braces.map((brace) => [brace.id, brace.code]));
  const pullOf = new Map(job.pulls.map((pull) => [pull.id, pull.code]));
  const events = [
    ...job.stepEvents
      .filter((event) => event.kind === 'done' && stepOf.has(event.stepId))
      .map((event) => ({ at: event.at, text: stepOf.get(event.stepId)! })),
    ...job.braceEvents
      .filter((event) => event.kind !== 'planned')
      .map((event) => ({
        at: event.at,
        text: `brace ${braceOf.get(event.braceId)} ${event.kind}`,
      })),
    ...job.pullEvents
      .filter((event) => event.kind === 'done')
      .map((event) => ({ at: event.at, text: `pull ${pullOf.get(event.pullId)} done` })),
  ];
  return events
    .filter((event) => within(event.at))
    .sort((a, b) => a.at.localeCompare(b.at))
    .map((event) => event.text);
}

function beforeNextCut(
  job: Job,
  steps: readonly LadderStep[],
  fitted: readonly CodedBrace[],
  rounds: readonly Round[],
): BeforeCut[] {
  const needs = steps.filter((step) => !isFinished(step) && step.step.needs !== '');
  const lastRound = rounds.at(-1);
  const afterBrace = fitted.flatMap((brace) => {
    const event = job.braceEvents.filter((each) => each.braceId === brace.id).at(-1)!;
    if (lastRound && lastRound.startedAt >= event.at) return [];
    return dimensionsOf(job, brace).map((dimension) => ({
      kind: 'afterBrace' as const,
      brace,
      dimension,
    }));
  });
  const judgements = rounds.map((round) => judgeRound(job, round));
  const never = job.rows.dimensions.filter((dimension) =>
    judgements.every((each) => each.dimensions.find((d) => d.dimension.id === dimension.id)?.lacking === 'notMeasured'),
  );
  return [
    ...needs.slice(0, 3).map((step) => ({ kind: 'need' as const, step })),
    ...afterBrace,
    ...unreadBlastings(job).map(({ item }) => ({ kind: 'blasted' as const, name: item.name })),
    ...(never.length > 0 ? [{ kind: 'neverMeasured' as const, dimensions: never }] : []),
  ];
}

/** Undecided dimensions and points, with what would settle each. */
function doubts(job: Job, judgement: RoundJudgement): Doubt[] {
  const dimensions = judgement.dimensions.flatMap(({ dimension, judged }): Doubt[] => {
    if (judged?.verdict !== 'undecided') return [];
    const { deviation, limit, plusMinus } = judged;
    const subject: Subject = { kind: 'dimension', id: dimension.id };
    const settledBy = settle(job, judgement, subject);
    return [{ code: dimension.code, subject, quantity: 'distance', deviation, plusMinus, limit, settledBy }];
  });
  const points = judgement.points.flatMap(({ point, judged }): Doubt[] => {
    if (judged?.verdict !== 'undecided') return [];
    const { worstAxis, limit } = judged;
    const deviation = judged.deviation.by[AXES.indexOf(worstAxis)]!;
    const { plusMinus } = judged.axes[worstAxis];
    const subject: Subject = { kind: 'point', id: point.id };
    const settledBy = settle(job, judgement, subject);
    const quantity = QUANTITY_OF[worstAxis];
    return [{ code: point.code, subject, quantity, deviation, plusMinus, limit, settledBy }];
  });
  return [...dimensions, ...points].sort((a, b) => Math.abs(b.deviation) / b.limit - Math.abs(a.deviation) / a.limit);
}

const QUANTITY_OF = { x: 'length', y: 'width', z: 'height' } as const;
