import type { Position, Vector } from '../maths/geometry/vector';
import { COVERAGE } from '../maths/statistics/verdict';
import { judgeRound } from '../round/judge/judge-round';
import type { RoundJudgement } from '../round/judge/judgement';
import { spreadOf, takes } from '../shell/instruments';
import type { Instrument, InstrumentVersion, Measure, Reading } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { predict } from '../survey/prediction';
import { MINUTES_A_READING, type Proposal } from './proposal';

/** A length to be read before the first tool of the day. */
export interface MorningPair {
  readonly fromPointId: string;
  readonly toPointId: string;
  readonly measure: Measure;
  /** What it should be if nothing moved, mm. */
  readonly expected: number;
  /** One standard deviation of the reading less what is expected, mm. */
  readonly sd: number;
}

/** The three readings of a morning, and with what. */
export interface MorningPlan {
  readonly roundId: string;
  readonly roundName: string;
  readonly instrument: Instrument;
  readonly version: InstrumentVersion;
  readonly pairs: readonly MorningPair[];
}

/** A way in which a shell moves: the smallest movement of it that the readings would notice, before and after them, mm. */
export interface WhyMorning {
  readonly kind: MorningWay;
  /** At the point that moves most, two standard deviations, mm. */
  readonly noticed: number;
}
export const MORNING_WAYS = ['diamond', 'twist', 'mash', 'sway', 'sag'] as const;
export type MorningWay = (typeof MORNING_WAYS)[number];
export type MorningProposal = Proposal<MorningPlan, WhyMorning>;

export type NoMorning = { readonly missing: 'round' | 'lengths' };

const READINGS = 3;
/** How far a shell left to itself overnight may have gone each way, one standard deviation at the point that goes most, mm. */
const MAY_HAVE_GONE = 2;

/**
 * The three lengths that tell most about what could have moved overnight. Each way a shell moves as a whole (diamond,
 * twist, shortening, bending sideways and up) may have grown by some millimetres; lengths read in the last round with the
 * same instrument are compared by how much knowing them shrinks that: the determinant of the information (D-optimality,
 * Wald 1943), each taken in turn, then exchanged as long as it helps (Fedorov 1972).
 */
export function morningThree(job: Job): MorningProposal | NoMorning {
  const round = job.ownRounds.findLast((each) =>
    job.standingReadings(each).some(({ quantity }) => quantity === 'distance'),
  );
  const judgement = round && judgeRound(job, round);
  if (!judgement?.net.solution) return { missing: 'round' };
  const hand = yesterdaysInstrument(job, judgement);
  if (!hand) return { missing: 'lengths' };
  const pairs = readPairs(job, judgement, hand.version);
  const ways = waysOf(judgement);
  const effects = pairs.map((pair) => effectsOf(judgement, pair, ways));
  const chosen = tellMost(effects, pairs);
  if (chosen.length < READINGS) return { missing: 'lengths' };
  const before = Array<number>(ways.length).fill(MAY_HAVE_GONE);
  const after = noticed(
    chosen.map((i) => [effects[i]!, pairs[i]!.sd] as const),
    ways.length,
  );
  return {
    what: {
      roundId: judgement.round.id,
      roundName: judgement.round.name,
      ...hand,
      pairs: chosen.map((i) => pairs[i]!),
    },
    cost: { minutes: READINGS * MINUTES_A_READING },
    gain: { before: COVERAGE * Math.max(...before), after: COVERAGE * Math.max(...after) },
    why: MORNING_WAYS.map((kind, i) => ({ kind, noticed: COVERAGE * after[i]! })),
  };
}

/** The instrument that read the last length, as it is now. */
function yesterdaysInstrument(job: Job, { round }: RoundJudgement) {
  const last = job.standingReadings(round).findLast(({ quantity }) => quantity === 'distance');
  const version = last && job.version(last.instrumentVersionId);
  const instrument = version && job.instrument(version);
  return instrument && takes(instrument, 'distance') ? { instrument, version } : undefined;
}

/** The lengths of a round read with an instrument between points of its net, each once. */
function readPairs(job: Job, { round, net }: RoundJudgement, version: InstrumentVersion): MorningPair[] {
  const solution = net.solution!;
  const located = new Set(solution.survey.points.map(({ id }) => id));
  const pairs = new Map<string, Reading>();
  for (const reading of job.standingReadings(round)) {
    const { quantity, pointId, toPointId, instrumentVersionId } = reading;
    if (quantity !== 'distance' || !located.has(pointId!) || !located.has(toPointId!)) continue;
    if (job.version(instrumentVersionId).instrumentId !== version.instrumentId || net.leftOut.includes(reading.id))
      continue;
    pairs.set([pointId!, toPointId!].sort().join(), reading);
  }
  return [...pairs.values()].map(({ pointId, toPointId, measure }) => {
    const kind = measure === 'level' ? 'plan' : 'distance';
    const { value, variance } = predict(solution, { id: '', kind, from: pointId!, to: toPointId!, value: 1, sigma: 1 });
    return {
      ...{ fromPointId: pointId!, toPointId: toPointId!, measure: measure ?? 'tip' },
      expected: value,
      sd: Math.hypot(Math.sqrt(variance), spreadOf(version, value)),
    };
  });
}

type Way = (at: Position<'round'>) => Vector;

/** Movements of the shell as a whole, each with one millimetre where it is largest; round axes. */
function waysOf({ located }: RoundJudgement): Way[] {
  const all = [...located.values()].map(({ position }) => position);
  const middle = [0, 1, 2].map((k) => all.reduce((sum, at) => sum + at[k]!, 0) / all.length) as unknown as Vector;
  const half = Math.max(1, ...all.map((at) => Math.abs(at[0] - middle[0])));
  const wide = Math.max(1, ...all.map((at) => Math.abs(at[1] - middle[1])));
  const along = (at: Vector) => (at[0] - middle[0]) / half;
  const across = (at: Vector) => (at[1] - middle[1]) / wide;
  const ways: Readonly<Record<MorningWay, Way>> = {
    diamond: (at) => [across(at), 0, 0],
    twist: (at) => [0, 0, along(at) * across(at)],
    mash: (at) => [along(at), 0, 0],
    sway: (at) => [0, along(at) ** 2, 0],
    sag: (at) => [0, 0, along(at) ** 2],
  };
  return MORNING_WAYS.map((name) => ways[name]);
}

/** How a length changes with each way, mm a millimetre. */
function effectsOf(
  { located }: RoundJudgement,
  { fromPointId, toPointId, measure }: MorningPair,
  ways: readonly Way[],
) {
  const [from, to] = [located.get(fromPointId)!.position, located.get(toPointId)!.position];
  const line: Vector = [to[0] - from[0], to[1] - from[1], measure === 'level' ? 0 : to[2] - from[2]];
  const length = Math.max(1, Math.hypot(...line));
  return ways.map((way) => {
    const [a, b] = [way(from), way(to)];
    return [0, 1, 2].reduce((sum, k) => sum + ((b[k]! - a[k]!) * line[k]!) / length, 0);
  });
}

type Told = readonly (readonly [effects: readonly number[], sd: number])[];

/** Indices of the lengths that together tell most. */
function tellMost(effects: readonly (readonly number[])[], pairs: readonly MorningPair[]): number[] {
  const told = (chosen: readonly number[]) => information(chosen.map((i) => [effects[i]!, pairs[i]!.sd] as const));
  const others = (chosen: readonly number[]) => effects.map((_, i) => i).filter((i) => !chosen.includes(i));
  const better = (kept: readonly number[]) =>
    others(kept).reduce<{ i: number; tells: number } | undefined>((best, i) => {
      const tells = told([...kept, i]);
      return best && best.tells >= tells ? best : { i, tells };
    }, undefined);
  let chosen: number[] = [];
  while (chosen.length < READINGS) {
    const next = better(chosen);
    if (!next) return chosen;
    chosen = [...chosen, next.i];
  }
  for (let again = true; again;) {
    again = false;
    for (const out of chosen) {
      const kept = chosen.filter((i) => i !== out);
      const found = better(kept)!;
      if (found.i !== out && found.tells > told(chosen) + 1e-9) [chosen, again] = [[...kept, found.i], true];
    }
  }
  return chosen;
}

/** ln det(I + H S Hᵀ R⁻¹): how much the readings tell of the ways, S what each may have gone, R what reading leaves open. */
function information(told: Told): number {
  const size = told.length;
  const a = told.map(([h, r], i) =>
    told.map(
      ([g], k) => (MAY_HAVE_GONE ** 2 * h.reduce((sum, v, m) => sum + v * g[m]!, 0)) / r ** 2 + (i === k ? 1 : 0),
    ),
  );
  let log = 0;
  for (let k = 0; k < size; k++) {
    log += Math.log(Math.max(1e-300, a[k]![k]!));
    for (let i = k + 1; i < size; i++) {
      const share = a[i]![k]! / a[k]![k]!;
      for (let j = k; j < size; j++) a[i]![j]! -= share * a[k]![j]!;
    }
  }
  return log;
}

/** One standard deviation of each way once the readings are known: Kalman's update, one reading at a time. */
function noticed(told: Told, ways: number): number[] {
  const p = Array.from({ length: ways }, (_, i) =>
    Array.from({ length: ways }, (_, k) => (i === k ? MAY_HAVE_GONE ** 2 : 0)),
  );
  for (const [h, r] of told) {
    const ph = p.map((row) => row.reduce((sum, v, k) => sum + v * h[k]!, 0));
    const scale = r ** 2 + ph.reduce((sum, v, k) => sum + v * h[k]!, 0);
    for (let i = 0; i < ways; i++) for (let k = 0; k < ways; k++) p[i]![k]! -= (ph[i]! * ph[k]!) / scale;
  }
  return p.map((row, i) => Math.sqrt(Math.max(0, row[i]!)));
}
