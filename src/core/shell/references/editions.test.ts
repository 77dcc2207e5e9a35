import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { JobRows } from '../job/job-rows';
import { seeded } from '../../maths/random/seeded';
import { chartOf, chooseReferences } from './chosen';
import { editionDifference, editionsOf, isSealed, nextEdition } from './editions';

const lodd = demoRows('lodd');
const chart = chartOf(lodd)!;
const at = '2026-12-01T08:00:00.000Z';

/** The job after an edit made the next edition of its chart. */
function edited(): { rows: JobRows; first: typeof chart; second: typeof chart } {
  const made = nextEdition(lodd, chart, at, seeded(3).uuid);
  const second = made.rows.references[0]!;
  const moved = made.rows.referencePoints.map((row, i) => (i === 0 ? { ...row, z: row.z + 4 } : row));
  const first = { ...chart, inUse: false };
  return {
    first,
    second,
    rows: {
      ...lodd,
      references: [...lodd.references.filter(({ id }) => id !== chart.id), first, second],
      referencePoints: [...lodd.referencePoints, ...moved],
      referenceDimensions: [...lodd.referenceDimensions, ...made.rows.referenceDimensions.slice(1)],
      referenceStations: [...lodd.referenceStations, ...made.rows.referenceStations],
    },
  };
}

describe('editions of a chart', () => {
  it('are made once a closed round or a signed record rests on the one in use', () => {
    expect(isSealed(chart, lodd)).toBe(true);
    expect(isSealed({ createdAt: at }, lodd)).toBe(false);
    const open = { ...lodd, rounds: lodd.rounds.map((round) => ({ ...round, closedAt: null })), signedRecords: [] };
    expect(isSealed(chart, open)).toBe(false);
  });

  it('carry every figure over under new identities', () => {
    const { rows, copyOf } = nextEdition(lodd, chart, at, seeded(3).uuid);
    const own = lodd.referencePoints.filter(({ referenceId }) => referenceId === chart.id);
    expect(rows.references[0]).toMatchObject({ edition: 2, editionOf: chart.id, inUse: true });
    expect(rows.referencePoints).toHaveLength(own.length);
    expect(rows.referencePoints.find(({ id }) => id === copyOf.get(own[0]!.id))).toMatchObject({
      pointId: own[0]!.pointId,
      x: own[0]!.x,
      version: 1,
    });
    expect(new Set(rows.referencePoints.map(({ id }) => id)).size).toBe(own.length);
  });

  it('are judged by one at a time, and the job can go back', () => {
    const { rows, first, second } = edited();
    const [changed] = lodd.referencePoints.filter(({ referenceId }) => referenceId === chart.id);
    expect(chooseReferences(rows).points.get(changed!.pointId)!.row.z).toBe(changed!.z + 4);
    const back = {
      ...rows,
      references: rows.references.map((each) =>
        each.id === first.id ? { ...each, inUse: true } : each.id === second.id ? { ...each, inUse: false } : each,
      ),
    };
    expect(chooseReferences(back).points.get(changed!.pointId)!.row.z).toBe(changed!.z);
  });

  it('are listed in their order with what differs', () => {
    const { rows, first, second } = edited();
    expect(editionsOf(rows, second).map(({ edition }) => edition)).toEqual([1, 2]);
    expect(editionDifference(rows, first, second)).toEqual({ changed: 1, added: 0, removed: 1 });
  });
});
