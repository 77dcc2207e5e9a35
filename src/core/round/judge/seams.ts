import { grouped } from '../../maths/grouped';
import type { Seam, SeamStation } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { stationKey } from '../../shell/references/chosen';
import { COVERAGE, judge, type Judgement } from '../../maths/statistics/verdict';
import { seamLine, sidesDiffer, type LineFigure, type ReadStation, type SeamLine } from './seam-line';
import type { RoundJudgement } from './judgement';

export interface StationJudgement {
  readonly station: SeamStation;
  readonly quantity: 'gap' | 'flush';
  readonly measured?: { readonly value: number; readonly sd: number };
  readonly target?: {
    readonly value: number;
    readonly limit: number;
    readonly referenceId: string;
    /** What is not fitted yet and will add so much to it, mm; what is wanted now leaves room for it. */
    readonly toCome: number;
  };
  readonly judged?: Judgement & { readonly deviation: number };
}

export interface SeamJudgement {
  readonly seam: Seam;
  readonly stations: readonly StationJudgement[];
  /** Its gap, and its flush, as a whole; absent where no station is judged. */
  readonly gap?: SeamLine;
  readonly flush?: SeamLine;
}

/** Gap and flush of every seam at its stations, against their targets. */
export function judgeSeams(job: Job, judgement: Pick<RoundJudgement, 'measured' | 'references'>): SeamJudgement[] {
  const measured = new Map(judgement.measured.gaps.map((gap) => [stationKey(gap.stationId, gap.quantity), gap]));
  return job.seams.map((seam) => {
    const stations = job.stations(seam).flatMap((station) =>
      (['gap', 'flush'] as const).map((quantity): StationJudgement => {
        const key = stationKey(station.id, quantity);
        const value = measured.get(key);
        const chosen = judgement.references.stations.get(key);
        const toCome = stillToCome(job, seam, quantity);
        const target = chosen && {
          value: chosen.row.value - toCome,
          toCome,
          limit: chosen.row.tolerance,
          referenceId: chosen.reference.id,
        };
        if (!value || !target) return { station, quantity, measured: value, target };
        const deviation = value.value - target.value;
        const sd = Math.hypot(value.sd, chosen.sd);
        return {
          station,
          quantity,
          measured: value,
          target,
          judged: { ...judge(deviation, sd, target.limit), deviation },
        };
      }),
    );
    const [gap, flush] = (['gap', 'flush'] as const).map((quantity) =>
      seamLine([...readStations(stations, quantity).values()]),
    );
    return { seam, stations, ...(gap ? { gap } : {}), ...(flush ? { flush } : {}) };
  });
}

/** What is not fitted yet adds to a seam's gap or flush once it is there, mm: paint, seals, what hangs on a door. */
const stillToCome = (job: Job, seam: Seam, quantity: StationJudgement['quantity']): number =>
  job.rows.allowances.reduce(
    (sum, each) => sum + (!each.fitted && (each.seamId ?? seam.id) === seam.id ? each[quantity] : 0),
    0,
  );

/** The stations of a seam that are judged, by their numbers; they stand evenly along it. */
function readStations(
  stations: readonly StationJudgement[],
  quantity: StationJudgement['quantity'],
): ReadonlyMap<number, ReadStation> {
  return new Map(
    stations.flatMap(({ station: { number }, quantity: of, judged, target }) =>
      of === quantity && judged && target
        ? [
            [
              number,
              { along: number, deviation: judged.deviation, sd: judged.plusMinus / COVERAGE, limit: target.limit },
            ],
          ]
        : [],
    ),
  );
}

export interface SeamPair {
  readonly pairing: string;
  readonly left?: SeamJudgement;
  readonly right?: SeamJudgement;
  readonly centre?: SeamJudgement;
  /** How much wider the left is than the right, by what both are off their targets, mm. */
  readonly differ?: LineFigure;
}

/** Seams set left beside right; a seam with no other side stands alone. */
export function pairSeams(seams: readonly SeamJudgement[]): SeamPair[] {
  const pairs = new Map<string, SeamPair>();
  for (const judged of seams) {
    const key = judged.seam.pairing || judged.seam.code;
    pairs.set(key, { ...pairs.get(key), pairing: key, [judged.seam.side]: judged });
  }
  return [...pairs.values()].map((pair) => {
    const [left, right] = [pair.left, pair.right].map((side) => readStations(side?.stations ?? [], 'gap'));
    const differ = sidesDiffer(left!, right!);
    return differ ? { ...pair, differ } : pair;
  });
}

/** Where the ends of two seams or more meet: three panels at one place. */
export interface Meeting {
  readonly pointId: string;
  /** The seams whose ends meet, with what the gap is off its target there, mm. */
  readonly ends: readonly { readonly code: string; readonly deviation: number }[];
  /** How much further the widest is off than the narrowest. */
  readonly spread: LineFigure;
}

/** The places where seams meet by the points they lie between; each end is its seam's outermost station that was read. */
export function seamMeetings(seams: readonly SeamJudgement[]): Meeting[] {
  const ends = seams.flatMap(({ seam, stations }) => {
    const read = [...readStations(stations, 'gap').values()];
    if (read.length === 0) return [];
    const own = [[seam.fromPointId, read[0]!] as const, [seam.toPointId, read.at(-1)!] as const];
    return own.flatMap(([pointId, station]) => (pointId === null ? [] : [{ pointId, code: seam.code, ...station }]));
  });
  return [...grouped(ends, ({ pointId }) => pointId)].flatMap(([pointId, meeting]): Meeting[] => {
    if (meeting.length < 2) return [];
    const sorted = meeting.toSorted((a, b) => b.deviation - a.deviation);
    const [wide, narrow] = [sorted[0]!, sorted.at(-1)!];
    const limit = Math.min(...meeting.map((each) => each.limit));
    const [value, sd] = [wide.deviation - narrow.deviation, Math.hypot(wide.sd, narrow.sd)];
    return [
      {
        pointId,
        ends: sorted.map(({ code, deviation }) => ({ code, deviation })),
        spread: { ...judge(value, sd, limit), value, sd, limit },
      },
    ];
  });
}
