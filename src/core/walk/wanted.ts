import { AXES, distance, levelDistance, type Position, type Vector } from '../maths/geometry/vector';
import type { InstrumentVersion, Reading } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { mirrorImage } from '../shell/job/mirror-image';
import { referencePosition } from '../shell/references/chosen';
import { shownOnScale } from '../round/observe/observe';
import { lengthBetween, type RoundJudgement } from '../round/judge/judgement';
import { isTargetQuantity, type Target } from './targets';

/** What is expected of a reading before it is taken, as its instrument's scale shows it, mm. */
export interface Expectation {
  readonly value: number;
  /** One standard deviation, mm: of the net, of what was read, or of how far shells are bent off chart or mirror image. */
  readonly sd: number;
  readonly from: 'net' | 'readings' | 'chart' | 'otherSide' | 'usual';
}

/** How far a length of a bent shell is off its chart, one standard deviation, mm. */
const OFF_THE_CHART = 18;
/** How far a length of a bent shell is off that of the other side, one standard deviation, mm: each is off as far. */
const OFF_THE_OTHER_SIDE = OFF_THE_CHART * Math.SQRT2;
/** How far a height is off the chart's while nothing says where the round's zero plane lies, one standard deviation, mm. */
const OFF_THE_PLANE = 80;
const GAP = { value: 5, sd: 3 } as const;
const FLUSH = { value: 0, sd: 3 } as const;

type Read = Pick<Reading, 'quantity' | 'measure' | 'pointId' | 'toPointId' | 'stationId' | 'pointerFrom' | 'pointerTo'>;

/**
 * What the net lets expect of a reading; before a point is located what was read of the same thing before, then the chart, then
 * the mirror image of a length; of a gap what is usual.
 */
export function expectationOf(
  job: Job,
  judgement: RoundJudgement | undefined,
  reading: Read,
  instrument: InstrumentVersion,
): Expectation | undefined {
  const expected = ofSubject(job, judgement, reading);
  const temperature = judgement?.round.temperature ?? null;
  return expected && { ...expected, value: shownOnScale(expected.value, reading, instrument, temperature) };
}

/** The same of what is read, whatever it is read with. */
function ofSubject(job: Job, judgement: RoundJudgement | undefined, reading: Read): Expectation | undefined {
  const { quantity, pointId, toPointId, stationId } = reading;
  if (stationId) return gapExpected(job, stationId, quantity);
  if (!pointId || quantity === 'fixture') return undefined;
  if (quantity === 'distance') {
    if (!toPointId) return undefined;
    const ends = { fromPointId: pointId, toPointId, measure: reading.measure ?? 'tip' } as const;
    const known = judgement && lengthBetween(judgement, ends);
    if (known) return known;
    const [a, b] = [pointId, toPointId].map((id) => referencePosition(job.references, id));
    if (!a || !b) return judgement && asOnTheOtherSide(job, judgement, ends);
    const value = ends.measure === 'level' ? levelDistance(a, b) : distance(a, b);
    return { value, sd: OFF_THE_CHART, from: 'chart' };
  }
  const axis = ({ length: 0, width: 1, height: 2 } as const)[quantity as 'height'];
  const located = judgement?.located.get(pointId);
  if (located)
    return {
      value: located.position[axis],
      sd: Math.sqrt(Math.max(0, located.covariance[4 * axis]!)),
      from: 'net',
    };
  const read = judgement?.measured.points.get(pointId)?.[AXES[axis]];
  if (read) return { value: read.value, sd: read.sd, from: 'readings' };
  const at = referencePosition(job.references, pointId);
  return at && { value: at[axis], sd: OFF_THE_PLANE, from: 'chart' };
}

type Ends = Parameters<typeof lengthBetween>[1];

/** The length between the mirror images of two points, where those are meant to match. */
function asOnTheOtherSide(job: Job, judgement: RoundJudgement, ends: Ends): Expectation | undefined {
  const image = mirrorImage(job, [ends.fromPointId, ends.toPointId]);
  const known = image && lengthBetween(judgement, { ...ends, fromPointId: image[0], toPointId: image[1] });
  return known && { value: known.value, sd: Math.hypot(known.sd, OFF_THE_OTHER_SIDE), from: 'otherSide' };
}

function gapExpected(job: Job, stationId: string, quantity: Reading['quantity']): Expectation | undefined {
  if (quantity !== 'gap' && quantity !== 'flush') return undefined;
  const usual = quantity === 'gap' ? GAP : FLUSH;
  const target = job.references.stations.get(`${stationId} ${quantity}`)?.row.value;
  return target === undefined ? { ...usual, from: 'usual' } : { value: target, sd: usual.sd, from: 'chart' };
}

/** The same of a target that is wanted. */
export function expectedOf(
  job: Job,
  judgement: RoundJudgement | undefined,
  target: Pick<Target, 'codes' | 'quantity' | 'measure'> | undefined,
  instrument: InstrumentVersion,
): Expectation | undefined {
  const [from, to] = target?.codes.map((code) => job.pointCalled(code)) ?? [];
  if (!target || !from) return undefined;
  const read: Read = {
    quantity: target.quantity,
    measure: target.measure ?? null,
    ...{ pointId: from.id, toPointId: to?.id ?? null, stationId: null, pointerFrom: null, pointerTo: null },
  };
  return expectationOf(job, judgement, read, instrument);
}

/** The target a reading was an answer to. */
export function targetOfReading(job: Job, reading: Reading): Target | undefined {
  const { quantity } = reading;
  if (!isTargetQuantity(quantity)) return undefined;
  const codes = [reading.pointId, reading.toPointId].flatMap((id) => job.pointOf(id)?.code ?? []);
  return {
    key: `${quantity} ${[...codes].sort().join(' ')}`,
    quantity,
    codes,
    why: 'again',
    again: false,
    ...(reading.measure ? { measure: reading.measure } : {}),
  };
}

/** Three lengths to located points round about, and a height: what ties a substitute in. */
export function tyingTargets(
  job: Job,
  newCode: string,
  beside: string,
  judgement: RoundJudgement | undefined,
): Target[] {
  const own = job.pointCalled(beside)?.id ?? '';
  const at: ReadonlyMap<string, { readonly position: Position<'round'> }> = judgement?.located ?? new Map();
  const near: Vector | undefined = at.get(own)?.position ?? referencePosition(job.references, own);
  const others = [...at]
    .filter(([id]) => id !== own)
    .map(([id, { position: place }]) => ({
      code: job.code(id),
      far: near ? Math.hypot(place[0] - near[0], place[1] - near[1], place[2] - near[2]) : 0,
      way: near ? Math.atan2(place[1] - near[1], place[0] - near[0]) : 0,
    }));
  const inReach = others.filter(({ far }) => far > 150 && far < 2500).sort((a, b) => a.far - b.far);
  const chosen: typeof inReach = [];
  for (const each of inReach)
    if (chosen.length < 3 && chosen.every((other) => Math.abs(Math.sin(each.way - other.way)) > 0.4)) chosen.push(each);
  for (const each of inReach) if (chosen.length < 3 && !chosen.includes(each)) chosen.push(each);
  return [
    ...chosen.map(({ code }): Target => ({
      key: `distance ${[newCode, code].sort().join(' ')}`,
      quantity: 'distance',
      measure: 'tip',
      codes: [code, newCode],
      why: 'length',
      again: false,
    })),
    { key: `height ${newCode}`, quantity: 'height', codes: [newCode], why: 'height', again: false },
  ];
}
