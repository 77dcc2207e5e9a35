import { describe, expect, it } from 'vitest';
import { NEW_PANEL } from '@/core/shell/job/entities';
import { demoRows } from '../../../tests/support/demo-rows';
import { add, norm, subtract, type Vector } from '../maths/geometry/vector';
import { turned } from '../maths/rigid/turn';
import { seeded } from '../maths/random/seeded';
import type { Reading, Round } from '../shell/job/entities';
import { Job } from '../shell/job/job';
import type { JobRows } from '../shell/job/job-rows';
import { supportTie } from './support-tie';
import { twoThings } from './two-things';

const job = demoRows('solbris');
const first = job.rounds[0]!;
const second: Round = { ...job.rounds[1]! };
const idOf = (code: string) => job.points.find((point) => point.code === code)!.id;
const chart = new Map(job.referencePoints.map(({ pointId, x, y, z }) => [pointId, [x, y, z] as Vector]));
const PLATFORM = ['F1L', 'F1R', 'S1L', 'S1R', 'R1L', 'R1R'];
const BODY = ['F2L', 'F2R', 'S3L', 'S3R', 'R2L', 'R2R'];
const template = job.readings.find(({ quantity, roundId }) => quantity === 'distance' && roundId === first.id)!;

/** Every length among some places and their heights, read in a round. */
function read(round: Round, places: ReadonlyMap<string, Vector>, seed: number): Reading[] {
  const random = seeded(seed);
  const reading = (some: Partial<Reading>): Reading => ({
    ...{ ...template, roundId: round.id, id: random.uuid(), lineId: random.uuid() },
    ...some,
  });
  const codes = [...places.keys()];
  const single = { measure: null, toPointId: null } as const;
  return [
    ...codes.flatMap((a, i) =>
      codes.slice(i + 1).map((b) =>
        reading({
          ...{ quantity: 'distance', measure: 'tip', pointId: idOf(a), toPointId: idOf(b) },
          value: norm(subtract(places.get(b)!, places.get(a)!)) + 0.2 * random.normal(),
        }),
      ),
    ),
    ...codes.map((code) =>
      reading({
        ...single,
        quantity: 'height',
        pointId: idOf(code),
        value: places.get(code)![2] + 0.2 * random.normal(),
      }),
    ),
  ];
}

const at = (codes: readonly string[], move: (at: Vector) => Vector = (same) => same) =>
  new Map(codes.map((code) => [code, move(chart.get(idOf(code))!)]));
const meets = PLATFORM.map((code, i) => ({ jobId: job.jobs[0]!.id, pointId: idOf(code), meetsId: idOf(BODY[i]!) }));
/** The chart has each hole of the body where the platform's is. */
const referencePoints = job.referencePoints.map((row) => {
  const i = BODY.findIndex((code) => idOf(code) === row.pointId);
  const [x, y, z] = i < 0 ? [row.x, row.y, row.z] : chart.get(idOf(PLATFORM[i]!))!;
  return { ...row, x, y, z };
});
const rowsWith = (readings: readonly Reading[]): JobRows => ({
  ...job,
  referencePoints,
  ...{ readings, platformPoints: meets, readingStrikes: [], readingKeeps: [], pointConditions: [] },
});

describe('a body on a platform', () => {
  it('read together is off at each shared hole by what lies between the two', () => {
    const offset: Vector = [3, -2, 5];
    const body = new Map(BODY.map((code, i) => [code, add(chart.get(idOf(PLATFORM[i]!))!, offset)]));
    const found = twoThings(Job.of(rowsWith(read(first, new Map([...at(PLATFORM), ...body]), 4))))!;
    expect(found.together).toBe(true);
    for (const { by, sd } of found.meetings) {
      by.forEach((mm, k) => expect(Math.abs(mm - offset[k]!)).toBeLessThan(4 * sd[k]! + 0.3));
      expect(Math.max(...sd)).toBeLessThan(2);
    }
    expect(found.placed.platform).toBeDefined();
  });

  it('read apart is laid on its holes first, so that only what no position removes is left', () => {
    const moved = (place: Vector) => add(turned(place, [0.004, -0.006, 0.02]), [120, -40, 300]);
    const places = new Map(BODY.map((code, i) => [code, moved(chart.get(idOf(PLATFORM[i]!))!)]));
    // One shoulder of the body is bent out by 8 mm.
    places.set('R2R', add(places.get('R2R')!, [0, 8, 0]));
    const found = twoThings(Job.of(rowsWith([...read(first, at(PLATFORM), 5), ...read(second, places, 6)])))!;
    expect(found.together).toBe(false);
    const worst = found.meetings.reduce((a, b) => (norm(b.by) > norm(a.by) ? b : a));
    expect(worst.bodyId).toBe(idOf('R2R'));
    expect(norm(worst.by)).toBeGreaterThan(3);
    expect(norm(worst.by)).toBeLessThan(8);
  });

  it('is one thing where nobody said otherwise', () => {
    expect(twoThings(Job.of({ ...rowsWith([]), platformPoints: [] }))).toBeUndefined();
  });
});

describe('a support that stands on metal to be cut', () => {
  const setUp = { id: 'set-up' };
  const mountOn = (code: string) => ({
    ...demoRows('solbris').mounts[0]!,
    id: code,
    setUpId: setUp.id,
    pointId: idOf(code),
  });
  const panel = { id: 'panel', jobId: job.jobs[0]!.id, part: 'Left sill', side: 'left' as const, ...NEW_PANEL };
  const going = { panels: [panel], panelPoints: [{ panelId: panel.id, pointId: idOf('S1L'), fate: 'goes' as const }] };
  const all = read(first, at(PLATFORM), 7);

  it('is asked for a round on old and new support together, until there is one', () => {
    const few = { ...rowsWith(all), ...going, mounts: ['S1L', 'F1L', 'F1R'].map(mountOn) };
    expect(supportTie(Job.of(few), setUp)).toEqual({
      going: [{ pointId: idOf('S1L'), part: 'Left sill' }],
      staying: 2,
    });
    const enough = { ...few, mounts: ['S1L', 'F1L', 'F1R', 'R1L'].map(mountOn) };
    expect(supportTie(Job.of(enough), setUp)).toMatchObject({ staying: 3, tiedBy: first.name });
    const unread = {
      ...enough,
      readings: all.filter(({ pointId, toPointId }) => ![pointId, toPointId].includes(idOf('R1L'))),
    };
    expect(supportTie(Job.of(unread), setUp)).not.toHaveProperty('tiedBy');
    expect(supportTie(Job.of({ ...enough, panels: [], panelPoints: [] }), setUp)).toBeUndefined();
  });
});
