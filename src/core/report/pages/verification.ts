import { driftOf, type Drift, type Found } from '../../findings/drift';
import type { Verdict } from '../../maths/statistics/verdict';
import { judgeRound } from '../../round/judge/judge-round';
import type { DimensionJudgement, RoundJudgement } from '../../round/judge/judgement';
import type { WeldedElsewhere } from '../../plan/weld-order/shrinkage';
import type { Dimension, StateKind } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { acceptedSubjects } from '../record/accepted';
import { beforeFinal, readAxles, type BeforeFinal, type ReadAxles } from '../before-final';
import { expectedBefore, NOTHING, summed, type Expected, type ExpectedMoves } from './expected';

/** A telling dimension as one round of the welding found it. */
export interface BoardCell {
  readonly roundId: string;
  readonly value: number;
  readonly verdict?: Verdict;
  /** Against its reference, with two standard deviations, mm. */
  readonly deviation?: number;
  readonly plusMinus: number;
  /** Since the round before that measured it, and twice its standard deviation, mm. */
  readonly change?: { readonly by: number; readonly plusMinus: number };
  /** What was welded since then was expected to do to it; nothing where nothing was welded that is known to reach it. */
  readonly expected?: Expected;
}

export interface BoardRow {
  readonly dimension: Pick<Dimension, 'id' | 'code' | 'name'>;
  readonly limit?: number;
  /** By the round's place on the board; nothing where it did not measure it. */
  readonly cells: readonly (BoardCell | undefined)[];
  readonly drift: Drift;
}

export interface BoardRound {
  readonly id: string;
  readonly number: number;
  readonly name: string;
  readonly state: StateKind;
}

/** What speaks against going on, of one dimension or of the round. */
export type BoardReason =
  | { readonly kind: 'outside'; readonly code: string; readonly deviation: number; readonly limit: number }
  | {
      readonly kind: 'moved';
      readonly code: string;
      readonly by: number;
      readonly plusMinus: number;
      /** The round in which it appeared, and how likely it is that it was that one. */
      readonly round: string;
      readonly share: number;
      /** What was welded before that round was expected to do. */
      readonly expected?: Expected;
    }
  | { readonly kind: 'undecided'; readonly code: string }
  | { readonly kind: 'unread'; readonly codes: readonly string[] };

/** Go on; stop and look; or take off what is only tacked. */
export type Call = 'go' | 'stop' | 'undo';

export interface VerificationBoard {
  /** The rounds of the welding, and the one just before them where the metal was fitted; all rounds while nothing is clamped. */
  readonly rounds: readonly BoardRound[];
  readonly welding: boolean;
  readonly rows: readonly BoardRow[];
  readonly call?: {
    readonly call: Call;
    readonly reasons: readonly BoardReason[];
    /** What moved or is outside, and was accepted with a reason. */
    readonly accepted: readonly string[];
  };
  readonly beforeFinal: readonly BeforeFinal[];
  /** How the axles stand, as they were read last. */
  readonly axles?: ReadAxles;
}

/** What a shell goes through from when its new metal is clamped. */
export const WELD_STATES: readonly StateKind[] = [
  'clamped',
  'tacked',
  'oneSide',
  'welded',
  'cold',
  'bracesOut',
  'onWheels',
];
const LOOSE: readonly StateKind[] = ['clamped', 'tacked'];
/**
 * The rungs of the welding against the telling dimensions: what moved at which, and whether to go on.
 *
 * @param elsewhere joints of the shop's other jobs of which somebody read what they shrank
 */
export function verificationBoard(job: Job, elsewhere: readonly WeldedElsewhere[] = []): VerificationBoard {
  const read = new Set(job.rows.readings.map(({ roundId }) => roundId));
  const all = job.ownRounds.filter(({ id }) => read.has(id));
  const first = all.findIndex((round) => WELD_STATES.includes(job.stateOf(round).kind));
  // What a pull or a cut did on purpose is no drift: only metal that was fitted already stands as it is to be welded.
  const before = first > 0 && job.stateOf(all[first - 1]!).kind === 'fitted' ? 1 : 0;
  const shown = first < 0 ? all : all.slice(first - before);
  const judged = shown.map((round) => judgeRound(job, round));
  const expected = first < 0 ? shown.map(() => NOTHING) : expectedBefore(job, elsewhere, shown);
  const found = job.rows.dimensions.flatMap((dimension) => rowOf(dimension, judged, expected));
  const rows = found
    .map(({ measured, ...row }): BoardRow => ({ ...row, drift: driftOf(measured, found.length) }))
    .toSorted(byWeight);
  const last = judged.at(-1);
  const axles = readAxles(job);
  return {
    rounds: shown.map((round) => ({
      ...{ id: round.id, number: round.number, name: round.name },
      state: job.stateOf(round).kind,
    })),
    welding: first >= 0,
    rows,
    ...(first >= 0 && last && judged.length > 1 ? { call: callOf(job, last, judged, rows) } : {}),
    beforeFinal: last ? beforeFinal(job, last.round, all) : [],
    ...(axles ? { axles } : {}),
  };
}

/** A row for what two rounds measured at least. */
function rowOf(
  { id, code, name }: Dimension,
  judged: readonly RoundJudgement[],
  expected: readonly ExpectedMoves[],
): (Omit<BoardRow, 'drift'> & { readonly measured: readonly Found[] })[] {
  let before: { readonly value: number; readonly sd: number; readonly at: number } | undefined;
  const found = judged.map(({ dimensions }) => dimensions.find((each) => each.dimension.id === id));
  const cells = found.map((each, i): BoardCell | undefined => {
    if (!each?.measured) return undefined;
    const { value, sd } = each.measured;
    const change = before && { by: value - before.value, plusMinus: 2 * Math.hypot(sd, before.sd) };
    const since = before ? summed(expected.slice(before.at + 1, i + 1), id) : undefined;
    before = { value, sd, at: i };
    return {
      ...{ roundId: judged[i]!.round.id, value, ...verdictOf(each) },
      ...(change ? { change } : {}),
      ...(since ? { expected: since } : {}),
    };
  });
  const measured = found.flatMap((each) => each?.measured ?? []);
  if (measured.length < 2) return [];
  const limit = found.find((each) => each?.judged)?.judged?.limit;
  return [{ dimension: { id, code, name }, cells, measured, ...(limit === undefined ? {} : { limit }) }];
}

const verdictOf = ({ judged, measured }: DimensionJudgement): Pick<BoardCell, 'verdict' | 'deviation' | 'plusMinus'> =>
  judged
    ? { verdict: judged.verdict, deviation: judged.deviation, plusMinus: judged.plusMinus }
    : { plusMinus: 2 * measured!.sd };

/** What moved first, then what is outside, then what was measured most. */
const byWeight = (a: BoardRow, b: BoardRow): number => weight(b) - weight(a);
const weight = ({ drift, cells }: BoardRow): number =>
  (drift.kind === 'moved' ? 100 + Math.abs(drift.by / drift.sd) : 0) +
  (cells.at(-1)?.verdict === 'outside' ? 50 : 0) +
  cells.filter(Boolean).length;

function callOf(
  job: Job,
  { round }: RoundJudgement,
  judged: readonly RoundJudgement[],
  rows: readonly BoardRow[],
): NonNullable<VerificationBoard['call']> {
  const accepted = acceptedSubjects(job, round);
  const reasons: BoardReason[] = [];
  const overlooked: string[] = [];
  let isUndone = false;
  for (const { dimension, cells, drift, limit } of rows) {
    const now = cells.at(-1);
    if (!now) continue;
    const { code } = dimension;
    if (accepted.has(dimension.id)) {
      if (now.verdict === 'outside' || drift.kind === 'moved') overlooked.push(code);
      continue;
    }
    if (now.verdict === 'outside') reasons.push({ kind: 'outside', code, deviation: now.deviation!, limit: limit! });
    if (now.verdict === 'undecided' && drift.kind === 'moved') reasons.push({ kind: 'undecided', code });
    if (drift.kind !== 'moved') continue;
    const [at] = drift.at;
    const measuring = judged.filter((_, i) => cells[i]);
    const { name, id } = measuring[at!.place]!.round;
    const expected = cells.find((cell) => cell?.roundId === id)?.expected;
    reasons.push({
      ...{ kind: 'moved', code, by: drift.by, plusMinus: 2 * drift.sd, round: name, share: at!.share },
      ...(expected ? { expected } : {}),
    });
    isUndone ||= now.verdict === 'outside';
  }
  const unread = rows.filter(({ cells }) => !cells.at(-1) && cells.at(-2)).map(({ dimension }) => dimension.code);
  if (unread.length > 0) reasons.push({ kind: 'unread', codes: unread });
  const call = reasons.length === 0 ? 'go' : isUndone && LOOSE.includes(job.stateOf(round).kind) ? 'undo' : 'stop';
  return { call, reasons, accepted: overlooked };
}
