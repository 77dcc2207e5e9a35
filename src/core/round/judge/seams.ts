import type { Seam, SeamStation } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { stationKey } from '../../shell/references/chosen';
import { judge, type Judgement } from '../../maths/statistics/verdict';
import type { RoundJudgement } from './judgement';

export interface StationJudgement {
  readonly station: SeamStation;
  readonly quantity: 'gap' | 'flush';
  readonly measured?: { readonly value: number; readonly sd: number };
  readonly target?: {
    readonly value: number;
    readonly limit: number;
    readonly referenceId: string;
  };
  readonly judged?: Judgement & { readonly deviation: number };
}

export interface SeamJudgement {
  readonly seam: Seam;
  readonly stations: readonly StationJudgement[];
  /** Widest minus narrowest gap along the seam, mm, where at least two are read. */
  readonly taper?: number;
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
        const target = chosen && {
          value: chosen.row.value,
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
    const gaps = stations.flatMap((each) => (each.quantity === 'gap' && each.measured ? [each.measured.value] : []));
    return {
      seam,
      stations,
      ...(gaps.length > 1 ? { taper: Math.max(...gaps) - Math.min(...gaps) } : {}),
    };
  });
}

export interface SeamPair {
  readonly pairing: string;
  readonly left?: SeamJudgement;
  readonly right?: SeamJudgement;
  readonly centre?: SeamJudgement;
}

/** Seams set left beside right; a seam with no other side stands alone. */
export function pairSeams(seams: readonly SeamJudgement[]): SeamPair[] {
  const pairs = new Map<string, SeamPair>();
  for (const judged of seams) {
    const key = judged.seam.pairing || judged.seam.code;
    pairs.set(key, { ...pairs.get(key), pairing: key, [judged.seam.side]: judged });
  }
  return [...pairs.values()];
}
