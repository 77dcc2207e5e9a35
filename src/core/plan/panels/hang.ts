import type { Vector } from '../../maths/geometry/vector';
import { judge } from '../../maths/statistics/verdict';
import { SIGHT_WEIGHT } from '../../round/judge/sight';
import type { SeamJudgement, StationJudgement } from '../../round/judge/seams';
import type { CalledPanel, PanelSetting, Seam } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { frameOf, inSpace, placeOnEdge, shareOf, wayOf, type EdgePlace, type PanelFrame } from './panel-frame';
import { asItIs, costOf, inFewest } from './fewest-settings';
import { seatEffects, type Figures, type SeatSetting, type SeatStation, type Wanted } from './seat';
import { rangeOf, shimSums } from './shim-sums';

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
  const judged = seamsAlong(job, panel, seams);
  if (judged.length === 0) return { ok: false, kind: 'noSeams' };
  const stations = stationsAlong(job, panel, seams);
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

function seamsAlong(job: Job, panel: CalledPanel, seams: readonly SeamJudgement[]) {
  return job.rows.panelSeams.flatMap((of) => {
    const seam = of.hungId === panel.id && seams.find((each) => each.seam.id === of.seamId);
    return seam ? [{ of, seam }] : [];
  });
}

/** The stations along a panel's edges at which something is read and wanted. */
export const stationsAlong = (job: Job, panel: CalledPanel, seams: readonly SeamJudgement[]): HangStation[] =>
  seamsAlong(job, panel, seams).flatMap(({ of, seam }) => hangStations(panel, of, seam));

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

/** What is read and wanted at a station; undefined where either is missing. */
export function wantedOf(
  seam: Seam,
  { measured, target }: Partial<StationJudgement> = {},
): HangStation['gap'] | undefined {
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
  const range = rangeOf({ from: least, to: most, step }, kind === 'shims' ? sums : []);
  if (way) return { ...range, at: inSpace(frame, x, y), along: wayOf(frame, way) };
  const effects = job.rows.settingEffects.flatMap(({ settingId, stationId, gap, flush }) => {
    const station = stations.findIndex((each) => each.stationId === stationId);
    return settingId === id && station >= 0 ? [{ station, gap, flush }] : [];
  });
  return { ...range, effects };
}

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
