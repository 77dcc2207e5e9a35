import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { seeded } from '../../maths/random/seeded';
import type { SeamJudgement } from '../../round/judge/seams';
import { NEW_HUNG, NEW_SEAM, type CalledPanel, type PanelEdge, type PanelSetting } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { costOf } from './fewest-settings';
import { hangPanel } from './hang';
import { placeOnEdge } from './panel-frame';
import { settingsFor } from './setting-templates';
import { shimSums } from './shim-sums';

const rows = demoRows('kvist');
const jobId = rows.jobs[0]!.id;
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const DOOR: CalledPanel = {
  ...{ id: uuid(1), jobId, kind: 'door', side: 'left', long: 1000, high: 900, hungAt: 'front', version: 1 },
  ...NEW_HUNG,
  ...{ code: 'DL', name: 'left door' },
};
const SHIMS = [0.5, 0.8, 1.5].map((thickness, i) => ({ id: uuid(20 + i), jobId, thickness, pieces: 4 }));
const EDGES: readonly PanelEdge[] = ['front', 'rear', 'top', 'bottom'];
const WHERE = [0, 0.5, 1];

/** What every setting stands at before anything is advised, and so what is read. */
function door(off: readonly number[], { noise = (): number => 0, settings = settingsFor(DOOR), shims = SHIMS } = {}) {
  const panelSettings = settings.map((each, i): PanelSetting => ({ ...each, id: uuid(40 + i), hungId: DOOR.id }));
  const seams = EDGES.map((edge, i) => ({
    ...{ id: uuid(60 + i), jobId, code: edge, name: edge, side: 'left' as const, pairing: '', version: 1 },
    ...NEW_SEAM,
  }));
  const made: JobRows = {
    ...rows,
    ...{ panelSettings, shims },
    panelSeams: EDGES.map((edge, i) => ({ hungId: DOOR.id, seamId: uuid(60 + i), edge, turned: false })),
  };
  const judged = seams.map((seam, s): SeamJudgement => {
    const stations = WHERE.flatMap((share, i) => {
      const { x, y, normal } = placeOnEdge(DOOR, EDGES[s]!, share)!;
      const station = { id: uuid(100 + 10 * s + i), seamId: seam.id, number: i + 1, name: '' };
      const read = (quantity: 'gap' | 'flush', value: number) => ({
        ...{ station, quantity, measured: { value: value + noise(), sd: 0.25 } },
        target: { value: quantity === 'gap' ? 5 : 0, limit: 1, toCome: 0, referenceId: '' },
      });
      const [dx, dy, out] = moved(x, y, off);
      return [read('gap', 5 - normal[0] * dx - normal[1] * dy), read('flush', out)];
    });
    return { seam, stations };
  });
  return { job: Job.of(made), judged };
}

/** How a place of the door stands when its hinges and striker are off by so much: by hand, from the two hinges and the striker. */
function moved(x: number, y: number, [up, upper, lower, outUpper, outLower, striker]: readonly number[]) {
  const turn = (upper! - lower!) / 540;
  const along = (upper! + lower!) / 2 + turn * y;
  const high = up! - turn * (x + 500);
  const tilt = (outUpper! - outLower!) / 540;
  const atHinges = (outUpper! + outLower!) / 2;
  const swing = (striker! - atHinges) / 1000;
  return [along, high, atHinges + tilt * y + swing * (x + 500)] as const;
}

const planOf = (of: ReturnType<typeof door>) => {
  const result = hangPanel(of.job, DOOR, of.judged);
  if (!result.ok) throw new Error(result.kind);
  return result.plan;
};

describe('hanging a door', () => {
  it('finds what hinges and striker were put out by, and takes it back', () => {
    const { settings, cost, free } = planOf(door([-1, 1.5, -0.5, 0.8, -1.3, 2]));
    expect(settings.map(({ advised }) => Number(advised.toFixed(6)))).toEqual([1, -1.5, 0.5, -0.8, 1.3, -2]);
    expect(cost.after).toBeLessThan(1e-9);
    free.forEach(({ gap }) => expect(gap).toBeCloseTo(5, 6));
  });

  it('leaves alone what gains next to nothing', () => {
    const random = seeded(5);
    const { settings, cost } = planOf(door([-2, 0, 0, 0, 0, 0], { noise: () => 0.15 * random.normal() }));
    expect(settings.filter(({ advised }) => advised !== 0).map(({ name }) => name)).toEqual(['Both hinges']);
    expect(cost.after).toBeLessThan(cost.before / 5);
  });

  it('packs by the shims on the shelf alone, as well as every choice of them', () => {
    const random = seeded(3);
    const sums = shimSums(SHIMS).filter((sum) => Math.abs(sum) <= 3);
    // Both hinges and the striker can be packed; nothing else can be set.
    const settings = settingsFor(DOOR).map((each) =>
      each.way === 'out'
        ? { ...each, kind: 'shims' as const, step: null, least: -3, most: 3 }
        : { ...each, kind: 'hold' as const },
    );
    for (let n = 0; n < 6; n++) {
      const off = [0, 0, 0, 4 * random.next() - 2, 4 * random.next() - 2, 4 * random.next() - 2];
      const of = door(off, { noise: () => 0.2 * random.normal(), settings });
      const plan = planOf(of);
      const at = (values: readonly number[]) =>
        costOf(
          plan.stations,
          plan.stations.map(({ gap, flush }, i) => {
            const by = (key: 'gap' | 'flush') =>
              values.reduce((sum, v, k) => sum + v * (plan.effects[i]![k]![key] ?? 0), 0);
            return { gap: gap.now + by('gap'), flush: flush!.now + by('flush') };
          }),
        );
      let least = Infinity;
      for (const a of sums) for (const b of sums) for (const c of sums) least = Math.min(least, at([a, b, c]));
      // What gains next to nothing is left alone.
      expect(plan.cost.after).toBeLessThanOrEqual(least + 0.2 + 1e-9);
      plan.settings.forEach(({ advised }) => expect(sums.some((sum) => Math.abs(sum - advised) < 1e-9)).toBe(true));
    }
  });

  it('packs to any figure while nobody said which shims there are', () => {
    const { settings, cost } = planOf(door([0, 0, 0, 0.7, 1.9, 0], { shims: [] }));
    expect(settings.map(({ advised }) => advised)[4]).toBeCloseTo(-1.9, 1);
    expect(cost.after).toBeLessThan(0.2);
  });

  it('keeps the least gap at the hinges, whatever the rear gap would like', () => {
    const of = door([0, -1.5, -1.5, 0, 0, 0]);
    const wide = of.judged.map((judged) => ({
      ...judged,
      stations: judged.stations.map((each) =>
        judged.seam.code === 'rear' && each.quantity === 'gap' ? { ...each, measured: { value: 1, sd: 0.25 } } : each,
      ),
    }));
    const result = hangPanel(of.job, DOOR, wide);
    if (!result.ok) throw new Error(result.kind);
    const { stations, after } = result.plan;
    stations.forEach(({ seam }, i) => {
      if (seam.code === 'front') expect(after[i]!.gap).toBeGreaterThanOrEqual(2.45);
    });
  });

  it('says what is missing', () => {
    const of = door([0, 0, 0, 0, 0, 0], { settings: settingsFor(DOOR).slice(1) });
    expect(hangPanel(of.job, DOOR, of.judged)).toMatchObject({ ok: false, kind: 'conditions', conditions: 5 });
    const none = door([0, 0, 0, 0, 0, 0], { settings: [] });
    expect(hangPanel(none.job, DOOR, none.judged)).toMatchObject({ ok: false, kind: 'noSettings' });
    expect(hangPanel(none.job, DOOR, [])).toMatchObject({ ok: false, kind: 'noSeams' });
    const unread = of.judged.map((each) => ({
      ...each,
      stations: each.stations.map(({ measured: _, ...rest }) => rest),
    }));
    expect(hangPanel(of.job, DOOR, unread)).toMatchObject({ ok: false, kind: 'unread', seams: EDGES });
  });
});
