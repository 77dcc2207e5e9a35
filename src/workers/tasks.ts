import { practiseStroke } from '@/core/practice/practise-stroke';
import { daySheet, type DaySheet } from '@/core/days/day';
import { analyseRound, type Agree, type RoundAnalysis } from '@/core/findings/analysis';
import { compareRounds, type RoundChange } from '@/core/findings/change';
import { firstFigures, type FirstFigure } from '@/core/findings/first-figures';
import { didItMove, type Movement } from '@/core/findings/movement';
import {
  fromEarlierRound,
  fromMirror,
  fromPlannedChange,
  fromSisterCars,
  type DraftResult,
} from '@/core/findings/references/derive';
import { fromRemovedPart } from '@/core/findings/references/removed-part';
import { compareSides, type Sides } from '@/core/findings/sides';
import { lengthsThroughTime, type ThroughTime } from '@/core/findings/through-time';
import type { Vector } from '@/core/maths/geometry/vector';
import type { SolveBinary } from '@/core/maths/search/binary-program';
import { buildSetUp, MOST_PROGRAMS, type Built, type OnBench, type PlannedMount } from '@/core/plan/set-up/build';
import type { ShellWeight } from '@/core/plan/set-up/weight';
import { springBacksOf } from '@/core/plan/pulls/came-home';
import type { WeldedElsewhere } from '@/core/plan/weld-order/shrinkage';
import { measureNext, type MeasureProposal } from '@/core/plan/measure-next';
import { settle, type SettleProposal } from '@/core/plan/settle';
import { cuttingAdvice, cuttingPage, type CuttingAdvice, type CuttingPage } from '@/core/report/pages/cutting';
import { calendarPage, tomorrowFirst, type CalendarPage, type TomorrowFirst } from '@/core/report/pages/calendar';
import { verificationBoard, type VerificationBoard } from '@/core/report/pages/verification';
import { ordersOf, weldingPage, type WeldingPage } from '@/core/report/pages/welding';
import { fittingPage, type FittingPage } from '@/core/report/pages/fitting';
import { gapsPage, type GapsPage } from '@/core/report/pages/gaps';
import { goingOf, pullingAdvice, pullingPage, pullTried } from '@/core/report/pages/pulling';
import type { AdviceResult, PullGoing, PullingPage } from '@/core/report/pages/pulling';
import { roundsPage, type ListedRound } from '@/core/report/pages/rounds';
import { levellingNow, setUpPage, type SetUpPage } from '@/core/report/pages/set-up';
import type { Levelled } from '@/core/report/pages/levelling';
import { ghostsOf, type Ghost } from '@/core/report/pages/ghosts';
import { buildRecord } from '@/core/report/record/record';
import { judgeRound } from '@/core/round/judge/judge-round';
import type { DimensionJudgement, RoundJudgement } from '@/core/round/judge/judgement';
import { placeRound, type PlacedRound } from '@/core/round/judge/placed';
import { instrumentsInHand } from '@/core/shell/instruments';
import type { Round } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { RecordDocument } from '@/core/shell/record-document';
import { walkTargets, type Aim, type Target } from '@/core/walk/targets';
import type { Subject } from '@/core/walk/decide';
import { shopClock } from '@/formats/shop-time';
import type { People } from '@/core/walk/stretches';

/** What a task can say while it runs. */
export interface Running {
  /** How much of it is done, 0 … 1. */
  progress(share: number): void;
  /** Chooses exactly, and tells what share of the time it may take has gone; only in a worker of a window, where it can be cancelled. */
  solver?(told: (share: number) => void): Promise<SolveBinary>;
}

/** A round, with the control points being tried instead of those saved. */
export interface RoundInput {
  readonly roundId: string;
  readonly control?: readonly string[];
}

/** Joints of the shop's other jobs of which somebody read what they shrank. */
interface Elsewhere {
  readonly elsewhere: readonly WeldedElsewhere[];
}

/** How well the instruments in the hand read: distance = constant + share · length in metres, mm. */
export interface HandSpread {
  readonly constant: number;
  readonly perMetre: number;
  readonly height: number;
}

/** The rounds asked for by their identities; those that are gone are left out. */
const roundsOf = (job: Job, ids: readonly string[]): Round[] => ids.flatMap((id) => job.round(id) ?? []);

/** The job with the control points of a round replaced, and the round. */
function withControl(job: Job, { roundId, control }: RoundInput): { job: Job; round: Round } {
  const round = job.round(roundId);
  if (!round) throw new Error(`the job has no round ${roundId}`);
  if (!control) return { job, round };
  const { rows } = job;
  const kept = rows.roundControls.filter((each) => each.roundId !== roundId);
  const chosen = control.map((pointId) => ({ roundId, pointId }));
  return { job: Job.of({ ...rows, roundControls: [...kept, ...chosen] }), round };
}

/**
 * All heavy work, by name: pure functions of a job's rows and an input, run in a worker in the browser and in a thread of
 * the server. What goes in and comes out is plain data.
 */
export const TASKS = {
  judge(job: Job, input: RoundInput & { readonly warm?: boolean }): Timed<RoundJudgement> {
    return timed(() => {
      const { job: tried, round } = withControl(job, input);
      return judgeRound(tried, round, input.warm);
    });
  },

  analyse(job: Job, { agree, ...input }: RoundInput & { readonly agree: Agree }, run: Running): Timed<RoundAnalysis> {
    return timed(() => {
      const { job: tried, round } = withControl(job, input);
      const judgement = judgeRound(tried, round);
      run.progress(0.3);
      return analyseRound(tried, judgement, agree);
    });
  },

  walk(
    job: Job,
    { roundId, hands, people }: { readonly roundId: string; readonly hands: HandSpread; readonly people: People },
  ): Target[] {
    const { round } = withControl(job, { roundId });
    return walkTargets(job, round, spreads(hands), people);
  },

  measureNext(
    job: Job,
    { roundId, versionIds, aim, count }: { roundId: string; versionIds: readonly string[]; aim: Aim; count: number },
  ): MeasureProposal[] {
    const { round } = withControl(job, { roundId });
    return measureNext(job, judgeRound(job, round), instrumentsInHand(job, versionIds), aim, count);
  },

  settle(job: Job, { subject, ...input }: RoundInput & { readonly subject: Subject }): SettleProposal | null {
    const { job: tried, round } = withControl(job, input);
    return settle(tried, judgeRound(tried, round), subject) ?? null;
  },

  sides(job: Job, input: RoundInput): Sides & { readonly positions?: PlacedRound['positions'] } {
    const { job: tried, round } = withControl(job, input);
    const judgement = judgeRound(tried, round);
    const placed = placeRound(tried, judgement);
    return { ...compareSides(tried, judgement), ...(placed.ok ? { positions: placed.placed.positions } : {}) };
  },

  /** What the readings say of each other, located or not. */
  firstFigures: (job: Job, input: RoundInput): FirstFigure[] => firstFigures(job, withControl(job, input).round),

  /** The rounds a reference would be made of, and what it would say. */
  derive(job: Job, from: DeriveInput): DraftResult {
    const [round] = roundsOf(job, [from.roundIds[0] ?? '']);
    if (from.kind === 'plannedChange') return fromPlannedChange(job, from.pointIds, from.offset);
    if (from.kind === 'sisterCar') return fromSisterCars(job, roundsOf(job, from.roundIds), new Set(from.pointIds));
    if (!round) return { ok: false, reason: 'this round is not here any more' };
    if (from.kind === 'keptPart') return fromRemovedPart(job, round, new Set(from.pointIds));
    return from.kind === 'earlierRound' ? fromEarlierRound(job, round) : fromMirror(job, round, from.good);
  },

  compare(
    job: Job,
    { earlierId, laterId }: { readonly earlierId: string; readonly laterId: string },
    run: Running,
  ): Comparison | null {
    const [earlier, later] = roundsOf(job, [earlierId, laterId]).map((round) => judgeRound(job, round));
    if (!earlier || !later) return null;
    run.progress(0.4);
    const change = compareRounds(job, earlier, later);
    return { change, movement: didItMove(job, earlier, later), final: later.dimensions };
  },

  /** The day sheet; the judged round stays behind, the page needs its name only. */
  day(job: Job): Omit<DaySheet, 'latest'> & { readonly latestRound?: Round } {
    const { latest, ...day } = daySheet(job);
    return { ...day, ...(latest ? { latestRound: latest.round } : {}) };
  },

  record: (job: Job, { madeAt }: { readonly madeAt: string }): RecordDocument => buildRecord(job, madeAt),
  time: (job: Job): ThroughTime => lengthsThroughTime(job),
  rounds: (job: Job): ListedRound[] => roundsPage(job),
  pulling: (job: Job): PullingPage => pullingPage(job),

  /** What this car's metal came home by, for the next of the same model. */
  springBacks: (job: Job) => springBacksOf(job),
  advisePulls: (job: Job, _: undefined, run: Running): AdviceResult =>
    pullingAdvice(job, (share) => run.progress(share)),
  /** How a pull goes with the readings that were typed since; null where it is gone. */
  pullGoing(job: Job, { pullId, expected }: PullInput): PullGoing | null {
    const pull = job.pulls.find(({ id }) => id === pullId);
    return (
      (pull &&
        goingOf(
          job,
          pull,
          job.ownRounds.map((round) => judgeRound(job, round)),
          expected,
        )) ??
      null
    );
  },
  tryPull: (job: Job, { pullId, direction }: { readonly pullId: string; readonly direction: Vector }) =>
    pullTried(job, pullId, direction) ?? null,
  practiseStroke: (job: Job, { pullId, target }: { readonly pullId: string; readonly target: number }) =>
    practiseStroke(job, pullId, target) ?? null,
  gaps: (job: Job): GapsPage => gapsPage(job),
  fitting: (job: Job): FittingPage => fittingPage(job),
  welding: (job: Job, { elsewhere }: Elsewhere): WeldingPage => weldingPage(job, elsewhere),
  weldOrders: (job: Job, input: { readonly jointId: string; readonly chosen?: boolean }, run: Running) =>
    ordersOf(job, input, run.progress) ?? null,
  verification: (job: Job, { elsewhere }: Elsewhere): VerificationBoard => verificationBoard(job, elsewhere),
  calendar: (job: Job, { now }: { readonly now: number }): CalendarPage => calendarPage(job, now),
  /** What is first tomorrow, by the shop's clock. */
  tomorrow: (job: Job, { now, zone }: { readonly now: number; readonly zone: string }): TomorrowFirst[] =>
    tomorrowFirst(job, now, shopClock(zone)),
  cutting: (job: Job, input: { readonly at?: number }): CuttingPage => cuttingPage(job, input),
  adviseCutting: (job: Job, input: { stage: number; room: 'brace' | 'cut' }, run: Running): CuttingAdvice =>
    cuttingAdvice(job, input, (share) => run.progress(share)),
  setUp: (job: Job, { shown }: { readonly shown?: string }): SetUpPage => setUpPage(job, shown),
  /** The best of all ways to build a set-up, which may take long. */
  async bestStacks(_: Job, { on, mounts, weight }: StacksInput, run: Running): Promise<Built> {
    let solved = 0;
    const told = (share: number) => run.progress((solved + share) / MOST_PROGRAMS);
    const solve = await run.solver?.(told);
    const counted: SolveBinary | undefined =
      solve &&
      ((...program) => {
        const answer = solve(...program);
        solved++;
        told(0);
        return answer;
      });
    return buildSetUp(on, mounts, weight, counted);
  },
  level: (job: Job): Levelled | null => levellingNow(job) ?? null,
  ghosts: (job: Job, { roundId }: { readonly roundId: string }): Ghost[] =>
    ghostsOf(job, withControl(job, { roundId }).round),
} satisfies Record<string, (job: Job, input: never, run: Running) => unknown>;

/** A bench with its shelf, and what is to stand on it. */
export interface StacksInput {
  readonly on: OnBench;
  readonly mounts: readonly PlannedMount[];
  readonly weight: ShellWeight;
}

/** A pull, and what was expected of it to come home before anything was tried, mm. */
export interface PullInput {
  readonly pullId: string;
  readonly expected: { readonly by: number; readonly sd: number };
}

export type DeriveInput = { readonly roundIds: readonly string[] } & (
  | { readonly kind: 'earlierRound' }
  | { readonly kind: 'mirroredSide'; readonly good: 'left' | 'right' }
  | { readonly kind: 'sisterCar'; readonly pointIds: readonly string[] }
  | { readonly kind: 'keptPart'; readonly pointIds: readonly string[] }
  | { readonly kind: 'plannedChange'; readonly pointIds: readonly string[]; readonly offset: Vector }
);

/** A round against its reference and against an earlier one. */
export interface Comparison {
  readonly change: RoundChange;
  readonly movement: Movement;
  readonly final: readonly DimensionJudgement[];
}

/** A result and how long it took, ms. */
export interface Timed<T> {
  readonly value: T;
  readonly milliseconds: number;
}

function timed<T>(work: () => T): Timed<T> {
  const begun = performance.now();
  const value = work();
  return { value, milliseconds: performance.now() - begun };
}

const spreads = ({ constant, perMetre, height }: HandSpread) => ({
  height,
  distance: (length: number) => constant + (perMetre * length) / 1000,
});

export type TaskName = keyof typeof TASKS;
export type TaskInput<Name extends TaskName> =
  Parameters<(typeof TASKS)[Name]> extends [Job, infer Input, ...unknown[]] ? Input : undefined;
export type TaskResult<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;
