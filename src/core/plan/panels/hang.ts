import type { Vector } from '../../maths/geometry/vector';
import { judge } from '../../maths/statistics/verdict';
import { SIGHT_WEIGHT } from '../../round/judge/sight';
import type { SeamJudgement, StationJudgement } from '../../round/judge/seams';
import type { CalledPanel, PanelSetting, Seam } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { frameOf, inSpace, placeOnEdge, shareOf, wayOf, type EdgePlace, type PanelFrame } from './panel-frame';
import { bestSettings, seatEffects, type Figures, type SeatSetting, type SeatStation, type Wanted } from './seat';
import { shimSums } from './shim-sums';

/** A station along a panel's edge as it counts for where the panel sits; mm. */
export interface HangStation {
  readonly stationId: string;
  readonly seam: Seam;
  readonly number: number;
  readonly place: EdgePlace;
  readonly gap: Wanted & { readonly sd: number };
  readonly flush?: Wanted & { readonly sd: number };
}

/** What can be set at a panel, and what it is set to. */
export interface HangSetting extends PanelSetting {
  /** The way it moves, chart axes; absent where it moves no rigid panel. */
  readonly along?: Vector;
  /** The values it may have where they are not evenly stepped. */
  readonly values?: readonly number[];
  /** The best value, from where it is now. */
  readonly advised: number;
}

/** Where a panel sits best, and what that does. */
export interface HangPlan {
  readonly stations: readonly HangStation[];
  readonly settings: readonly HangSetting[];
  /** What one of each setting does to gap and flush of each station, mm. */
  readonly effects: readonly (readonly Figures[])[];
  /** Sum of squares over limits, weighed by how much is seen: as it hangs, as advised, and where no hinge holds it back. */
  readonly cost: { readonly before: number; readonly after: number; readonly free: number };
  readonly after: readonly Figures[];
  /** What no position of the panel takes away. */
  readonly free: readonly Figures[];
  /** Seams of it that are not read, by code. */
  readonly unread: readonly string[];
  readonly proven: boolean;
}

export type WhyNoHang =
  | { readonly kind: 'noSeams' | 'noSettings' | 'oneCondition' }
  | { readonly kind: 'unread' | 'untold'; readonly seams: readonly string[] }
  | {
      readonly kind: 'conditions';
      readonly conditions: number;
    };
export type HangResult = { readonly ok: true; readonly plan: HangPlan } | ({ readonly ok: false } & WhyNoHang);

/**
 * The settings of a panel that bring all its seams nearest to what is wanted, in as few settings as do: one that gains little is
 * left as it is. Gaps on the side of the hinges keep the least through the swing. Its places are those of a flat panel of its
 * length and height, its stations evenly along its edges.
 */
export function hangPanel(job: Job, panel: CalledPanel, seams: readonly SeamJudgement[]): HangResult {
  const frame = frameOf(panel);
  const along = job.rows.panelSeams.filter(({ hungId }) => hungId === panel.id);
  const judged = along.flatMap((of) => {
    const seam = seams.find((each) => each.seam.id === of.seamId);
    return seam ? [{ of, seam }] : [];
  });
  if (judged.length === 0) return { ok: false, kind: 'noSeams' };
  const stations = judged.flatMap(({ of, seam }) => hangStations(panel, of, seam));
  const unread = judged.flatMap(({ seam: { seam } }) =>
    stations.some((each) => each.seam.id === seam.id) ? [] : [seam.code],
  );
  if (stations.length === 0) {
    const untold = judged.filter(({ seam }) => seam.stations.some(({ measured }) => measured));
    return untold.length > 0
      ? { ok: false, kind: 'untold', seams: untold.map(({ seam: { seam } }) => seam.code) }
      : { ok: false, kind: 'unread', seams: unread };
  }
  const all = job.rows.panelSettings.filter(({ hungId }) => hungId === panel.id);
  const own = all.filter(({ kind }) => kind !== 'hold');
  if (own.length === 0) return { ok: false, kind: 'noSettings' };
  const seatStations = stations.map((each) => seatStation(frame, each));
  const sums = shimSums(job.rows.shims);
  const settings = own.map((each) => seatSetting(job, frame, each, stations, sums));
  const holds = all.flatMap(({ kind, way, x, y }) =>
    kind === 'hold' && way ? [{ at: inSpace(frame, x, y), along: wayOf(frame, way) }] : [],
  );
  const posed = seatEffects(seatStations, settings, holds);
  if (!posed.ok)
    return posed.conditions === 6
      ? { ok: false, kind: 'oneCondition' }
      : { ok: false, kind: 'conditions', conditions: posed.conditions };
  const { effects, free } = posed.value;
  const leasts = stations.map((each) => (swings(panel, each) ? Math.min(panel.leastGap, each.gap.now) : -Infinity));
  const { values, after, cost, proven } = inFewest(seatStations, settings, effects, leasts);
  const before = costOf(stations, stations.map(asItIs));
  return {
    ok: true,
    plan: {
      ...{ stations, unread, effects, after, proven },
      settings: own.map((each, i) => ({
        ...each,
        ...(each.way ? { along: wayOf(frame, each.way) } : {}),
        ...(settings[i]!.values ? { values: settings[i]!.values } : {}),
        advised: values[i]!,
      })),
      cost: { before, after: cost, free: free.cost },
      free: free.stations,
    },
  };
}

function hangStations(
  panel: CalledPanel,
  of: { edge: HangEdge; turned: boolean },
  { seam, stations }: SeamJudgement,
): HangStation[] {
  const gaps = stations.filter(({ quantity }) => quantity === 'gap');
  return gaps.flatMap((gap, i) => {
    const place = placeOnEdge(panel, of.edge, shareOf(of, i, gaps.length));
    const wanted = wantedOf(seam, gap);
    if (!place || !wanted) return [];
    const flush = wantedOf(
      seam,
      stations.find(({ station, quantity }) => quantity === 'flush' && station.id === gap.station.id),
    );
    return [
      { stationId: gap.station.id, seam, number: gap.station.number, place, gap: wanted, ...(flush ? { flush } : {}) },
    ];
  });
}

type HangEdge = Parameters<typeof placeOnEdge>[1];

function wantedOf(seam: Seam, { measured, target }: Partial<StationJudgement> = {}): HangStation['gap'] | undefined {
  if (!measured || !target) return undefined;
  const { value: now, sd } = measured;
  return { now, sd, target: target.value, limit: target.limit, weight: SIGHT_WEIGHT[seam.sight] };
}

function seatStation(frame: PanelFrame, { place, gap, flush }: HangStation): SeatStation {
  const { x, y, normal } = place;
  const across = inSpace(frame, -normal[0], -normal[1]);
  return {
    ...{ at: inSpace(frame, x, y), across, gap },
    ...(flush ? { out: frame.out, flush } : {}),
  };
}

/** Whether a station is on the edge that its hinges are on, which comes nearer to its neighbour as it swings. */
function swings(panel: CalledPanel, { place: { normal } }: HangStation): boolean {
  const hung = panel.hungAt && placeOnEdge(panel, panel.hungAt, 0.5);
  return hung ? hung.normal[0] * normal[0] + hung.normal[1] * normal[1] > 0.5 : false;
}

function seatSetting(
  job: Job,
  frame: PanelFrame,
  { id, kind, way, x, y, least, most, step }: PanelSetting,
  stations: readonly HangStation[],
  sums: readonly number[],
): SeatSetting {
  const allowed = kind === 'shims' && step === null ? sums.filter((sum) => sum >= least && sum <= most) : [];
  const range = {
    from: least,
    to: most,
    ...(allowed.length > 0 ? { values: allowed } : step === null ? {} : { step }),
  };
  if (way) return { ...range, at: inSpace(frame, x, y), along: wayOf(frame, way) };
  const effects = job.rows.settingEffects.flatMap(({ settingId, stationId, gap, flush }) => {
    const station = stations.findIndex((each) => each.stationId === stationId);
    return settingId === id && station >= 0 ? [{ station, gap, flush }] : [];
  });
  return { ...range, effects };
}

/** A setting that takes less than this off the sum of squares is not worth a spanner. */
const WORTH = 0.2;

/** A gap that falls short of its least by less than this keeps it, mm. */
const KEEPS = 0.05;
/** A gap that would get smaller than its least is brought to it by so much weight. */
const HEAVY = 1000;
/** A setting at the end of its range costs so much by itself: of two that do the same, the smaller. */
const AT_ITS_END = 0.02;
/** What is better by less than this is the same. */
const SAME = 0.01;

/** The settings that are best, and what they come to. */
interface Best {
  readonly values: readonly number[];
  readonly after: readonly Figures[];
  readonly cost: number;
  readonly proven: boolean;
}

/**
 * The best settings, and of them as few as do: without their steps one after the other is left as it is, the least useful first,
 * while little is lost; the rest are then set by their steps, unless all together are better by more.
 */
function inFewest(
  stations: readonly SeatStation[],
  settings: readonly SeatSetting[],
  effects: HangPlan['effects'],
  leasts: readonly number[],
): Best {
  const solved = (used: readonly number[], stepped: boolean): Best => {
    const narrow = new Set<number>();
    const ranges = used.map((i) => (stepped ? settings[i]! : { from: settings[i]!.from, to: settings[i]!.to }));
    for (;;) {
      const judged = stations.map((each, i) =>
        narrow.has(i) ? { ...each, gap: { ...each.gap, target: leasts[i]!, weight: HEAVY * each.gap.weight } } : each,
      );
      const { A, b } = programme(judged, used, settings, effects);
      const found = bestSettings(A, b, ranges, stepped ? SAME : 0);
      const values = settings.map((_, i) => found.values[used.indexOf(i)] ?? 0);
      const after = figuresAt({ stations, effects }, values);
      const under = after.flatMap(({ gap }, i) => (gap < leasts[i]! - KEEPS && !narrow.has(i) ? [i] : []));
      if (under.length === 0) return { values, after, cost: costOf(stations, after), proven: found.proven };
      under.forEach((i) => narrow.add(i));
    }
  };
  const all = settings.map((_, i) => i);
  const everything = solved(all, true);
  const free = solved(all, false).cost;
  let used: readonly number[] = all;
  for (;;) {
    const [next] = used
      .filter((i) => settings[i]!.from <= 0 && settings[i]!.to >= 0)
      .map((i) => used.filter((each) => each !== i))
      .map((fewer) => ({ fewer, cost: solved(fewer, false).cost }))
      .toSorted((a, b) => a.cost - b.cost);
    if (!next || next.cost - free > WORTH) break;
    used = next.fewer;
  }
  const few = solved(used, true);
  return few.cost - everything.cost > WORTH ? everything : { ...few, proven: everything.proven };
}

/** Rows of what counts, each over its limit and by its weight, and a little for every setting's being moved at all. */
function programme(
  stations: readonly SeatStation[],
  used: readonly number[],
  settings: readonly SeatSetting[],
  effects: HangPlan['effects'],
): { readonly A: number[][]; readonly b: number[] } {
  const rows = stations.flatMap(({ gap, flush }, s) =>
    ([['gap', gap], ...(flush ? [['flush', flush] as const] : [])] as const).map(([key, wanted]) => {
      const per = Math.sqrt(wanted.weight) / wanted.limit;
      return { a: used.map((i) => (effects[s]![i]![key] ?? 0) * per), b: (wanted.target - wanted.now) * per };
    }),
  );
  const small = used.map((i, k) => {
    const most = Math.max(Math.abs(settings[i]!.from), Math.abs(settings[i]!.to)) || 1;
    return { a: used.map((_, c) => (c === k ? Math.sqrt(AT_ITS_END) / most : 0)), b: 0 };
  });
  const all = [...rows, ...small];
  return { A: all.map(({ a }) => a), b: all.map((row) => row.b) };
}

type Judged = Pick<SeatStation, 'gap' | 'flush'>;
const asItIs = ({ gap, flush }: Judged): Figures => ({ gap: gap.now, ...(flush ? { flush: flush.now } : {}) });

/** The sum of squares over limits at some gaps and flushes. */
export function costOf(stations: readonly Judged[], figures: readonly Figures[]): number {
  const square = (value: number, { target, limit, weight }: Wanted) => weight * ((value - target) / limit) ** 2;
  return stations.reduce(
    (sum, { gap, flush }, i) =>
      sum + square(figures[i]!.gap, gap) + (flush ? square(figures[i]!.flush ?? flush.now, flush) : 0),
    0,
  );
}

/** Stations with what settings do to them. */
interface Figured {
  readonly stations: readonly Judged[];
  readonly effects: HangPlan['effects'];
}

/** Gap and flush of every station with the settings at some values, mm. */
export const figuresAt = ({ stations, effects }: Figured, values: readonly number[]): Figures[] =>
  stations.map(({ gap, flush }, i) => {
    const moved = (key: 'gap' | 'flush') =>
      values.reduce((sum, value, k) => sum + value * (effects[i]![k]![key] ?? 0), 0);
    return { gap: gap.now + moved('gap'), ...(flush ? { flush: flush.now + moved('flush') } : {}) };
  });

/** The panel's seams judged at some figures, in the order they are read. */
export function judgedAt({ stations }: HangPlan, figures: readonly Figures[]): SeamJudgement[] {
  const seams = [...new Map(stations.map(({ seam }) => [seam.id, seam])).values()];
  return seams.map((seam) => ({
    seam,
    stations: stations.flatMap((each, i): StationJudgement[] => {
      if (each.seam.id !== seam.id) return [];
      const station = { id: each.stationId, seamId: seam.id, number: each.number, name: '' };
      return (['gap', 'flush'] as const).flatMap((quantity): StationJudgement[] => {
        const [wanted, value] = [each[quantity], figures[i]![quantity]];
        if (!wanted || value === undefined) return [];
        const deviation = value - wanted.target;
        return [
          {
            ...{ station, quantity, measured: { value, sd: wanted.sd } },
            target: { value: wanted.target, limit: wanted.limit, toCome: 0, referenceId: '' },
            judged: { ...judge(deviation, wanted.sd, wanted.limit), deviation },
          },
        ];
      });
    }),
  }));
}
