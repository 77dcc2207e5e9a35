import type { SeamJudgement } from '../../round/judge/seams';
import type { BodyPacker } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { asItIs, costOf, inFewest } from './fewest-settings';
import { wantedOf } from './hang';
import type { Figures, SeatStation } from './seat';
import { rangeOf, shimSums } from './shim-sums';

/** A packer and the pack that is best there, mm. */
export interface PackedAt {
  readonly packer: BodyPacker;
  readonly advised: number;
  /** No trial of it was read. */
  readonly untried: boolean;
}

/** What packing does to a seam's gap: the one furthest off its target, mm, as it is and as advised. */
export interface PackedSeam {
  readonly code: string;
  readonly limit: number;
  readonly before: number;
  readonly after: number;
  /** No trial was read at it: it is shown as it is. */
  readonly untried: boolean;
}

export interface PackPlan {
  readonly packers: readonly PackedAt[];
  readonly seams: readonly PackedSeam[];
  /** Sum of squares over limits, weighed by how much is seen. */
  readonly cost: { readonly before: number; readonly after: number };
  readonly proven: boolean;
}

/**
 * The packs under a body on a frame of its own that bring all gaps of the shell nearest to what is wanted with every hinge left
 * as it is: what one more millimetre under each place does is what a trial showed there, straight and summed. As few packs are
 * changed as do.
 *
 * @returns undefined where no packer is named or nothing is judged
 */
export function packBody(job: Job, seams: readonly SeamJudgement[]): PackPlan | undefined {
  const packers = job.rows.bodyPackers;
  const judged = seams.flatMap((seam) => judgedStations(seam).map((of) => ({ ...of, seam })));
  if (packers.length === 0 || judged.length === 0) return undefined;
  const effects = judged.map(({ id }) => packers.map((packer) => effectOf(job, packer, id)));
  const sums = shimSums(job.rows.shims);
  const stations = judged.map(({ station }) => station);
  const settings = packers.map(({ least, most, step, inNow }) => ({
    ...rangeOf({ from: least - inNow, to: most - inNow, step }, sums),
    effects: [],
  }));
  const best = inFewest(
    stations,
    settings,
    effects,
    stations.map(() => -Infinity),
  );
  const tried = (id: string) => job.rows.packerEffects.some(({ stationId }) => stationId === id);
  return {
    packers: packers.map((packer, i) => ({
      packer,
      advised: packer.inNow + best.values[i]!,
      untried: !job.rows.packerEffects.some(({ packerId }) => packerId === packer.id),
    })),
    seams: seams.flatMap((seam) => {
      const own = judged.flatMap((each, i) => (each.seam === seam ? [{ ...each, i }] : []));
      if (own.length === 0) return [];
      const worst = (figures: readonly Figures[]) =>
        own
          .map(({ station, i }) => figures[i]!.gap - station.gap.target)
          .reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most), 0);
      return [
        {
          code: seam.seam.code,
          limit: own[0]!.station.gap.limit,
          before: worst(stations.map(asItIs)),
          after: worst(best.after),
          untried: !own.some(({ id }) => tried(id)),
        },
      ];
    }),
    cost: { before: costOf(stations, stations.map(asItIs)), after: best.cost },
    proven: best.proven,
  };
}

/** The stations of a seam whose gap is judged; a place and a way across are not needed where only trials tell. */
function judgedStations({ seam, stations }: SeamJudgement): { readonly id: string; readonly station: SeatStation }[] {
  return stations.flatMap((each) => {
    const gap = each.quantity === 'gap' && wantedOf(seam, each);
    if (!gap) return [];
    const flush = wantedOf(
      seam,
      stations.find(({ quantity, station }) => quantity === 'flush' && station.id === each.station.id),
    );
    return [
      { id: each.station.id, station: { at: [0, 0, 0], across: [0, 0, 0], gap, ...(flush ? { flush } : {}) } as const },
    ];
  });
}

function effectOf(job: Job, { id }: BodyPacker, station: string): Figures {
  const row = job.rows.packerEffects.find(({ packerId, stationId }) => packerId === id && stationId === station);
  return { gap: row?.gap ?? 0, flush: row?.flush ?? 0 };
}
