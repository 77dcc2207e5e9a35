import { Job } from '../../shell/job/job';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { judgeRound } from '../../round/judge/judge-round';
import { passFilter, type SheetFilter } from './sheet-filter';
import { stationsOf } from './stations';

const rows = demoRows('solbris');
const judgement = judgeRound(Job.of(rows), rows.rounds[0]!);
const passing = (filter: SheetFilter) => {
  const { points, dimensions } = passFilter(judgement, filter);
  return {
    points: rows.points.filter(({ id }) => points.has(id)).map(({ code }) => code),
    dimensions: rows.dimensions.filter(({ id }) => dimensions.has(id)).map(({ code }) => code),
  };
};

describe('what the sheet shows', () => {
  it('is everything where nothing is asked', () => {
    const all = passing({});
    expect([all.points.length, all.dimensions.length]).toEqual([rows.points.length, rows.dimensions.length]);
  });

  it('is one side, and every dimension that touches it', () => {
    const { points, dimensions } = passing({ side: 'left' });
    expect(points.every((code) => code.endsWith('L'))).toBe(true);
    // Across the shell from left to right: one end is enough.
    expect(dimensions).toContain('FW2');
    const right = passing({ side: 'right' }).dimensions;
    expect(right.filter((code) => !dimensions.includes(code)).length).toBeGreaterThan(0);
  });

  it('is one section by the chart’s stations', () => {
    const parts = (['front', 'centre', 'rear'] as const).map((section) => passing({ section }).points);
    expect(parts.flat().sort()).toEqual(rows.points.map(({ code }) => code).sort());
    expect(parts[0]).toContain('F1L');
    expect(parts[2]).toContain('R4L');
  });

  it('is what has one verdict, or none', () => {
    const outside = passing({ verdict: 'outside' }).points;
    expect(outside).toEqual(expect.arrayContaining(['R4L', 'B1L']));
    expect(outside).not.toContain('F1L');
    expect(passing({ verdict: 'notJudged' }).points).toEqual(expect.arrayContaining(['R2L', 'R2R', 'C2L', 'K5']));
    const counts = (['inside', 'outside', 'undecided', 'notJudged'] as const).map(
      (verdict) => passing({ verdict }).points.length,
    );
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(rows.points.length);
  });

  it('is what passes all of what is asked', () => {
    const both = passing({ verdict: 'outside', side: 'left', section: 'rear' }).points;
    expect(both).toContain('R4L');
    expect(both).not.toContain('B1L');
    expect(both).not.toContain('R4R');
  });
});

describe('the stations drawn', () => {
  it('are where the sections begin, and where the pattern hinges', () => {
    const plain = stationsOf(judgement, undefined);
    expect(plain.map(({ label }) => label)).toEqual(['centre section', 'rear section']);
    expect(plain[0]!.x).toBeLessThan(plain[1]!.x);
    const hinged = stationsOf(judgement, { sections: [{ section: 'rear', hinge: { hinge: 2133 } }] });
    expect(hinged.at(-1)).toEqual({ x: 2133, label: 'rear hinge', strong: true });
  });

  it('are none where no reference says where anything is', () => {
    const references = { ...judgement.references, points: new Map() };
    expect(stationsOf({ references }, undefined)).toEqual([]);
  });
});
