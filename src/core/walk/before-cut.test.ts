import { describe, expect, it } from 'vitest';
import { NEW_PANEL } from '@/core/shell/job/entities';
import { demoRows } from '../../../tests/support/demo-rows';
import { judgeRound } from '../round/judge/judge-round';
import { Job } from '../shell/job/job';
import type { JobRows } from '../shell/job/job-rows';
import { lossesBeforeCut } from './before-cut';

const solbris = demoRows('solbris');
const round = solbris.rounds[0]!;
const idOf = (code: string) => solbris.points.find((point) => point.code === code)!.id;
const panel = { id: 'panel', jobId: solbris.jobs[0]!.id, part: 'Left sill', side: 'left' as const, ...NEW_PANEL };
const cutting = (codes: readonly string[], rows: JobRows = solbris): JobRows => ({
  ...rows,
  panels: [panel],
  panelPoints: codes.map((code) => ({ panelId: panel.id, pointId: idOf(code), fate: 'goes' as const })),
});
/** Judged with all readings; what counts as recorded is what is left of them. */
function losses(rows: JobRows, recorded: JobRows['readings'] = rows.readings) {
  const judgement = judgeRound(Job.of(rows), round);
  const [loss] = lossesBeforeCut(Job.of({ ...rows, readings: recorded }), judgement);
  return loss!;
}
const without = (code: string) =>
  solbris.readings.filter(({ pointId, toPointId }) => pointId !== idOf(code) && toPointId !== idOf(code));

describe('what dies with a panel', () => {
  it('are its points and every dimension that loses an end', () => {
    const { dimensionIds, points } = losses(cutting(['S1L']));
    expect(points.map(({ pointId }) => pointId)).toEqual([idOf('S1L')]);
    const touching = solbris.dimensions.filter(({ fromPointId, toPointId }) =>
      [fromPointId, toPointId].includes(idOf('S1L')),
    );
    expect(dimensionIds).toEqual(touching.map(({ id }) => id));
    expect(touching.length).toBeGreaterThan(0);
  });

  it('is asked for before the cut: enough readings to find its place again, and none that is not needed', () => {
    const rows = cutting(['S1L']);
    const [point] = losses(rows, without('S1L')).points;
    expect(point).toMatchObject({ outcome: 'readings' });
    expect(point!.now).toBeUndefined();
    expect(point!.then).toBeLessThanOrEqual(point!.limit);
    expect(point!.take.length).toBeGreaterThanOrEqual(3);
    // Recorded, each of them but one, the place is not known well enough.
    const record = (skip?: number) =>
      point!.take.flatMap(({ quantity, otherId }, i) =>
        i === skip
          ? []
          : [
              {
                ...solbris.readings.find((each) => each.quantity === quantity && each.roundId === round.id)!,
                ...{ id: `taken ${i}`, pointId: idOf('S1L'), toPointId: otherId ?? null },
              },
            ],
      );
    expect(losses(rows, [...without('S1L'), ...record()]).points[0]).toMatchObject({ outcome: 'recorded', take: [] });
    for (let skip = 0; skip < point!.take.length; skip++)
      expect(losses(rows, [...without('S1L'), ...record(skip)]).points[0]!.outcome).not.toBe('recorded');
  });

  it('is found from points that stay alone: those that go with it carry nothing over', () => {
    const all = solbris.points.map(({ code }) => code);
    const [point] = losses(cutting(all.filter((code) => !['R1L', 'R1R'].includes(code))), without('S1L')).points;
    expect(point!.outcome).toBe('notEnough');
  });

  it('must be located before anything can be said of it', () => {
    const rows = { ...cutting(['S1L']), readings: without('S1L') };
    expect(losses(rows).points[0]).toMatchObject({ outcome: 'notLocated', take: [] });
  });
});
