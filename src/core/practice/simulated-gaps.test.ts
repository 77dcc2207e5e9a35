import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { seeded } from '../maths/random/seeded';
import { hangPanel } from '../plan/panels/hang';
import type { SeamJudgement } from '../round/judge/seams';
import { Job } from '../shell/job/job';
import { stationKey } from '../shell/references/chosen';
import { simulateGap } from './simulated-gaps';

const job = Job.of(demoRows('solbris'));
const panel = job.hungPanels.find(({ code }) => code === 'DR')!;

describe('simulated gaps', () => {
  it('are those of a rigid panel that hangs off: what no setting can take away is nothing', () => {
    const seams = job.seams.map((seam): SeamJudgement => ({
      seam,
      stations: job.stations(seam).flatMap((station) => {
        const read = simulateGap(job, station.id, 0, seeded(1))!;
        return (['gap', 'flush'] as const).flatMap((quantity) => {
          const row = job.references.stations.get(stationKey(station.id, quantity))?.row;
          if (!row) return [];
          const target = { value: row.value, limit: row.tolerance, referenceId: '', toCome: 0 };
          return [{ station, quantity, measured: { value: read[quantity], sd: 0.1 }, target }];
        });
      }),
    }));
    const hung = hangPanel(job, panel, seams);
    if (!hung.ok) throw new Error(hung.kind);
    expect(hung.plan.cost.before).toBeGreaterThan(1);
    // Rounded to a tenth, as an instrument shows it.
    expect(hung.plan.cost.free).toBeLessThan(0.1);
  });

  it('are read with the noise of the instrument, and of the same car every time', () => {
    const station = job.stations(job.seams[0]!)[0]!.id;
    const random = seeded(7);
    const many = Array.from({ length: 400 }, () => simulateGap(job, station, 0.25, random)!.gap);
    const mean = many.reduce((sum, each) => sum + each, 0) / many.length;
    const exact = simulateGap(job, station, 0, random)!.gap;
    expect(Math.abs(mean - exact)).toBeLessThan(0.1);
    const sd = Math.sqrt(many.reduce((sum, each) => sum + (each - mean) ** 2, 0) / many.length);
    expect(sd).toBeGreaterThan(0.2);
    expect(sd).toBeLessThan(0.3);
    expect(simulateGap(job, 'nowhere', 0, random)).toBeUndefined();
  });
});
