import { AXES } from '../maths/geometry/vector';
import type { Brace, Dimension, InstrumentVersion, Quantity, Round, Rung } from '../shell/job/entities';
import { ownRounds, type JobRows } from '../shell/job/job-rows';
import { isFinished, ladderOf, type LadderStep } from './ladder';
import { braceState } from '../findings/brace-pull';
import { compareRounds, type RoundChange } from '../findings/change';
import { judgeRound, type RoundJudgement } from '../round/judge/judgement';
import { instrumentOf } from '../round/observe/measured';
import { COVERAGE } from '../maths/statistics/verdict';
import { settlingReading, type Settling } from './settle';

/** The five answers wanted at the end of a day. */
export interface DaySheet {
  readonly latest?: RoundJudgement;
  /** What moved between the last two rounds, and what was done between them. */
  readonly moved?: { readonly change: RoundChange; readonly after: readonly string[] };
  /** Braces in place, with the dimensions each is there to hold. */
  readonly holding: readonly { readonly brace: Brace; readonly dimensions: readonly Dimension[] }[];
  readonly beforeCut: readonly BeforeCut[];
  readonly doubtful: readonly Doubt[];
  /** Readings of the last two rounds that the rest of their round contradicts. */
  readonly contradicted: readonly Contradicted[];
  readonly tomorrow: {
    readonly first?: LadderStep;
    readonly curing: readonly LadderStep[];
    readonly missing: readonly LadderStep[];
  };
}

export type BeforeCut =
  | { readonly kind: 'need'; readonly step: LadderStep }
  | { readonly kind: 'afterBrace'; readonly brace: Brace; readonly dimension: Dimension }
  | { readonly kind: 'neverMeasured'; readonly dimensions: readonly Dimension[] };

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
  readonly quantity: Quantity;
  readonly deviation: number;
  readonly plusMinus: number;
  readonly limit: number;
  readonly settledBy?: Settling;
}

/** Works out the day's page from everything the job holds. */
export function daySheet(rows: JobRows): DaySheet {
  const ladder = ladderOf(rows);
  const steps = ladder.rungs.flatMap((rung) => rung.steps);
  const read = new Set(rows.readings.filter((each) => each.pullId === null).map((each) => each.roundId));
  const rounds = ownRounds(rows).filter((round) => read.has(round.id));
  const latest = rounds.length > 0 ? judgeRound(rows, rounds.at(-1)!) : undefined;
  const before = rounds.length > 1 ? judgeRound(rows, rounds.at(-2)!) : undefined;
  const fitted = rows.braces.filter((brace) => braceState(rows, brace) === 'fitted');
  return {
    ...(latest ? { latest } : {}),
    ...(latest && before
      ? {
          moved: {
            change: compareRounds(rows, before, latest),
            after: doneBetween(rows, before.round, latest.round),
          },
        }
      : {}),
    holding: fitted.map((brace) => ({ brace, dimensions: dimensionsOf(rows, brace) })),
    beforeCut: beforeNextCut(rows, steps, fitted, rounds),
    doubtful: latest ? doubts(rows, latest) : [],
    contradicted: [before, latest].flatMap((judgement) => (judgement ? contradictedIn(rows, judgement) : [])),
    tomorrow: {
      ...(ladder.next ? { first: ladder.next } : {}),
      curing: steps.filter((step) => step.state === 'curing'),
      missing: steps.filter((step) => step.state === 'missing'),
    },
  };
}

function contradictedIn(rows: JobRows, { round, net }: RoundJudgement): Contradicted[] {
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  return net.doubts.flatMap(({ readingId, cause }) => {
    const reading = rows.readings.find(({ id }) => id === readingId);
    if (!reading) return [];
    const codes = [reading.pointId, reading.toPointId].flatMap((id) => codeOf.get(id ?? '') ?? []);
    const subject = reading.toPointId ? codes.join(' – ') : `${codes[0]} ${reading.quantity}`;
    return [{ round, subject, value: reading.value, ...(cause ? { cause: cause.text } : {}) }];
  });
}

export const dimensionsOf = (rows: JobRows, brace: Brace): Dimension[] =>
  rows.braceDimensions
    .filter((each) => each.braceId === brace.id)
    .map((each) => rows.dimensions.find((dimension) => dimension.id === each.dimensionId)!);

/** Rungs whose steps change the metal; fitting and removing braces are events of their own. */
const CHANGES_METAL: ReadonlySet<Rung> = new Set<Rung>(['cut', 'pull', 'fit', 'weld']);

/** What happened to the shell between the last reading of one round and the start of the next, in order. */
export function doneBetween(rows: JobRows, earlier: Round, later: Round): string[] {
  const readings = rows.readings.filter((reading) => reading.roundId === earlier.id && reading.pullId === null);
  const from = readings.at(-1)?.takenAt ?? earlier.startedAt;
  const within = (at: string) => at > from && at <= later.startedAt;
  const stepOf = new Map(
    rows.steps.filter((step) => CHANGES_METAL.has(step.rung)).map((step) => [step.id, step.title]),
  );
  const braceOf = new Map(rows.braces.map((brace) => [brace.id, brace.code]));
  const pullOf = new Map(rows.pulls.map((pull) => [pull.id, pull.code]));
  const events = [
    ...rows.stepEvents
      .filter((event) => event.kind === 'done' && stepOf.has(event.stepId))
      .map((event) => ({ at: event.at, text: stepOf.get(event.stepId)! })),
    ...rows.braceEvents
      .filter((event) => event.kind !== 'planned')
      .map((event) => ({
        at: event.at,
        text: `brace ${braceOf.get(event.braceId)} ${event.kind}`,
      })),
    ...rows.pullEvents
      .filter((event) => event.kind === 'done')
      .map((event) => ({ at: event.at, text: `pull ${pullOf.get(event.pullId)} done` })),
  ];
  return events
    .filter((event) => within(event.at))
    .sort((a, b) => a.at.localeCompare(b.at))
    .map((event) => event.text);
}

function beforeNextCut(
  rows: JobRows,
  steps: readonly LadderStep[],
  fitted: readonly Brace[],
  rounds: readonly Round[],
): BeforeCut[] {
  const needs = steps.filter((step) => !isFinished(step) && step.step.needs !== '');
  const lastRound = rounds.at(-1);
  const afterBrace = fitted.flatMap((brace) => {
    const event = rows.braceEvents.filter((each) => each.braceId === brace.id).at(-1)!;
    if (lastRound && lastRound.startedAt >= event.at) return [];
    return dimensionsOf(rows, brace).map((dimension) => ({
      kind: 'afterBrace' as const,
      brace,
      dimension,
    }));
  });
  const judgements = rounds.map((round) => judgeRound(rows, round));
  const never = rows.dimensions.filter((dimension) =>
    judgements.every((each) => each.dimensions.find((d) => d.dimension.id === dimension.id)?.lacking === 'notMeasured'),
  );
  return [
    ...needs.slice(0, 3).map((step) => ({ kind: 'need' as const, step })),
    ...afterBrace,
    ...(never.length > 0 ? [{ kind: 'neverMeasured' as const, dimensions: never }] : []),
  ];
}

/** Undecided dimensions and points, with the reading that would settle each. */
function doubts(rows: JobRows, judgement: RoundJudgement): Doubt[] {
  const newest = new Map<string, InstrumentVersion>(rows.instrumentVersions.map((each) => [each.instrumentId, each]));
  const instruments = [...newest.values()].map((version) => ({
    version,
    instrument: instrumentOf(rows, version),
  }));
  const ofKind = (...kinds: string[]) => instruments.filter((each) => kinds.includes(each.instrument.kind));
  const dimensions = judgement.dimensions.flatMap(({ dimension, measured, judged }): Doubt[] => {
    if (judged?.verdict !== 'undecided' || !measured) return [];
    const { deviation, limit, plusMinus } = judged;
    const shared = Math.sqrt(Math.max(0, (plusMinus / COVERAGE) ** 2 - measured.sd ** 2));
    const settledBy = settlingReading(
      { deviation, limit, own: measured.sd, shared, length: measured.value },
      ofKind('tape', 'tram', 'digitalTram'),
    );
    return [{ code: dimension.code, quantity: 'distance', deviation, plusMinus, limit, settledBy }];
  });
  const points = judgement.points.flatMap(({ point, judged }): Doubt[] => {
    if (judged?.verdict !== 'undecided') return [];
    const axis = AXES.indexOf(judged.worstAxis);
    const { dx, dy, dz } = judged.deviation;
    const deviation = [dx, dy, dz][axis]!;
    const own = Math.sqrt(judgement.located.get(point.id)!.variance[axis]!);
    const shared = Math.sqrt(Math.max(0, judged.sd[axis]! ** 2 - own ** 2));
    const settledBy = settlingReading(
      { deviation, limit: judged.limit, own, shared, length: 0 },
      ofKind(judged.worstAxis === 'z' ? 'heightStick' : 'plumb'),
    );
    const quantity = QUANTITY_OF[judged.worstAxis];
    return [
      {
        code: point.code,
        quantity,
        deviation,
        plusMinus: judged.axes[judged.worstAxis].plusMinus,
        limit: judged.limit,
        settledBy,
      },
    ];
  });
  return [...dimensions, ...points].sort((a, b) => Math.abs(b.deviation) / b.limit - Math.abs(a.deviation) / a.limit);
}

const QUANTITY_OF = { x: 'length', y: 'width', z: 'height' } as const;
