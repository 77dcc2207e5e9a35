import { SIDES_DIFFER } from '../../maths/symmetry/centre-plane';
import type { RoundJudgement } from '../../round/judge/judgement';
import type { SeamStation } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { stationKey } from '../../shell/references/chosen';
import { sisterMean, sisterSpread } from './sister-cars';

/** What a new reference will say of a gap or a flush, mm. */
export interface GapFigure {
  readonly stationId: string;
  readonly quantity: 'gap' | 'flush';
  readonly value: number;
  readonly sd: number;
}

type Measured = Pick<RoundJudgement, 'measured'>;

/** Gaps and flush as a round read them: what this car had, good or not. */
export const measuredGaps = ({ measured }: Measured): GapFigure[] =>
  measured.gaps.map(({ stationId, quantity, value, sd }) => ({ stationId, quantity, value, sd }));

/** The good side's, on both sides: a seam and its other side have the same stations by their numbers. */
export function mirroredGaps(job: Job, judgement: Measured, good: 'left' | 'right'): GapFigure[] {
  const read = new Map(
    measuredGaps(judgement).map((figure) => [stationKey(figure.stationId, figure.quantity), figure]),
  );
  return job.seams.flatMap((seam) => {
    if (seam.side !== good) return [];
    const other = job.seams.find(
      ({ id, side, pairing }) => id !== seam.id && pairing !== '' && pairing === seam.pairing && side !== 'centre',
    );
    const across = new Map((other ? job.stations(other) : []).map((station) => [station.number, station]));
    return job.stations(seam).flatMap((station) =>
      (['gap', 'flush'] as const).flatMap((quantity): GapFigure[] => {
        const figure = read.get(stationKey(station.id, quantity));
        if (!figure) return [];
        const image: SeamStation | undefined = across.get(station.number);
        return [
          figure,
          ...(image ? [{ ...figure, stationId: image.id, sd: Math.hypot(figure.sd, SIDES_DIFFER) }] : []),
        ];
      }),
    );
  });
}

/** The mean of sister cars, with how far production let their gaps scatter. */
export function sisterGaps(cars: readonly Measured[]): GapFigure[] {
  const read = cars.flatMap(measuredGaps);
  const keys = [...new Map(read.map((each) => [stationKey(each.stationId, each.quantity), each])).values()];
  const figures = keys.map(({ stationId, quantity }) => ({
    values: read.filter((each) => each.stationId === stationId && each.quantity === quantity),
  }));
  const spread = sisterSpread(figures);
  return keys.map(({ stationId, quantity }, i) => ({ stationId, quantity, ...sisterMean(figures[i]!, spread) }));
}
