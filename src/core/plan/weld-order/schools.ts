import type { Joint, WeldSeam } from '../../shell/job/entities';
import { add, norm, subtract, type Vector } from '../../maths/geometry/vector';
import { onceForSame } from '../../maths/once';
import { conductionOf, riseAt, seenFrom, type HeatSource, type Sheet } from '../../structure/heat';
import { arcOf, type WeldLayout } from './layout';
import { laidIn, weldOrder, type LaidPlug, type WeldTask } from './order';

type School = WeldSeam['school'];

/** Where a seam lies: along a line from its first end, chart axes or any other, mm. */
export type PlaceOn = (along: number) => Vector;

/** Places laid in an order, with when each is begun. */
export interface WeldPlan {
  readonly school: School;
  /** Places by their order in the layout. */
  readonly order: readonly LaidPlug[];
  /** s */
  readonly finished: number;
  /** Of it nothing was done but wait, s; and how often. */
  readonly waited: number;
  readonly waits: number;
  /** The place that is still warmest a minute after the last, K. */
  readonly hottest?: { readonly place: number; readonly rise: number };
  /** Laid in turn with another seam: the number of each place in the count over both. */
  readonly numbers?: readonly number[];
}

/** Car sheet: W/(m·K), kg/m³, J/(kg·K), W/(m²·K) from each face. */
export const STEEL_HEAT = { conductivity: 50, density: 7850, heat: 490, loss: 15 } as const;
/** No warmer than this beside a plug that is begun, K: a hand can stay on it. */
export const WARM = 60;
/** s */
const MOVING = 2;
/** mm */
const NEAR = 85;
/** Up to so many places the order is searched for; beyond, by skips. */
const SEARCHED = 8;
/** With more places heat from further off than this is left out (each adds less than a degree there), and moments told to a tenth. */
const EXACTLY = 60;
const ROUGH = { reach: 300, moment: 0.1 } as const;
/** s */
const AFTER = 60;
/** Those of the seams of a few jobs. */
const PLANS_KEPT = 200;
/** Places stepped back over at once. */
const BLOCK = 3;

/** The schools a process goes by, the one it usually goes by first. With TIG and gas a seam is made in one go, every stop shrinks. */
export function schoolsOf({ process }: Pick<WeldSeam, 'process'>): readonly School[] {
  return process === 'tig' || process === 'gas' ? ['oneEnd', 'backStep'] : ['coolest', 'centre', 'backStep', 'inTurn'];
}

const sheetOf = ({ thicknessA, thicknessB }: Pick<Joint, 'thicknessA' | 'thicknessB'>): Sheet => ({
  ...STEEL_HEAT,
  thickness: Math.min(thicknessA ?? thicknessB ?? 1, thicknessB ?? thicknessA ?? 1),
});

/** A seam as the search for an order takes it. What is made in one go does not wait. */
export function weldTask(
  seam: WeldSeam,
  joint: Pick<Joint, 'thicknessA' | 'thicknessB'>,
  { places }: Pick<WeldLayout, 'places'>,
  at: PlaceOn = (along) => [along, 0, 0],
): WeldTask {
  const sheet = sheetOf(joint);
  const inOneGo = seam.process === 'tig' || seam.process === 'gas';
  return {
    sheet,
    plugs: places.map((place) => ({ at: at(place.along), ...arcOf(seam, place, sheet.thickness) })),
    ...{ moving: MOVING, most: inOneGo ? 1e9 : WARM, near: NEAR, hold: [] },
    ...(places.length > EXACTLY ? { rough: ROUGH } : {}),
  };
}

/** The places of a seam in the order of a school, shrinking towards its free end, with the waits that keep heat apart. */
export const weldBy = onceForSame(
  PLANS_KEPT,
  (school: School, task: WeldTask, freeEnd: WeldSeam['freeEnd']): WeldPlan => {
    const n = task.plugs.length;
    const order = school === 'coolest' ? coolest(task) : ordered(school, n, freeEnd);
    return planOf(school, task, laidIn(task, order));
  },
);

function planOf(school: School, task: WeldTask, laid: ReturnType<typeof laidIn>): WeldPlan {
  const waits = laid.order.flatMap(({ begun }, i) => {
    const ready = i === 0 ? 0 : endOf(task, laid.order[i - 1]!) + task.moving;
    return begun - ready > 0.5 ? [begun - ready] : [];
  });
  const rises = heatAt(task, laid.order, laid.finished + AFTER);
  const place = rises.indexOf(Math.max(...rises));
  return {
    ...{ school, order: laid.order, finished: laid.finished },
    ...{ waited: waits.reduce((sum, each) => sum + each, 0), waits: waits.length },
    ...(place < 0 ? {} : { hottest: { place, rise: rises[place]! } }),
  };
}

/** Further apart than heat goes, mm. */
const ELSEWHERE = 1e5;

/**
 * Two seams laid in turn, a place of one and a place of the other, each by its own way from the middle outwards: neither side draws
 * the metal over before the other holds against it. Where nobody knows where both lie, no heat goes from one to the other.
 *
 * @returns the plan of each; their times and numbers run over both
 */
export function inTurnWith(
  [a, b]: readonly [WeldTask, WeldTask],
  [freeA, freeB]: readonly [WeldSeam['freeEnd'], WeldSeam['freeEnd']],
  placed: boolean,
): readonly [WeldPlan, WeldPlan] {
  const away = placed ? b.plugs : b.plugs.map((plug) => ({ ...plug, at: add(plug.at, [0, ELSEWHERE, 0]) }));
  const both: WeldTask = {
    ...a,
    sheet: a.sheet.thickness <= b.sheet.thickness ? a.sheet : b.sheet,
    plugs: [...a.plugs, ...away],
    ...(a.plugs.length + b.plugs.length > EXACTLY ? { rough: ROUGH } : {}),
  };
  const n = a.plugs.length;
  const [mine, other] = [ordered('centre', n, freeA), ordered('centre', b.plugs.length, freeB).map((i) => n + i)];
  const turns = Array.from({ length: Math.max(mine.length, other.length) }, (_, i) => [mine[i], other[i]]).flat();
  const laid = laidIn(
    both,
    turns.filter((plug) => plug !== undefined),
  );
  const plan = planOf('inTurn', both, laid);
  const of = (from: number, to: number): WeldPlan => {
    const own = laid.order.flatMap((each, i) =>
      each.plug >= from && each.plug < to ? [{ ...each, number: i + 1 }] : [],
    );
    const { hottest, ...rest } = plan;
    return {
      ...rest,
      order: own.map(({ number: _, plug, ...each }) => ({ ...each, plug: plug - from })),
      numbers: own.map(({ number }) => number),
      ...(hottest && hottest.place >= from && hottest.place < to
        ? { hottest: { ...hottest, place: hottest.place - from } }
        : {}),
    };
  };
  return [of(0, n), of(n, turns.length)];
}

const endOf = (task: WeldTask, { plug, begun }: LaidPlug): number => begun + task.plugs[plug]!.seconds;

/** How warm every place is at a moment over its surroundings, K. */
export function heatAt(task: WeldTask, order: readonly LaidPlug[], now: number): number[] {
  const conduction = conductionOf(task.sheet);
  const sources: HeatSource[] = order.map((laid) => ({
    at: task.plugs[laid.plug]!.at,
    energy: task.plugs[laid.plug]!.energy,
    since: endOf(task, laid),
  }));
  return task.plugs.map(({ at }) => riseAt(conduction, seenFrom(at, sources), now));
}

function ordered(school: Exclude<School, 'coolest'>, n: number, freeEnd: WeldSeam['freeEnd']): number[] {
  const all = Array.from({ length: n }, (_, i) => i);
  // From the end that is held to the one that may move.
  const along = freeEnd === 'first' ? all.toReversed() : all;
  switch (school) {
    case 'oneEnd':
      return along;
    case 'centre':
      return skipped(freeEnd === 'both' || freeEnd === 'none' ? outwards(n) : along, 2);
    case 'backStep':
      return Array.from({ length: Math.ceil(n / BLOCK) }, (_, b) =>
        along.slice(BLOCK * b, BLOCK * (b + 1)).toReversed(),
      ).flat();
    case 'inTurn': {
      const half = Math.ceil(n / 2);
      return all.slice(0, half).flatMap((i) => (half + i < n ? [along[i]!, along[half + i]!] : [along[i]!]));
    }
  }
}

/** From the middle outwards, one side and the other in turn. */
function outwards(n: number): number[] {
  const middle = Math.floor((n - 1) / 2);
  return Array.from({ length: n }, (_, i) => middle + (i % 2 === 0 ? -i / 2 : (i + 1) / 2)).filter(
    (i) => i >= 0 && i < n,
  );
}

/** Every so manieth place first, then those that were skipped. */
function skipped(order: readonly number[], stride: number): number[] {
  const firsts = [...new Set(order.map((place) => place % stride))];
  return firsts.flatMap((first) => order.filter((place) => place % stride === first));
}

/** The order that finishes earliest: searched for where there are few, else the best of skips. */
function coolest(task: WeldTask): readonly number[] {
  const n = task.plugs.length;
  if (n <= SEARCHED) {
    const found = weldOrder(task);
    if (found.ok) return found.order.map(({ plug }) => plug);
  }
  // Wide enough that no place is near the one before it, and wider.
  const pitch = n > 1 ? norm(subtract(task.plugs[1]!.at, task.plugs[0]!.at)) : task.near;
  const clear = Math.floor(task.near / Math.max(1, pitch)) + 1;
  const strides = [...new Set([clear, clear + 1, 2 * clear, Math.ceil(n / 3)])].filter((stride) => stride > 1);
  const tried = [outwards(n), outwards(n).toSorted((a, b) => a - b)].flatMap((base) =>
    strides.filter((stride) => stride < n).map((stride) => skipped(base, stride)),
  );
  const soonest = task.plugs.reduce((sum, { seconds }) => sum + seconds + task.moving, -task.moving);
  let best: { readonly order: readonly number[]; readonly finished: number } | undefined;
  for (const order of tried) {
    const { finished } = laidIn(task, order);
    if (!best || finished < best.finished) best = { order, finished };
    // Without a wait nothing is earlier.
    if (finished <= soonest + 1e-6) break;
  }
  return best?.order ?? outwards(n);
}
