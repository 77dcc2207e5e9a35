import { grouped } from '../../maths/grouped';
import type { Job } from '../../shell/job/job';
import type { InstrumentVersion, PointCondition, Pull, Reading, Round } from '../../shell/job/entities';
import { spreadOf } from '../../shell/instruments';
import { tipDistance, type SharedBias } from '../../survey/survey';
import { conditionsOf } from './conditions';
import { correctedValue } from './corrections';

/**
 * What a reading says once its instrument, the day and the points it was taken at are known: the one law by which the
 * net, the means outside the net and the pulls understand a reading.
 */
export interface Observed {
  readonly reading: Reading;
  /** What it measures: `subjectKey`, made once, since thousands of readings are looked up by it again and again. */
  readonly subject: string;
  /** As its instrument's scale shows it, corrected, mm. */
  readonly value: number;
  /** Pointer lengths of a tram gauge at its two ends, mm. */
  readonly pointers?: readonly [number, number];
  /** What it says of its subject, mm: of a bar with pointers of unequal length the distance between their tips. */
  readonly amount: number;
  /** One standard deviation that this reading has to itself, wear of its points included, mm. */
  readonly sigma: number;
  /** What repeats of one subject with one instrument have in common. */
  readonly bias?: SharedBias;
}

/** Share of the variance of one reading that its repeats with the same instrument have in common. */
export const SHARED_WITH_REPEATS = 0.5;
/** Of its standard deviation what it has to itself. */
const OWN_SHARE = Math.sqrt(1 - SHARED_WITH_REPEATS);

/** Spread a doubtful point adds to every reading at it, over and above the instrument's, mm. */
const DOUBTFUL_SD: Readonly<Partial<Record<PointCondition['kind'], number>>> = {
  worn: 0.87,
  oval: 0.87,
  rusty: 1.5,
  rebuilt: 2,
};

/** Two readings with one key measure the same thing; a distance is the same from either end. */
export function subjectKey(reading: Reading): string {
  const { quantity, measure, stationId, pointId, toPointId } = reading;
  const [one, other] = [pointId ?? '', toPointId ?? ''];
  const ends = one < other ? `${one}|${other}` : `${other}|${one}`;
  return `${quantity}|${measure ?? ''}|${stationId ?? ''}|${ends}`;
}

/** The standing readings of a round, each observed; repeats with one instrument share a bias. */
export function observeRound(job: Job, round: Pick<Round, 'id' | 'temperature'>): Observed[] {
  const doubtful = doubtfulPoints(job, round);
  const sdOf = (reading: Reading) =>
    Math.sqrt(spreadOf(job.version(reading.instrumentVersionId), reading.value) ** 2 + wearOf(reading, doubtful));
  const observed: Observed[] = [];
  for (const [subject, readings] of grouped(job.standingReadings(round), subjectKey)) {
    const instruments =
      readings.length > 1 ? grouped(readings, (each) => each.instrumentVersionId).values() : [readings];
    for (const bundle of instruments)
      for (const reading of bundle) {
        const sd = sdOf(reading);
        const alone = bundle.length === 1;
        const each = scaled(job, reading, round.temperature, subject, alone ? sd : sd * OWN_SHARE);
        observed.push(alone ? each : { ...each, bias: sharedBy(bundle, sd) });
      }
  }
  return observed;
}

const sharedBy = (bundle: readonly Reading[], sd: number): SharedBias => ({
  group: bundle[0]!.id,
  sigma: sd * Math.sqrt(SHARED_WITH_REPEATS),
});

/** The readings of a pull, each by itself: under load and released nothing is a repeat of anything. */
export function observePull(job: Job, pull: Pick<Pull, 'id'>): Observed[] {
  return job.pullReadings(pull).map((reading) => {
    const sigma = spreadOf(job.version(reading.instrumentVersionId), reading.value);
    return scaled(job, reading, job.round(reading.roundId)?.temperature ?? null, subjectKey(reading), sigma);
  });
}

function scaled(job: Job, reading: Reading, temperature: number | null, subject: string, sigma: number): Observed {
  const value = correctedValue(reading, job.version(reading.instrumentVersionId), temperature);
  const { pointerFrom, pointerTo } = reading;
  if (reading.quantity !== 'distance' || pointerFrom === null || pointerTo === null)
    return { reading, subject, value, amount: value, sigma };
  const pointers = [pointerFrom, pointerTo] as const;
  return { reading, subject, value, pointers, amount: tipDistance(value, pointers), sigma };
}

/**
 * What an instrument's scale shows where there is so much of what it reads: the same law the other way round. A bar with pointers
 * of unequal length shows less than the distance between their tips.
 *
 * @param amount mm
 */
export function shownOnScale(
  amount: number,
  { quantity, pointerFrom, pointerTo }: Pick<Reading, 'quantity' | 'pointerFrom' | 'pointerTo'>,
  instrument: InstrumentVersion,
  temperature: number | null,
): number {
  const apart = quantity === 'distance' ? (pointerFrom ?? 0) - (pointerTo ?? 0) : 0;
  const value = apart === 0 ? amount : Math.sqrt(Math.max(0, amount ** 2 - apart ** 2));
  return 2 * value - correctedValue({ value, quantity }, instrument, temperature);
}

const wearOf = ({ pointId, toPointId }: Reading, doubtful: ReadonlyMap<string, number>): number =>
  [pointId, toPointId].reduce((sum, id) => sum + (doubtful.get(id ?? '') ?? 0), 0);

/** Points marked worn, oval, rusty or rebuilt in this round, with the variance that adds to their readings, mm². */
function doubtfulPoints(job: Job, round: Pick<Round, 'id'>): Map<string, number> {
  return new Map(
    [...conditionsOf(job, round)].flatMap(([id, kind]) =>
      DOUBTFUL_SD[kind] ? [[id, DOUBTFUL_SD[kind] ** 2] as const] : [],
    ),
  );
}
