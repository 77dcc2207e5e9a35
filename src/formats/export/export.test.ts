import { Job } from '@/core/shell/job/job';
import DxfParser, { type ILineEntity, type ITextEntity } from 'dxf-parser';
import Papa from 'papaparse';
import { PLYLoader } from 'three/addons/loaders/PLYLoader.js';
import { describe, expect, it } from 'vitest';
import { sheetFigure } from '@/core/report/drawing/points';
import { judgeRound } from '@/core/round/judge/judge-round';
import { demoRows } from '../../../tests/support/demo-rows';
import { deviationsCsv } from './deviations-csv';
import { sheetDxf } from './dxf';
import { pointsPly } from './ply';

const rows = demoRows('solbris');
const judgement = judgeRound(Job.of(rows), rows.rounds[0]!);
const figure = sheetFigure(Job.of(rows), judgement);

describe('the drawing as DXF, read back by a standard reader', () => {
  const drawing = new DxfParser().parseSync(sheetDxf(figure, ['Solbris', 'Round 1'], 20))!;
  const on = (layer: string) => drawing.entities.filter((entity) => entity.layer === layer);

  it('has a layer each for what it shows', () => {
    expect(Object.keys(drawing.tables.layer.layers)).toEqual(
      expect.arrayContaining(['OUTLINE', 'POINTS', 'CODES', 'MOVEMENTS', 'ZERO_PLANES']),
    );
    expect(on('OUTLINE')).toHaveLength(3 * figure.lines.length);
    expect(on('POINTS').length + on('CONTROL').length).toBe(3 * figure.points.length);
  });

  it('is true to scale and says its unit', () => {
    expect(drawing.header.$INSUNITS).toBe(4);
    const [from, to] = figure.lines[0]!;
    const side = on('OUTLINE')[figure.lines.length] as ILineEntity;
    const [a, b] = [side.vertices[0]!, side.vertices[1]!];
    expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(Math.hypot(to[0] - from[0], to[2] - from[2]), 6);
  });

  it('writes the factor of the movements on the drawing', () => {
    expect(
      on('TITLE')
        .map((entity) => (entity as ITextEntity).text)
        .join('\n'),
    ).toContain('20 times as large');
    const moved = figure.points.filter(({ movement }) => movement);
    expect(on('MOVEMENTS')).toHaveLength(3 * moved.length);
  });
});

describe('points in space as PLY, read back by a standard reader', () => {
  it('has every point where its reference is, and the outline as edges', () => {
    const text = pointsPly(figure);
    const at = new PLYLoader().parse(text).getAttribute('position');
    expect(at.count).toBe(figure.points.length);
    figure.points.forEach(({ position }, i) => {
      expect([at.getX(i), at.getY(i), at.getZ(i)]).toEqual(position.map((value) => expect.closeTo(value, 2)));
    });
    expect(text).toContain(`element edge ${figure.lines.length}`);
  });
});

describe('points with deviations as CSV', () => {
  it('has a row a point, with the figures of the sheet', () => {
    const { data } = Papa.parse<Record<string, string>>(deviationsCsv(rows, judgement), {
      header: true,
      skipEmptyLines: true,
    });
    expect(data).toHaveLength(rows.points.length);
    const corner = data.find(({ point }) => point === 'R4L')!;
    const judged = judgement.points.find(({ point }) => point.code === 'R4L')!.judged!;
    expect(Number(corner.dx)).toBeCloseTo(judged.deviation.by[0], 3);
    expect(corner.verdict).toBe('outside');
    expect(corner.reference).toBe('Maker’s dimension chart');
  });
});
