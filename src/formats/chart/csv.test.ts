import { describe, expect, it } from 'vitest';
import type { KnownCodes } from '@/core/shell/chart/draft';
import { demoRows } from '../../../tests/support/demo-rows';
import { readChartCsv, readSide } from './csv';
import { chartDocumentOf, readChartJson } from './document';
import { CHART_TEMPLATES, matchHeaders } from './headers';

const none: KnownCodes = new Set();
const read = (text: string, unit: 'mm' | 'in' = 'mm', taken = none) =>
  readChartCsv([{ name: 'chart.csv', text }], { unit, driverSide: 'left' }, taken);
const faults = (text: string) => read(text).rows.flatMap((row) => row.faults);

describe('a chart of points from CSV', () => {
  it('takes commas, semicolons and tabs, points and commas, and headers of other people', () => {
    const wanted = { code: 'F1L', side: 'left', x: 0, y: -410.5, z: 215 };
    for (const text of [
      'id,side,x,y,z,tolerance\nF1L,left,0,-410.5,215,3\n',
      'Point;Side;Length (mm);Width (mm);Height (mm);Limit\nF1L;L;0;-410,5;215;3\n',
      'code\thand\tlengthwise\toffset\th\ttol\nF1L\tleft\t0\t-410,5\t215\t3\n',
    ]) {
      const { draft, rows } = read(text);
      expect(rows.flatMap((row) => row.faults)).toEqual([]);
      expect(draft.points[0]).toMatchObject(wanted);
    }
  });

  it('reads inches and fractions', () => {
    const { draft } = read('id,side,x,y,z\nF1R,right,0,16 1/8,8.5"\n', 'in');
    expect(draft.points[0]).toMatchObject({ y: expect.closeTo(409.575, 6), z: expect.closeTo(215.9, 6) });
  });

  it.each([
    ['a missing number', 'id,side,x,y,z\nF1L,left,,−410,215\n'],
    ['a named point that is charted too', 'id,side,x,y,z\nF1L,left,0,-410,215\nF1L,,,,\n'],
    ['a number that is none', 'id,side,x,y,z\nF1L,left,0,-410,high\n'],
    ['a left point on the right', 'id,side,x,y,z\nF1L,left,0,410,215\n'],
    ['a repeated id', 'id,side,x,y,z\nF1L,left,0,-410,215\nF1L,left,0,-410,215\n'],
  ])('puts %s at its row', (_, text) => {
    expect(faults(text).length).toBeGreaterThan(0);
    expect(read(text).rows.find((row) => row.faults.length > 0)!.line).toBeGreaterThan(1);
  });

  it('takes points without coordinates as named, their sides by word or by code', () => {
    for (const text of ['id,name,side,x,y,z\nFL,Leg,,,,\nT1,Tunnel,centre,,,\n', 'id,name\nFL,Leg\nT1,Tunnel\n']) {
      const { draft, rows, faults: whole } = read(text);
      expect([whole, rows.flatMap((row) => row.faults)]).toEqual([[], []]);
      expect(draft.points).toEqual([]);
      expect(draft.named).toMatchObject([
        { code: 'FL', side: 'left' },
        { code: 'T1', side: 'centre' },
      ]);
    }
  });

  it('may speak again of a point the job has, and end a dimension there', () => {
    const here = new Set(['f1l']);
    expect(read('id,side,x,y,z\nF1L,left,0,-410,215\n', 'mm', here).rows[0]!.faults).toEqual([]);
    const twice = read('id,side,x,y,z\nF1L,left,0,-410,215\nf1l,left,0,-410,215\n', 'mm', here);
    expect(twice.rows.flatMap((row) => row.faults)).toEqual(['"f1l" stands here twice']);
  });

  it('reads its own templates without a fault', () => {
    const preview = readChartCsv(
      [
        { name: 'points.csv', text: CHART_TEMPLATES.points },
        { name: 'dimensions.csv', text: CHART_TEMPLATES.dimensions },
      ],
      { unit: 'mm', driverSide: 'left' },
      none,
    );
    expect(preview.rows.flatMap((row) => row.faults)).toEqual([]);
    expect(preview.draft.points).toHaveLength(2);
    expect(preview.draft.dimensions[0]).toMatchObject({ from: 'F1L', to: 'F1R', measure: 'tip' });
  });

  it('names the unknown point of a dimension', () => {
    expect(faults('from,to,value\nF1L,S9L,900\n').join()).toContain('S9L');
  });
});

describe('sides as people write them', () => {
  it.each([
    ['L', 'left', 'left'],
    ['right', 'left', 'right'],
    ['nearside', 'right', 'left'],
    ['offside', 'right', 'right'],
    ['nearside', 'left', 'right'],
    ["driver's", 'left', 'left'],
    ['passenger', 'left', 'right'],
    ['centre', 'left', 'centre'],
    ['center', 'left', 'centre'],
  ] as const)('%s with the driver on the %s is %s', (text, driver, side) => {
    expect(readSide(text, 0, driver)).toBe(side);
  });

  it('follow the sign of the width where nothing is written', () => {
    expect([-1, 0, 1].map((y) => readSide('', y, 'left'))).toEqual(['left', 'centre', 'right']);
  });
});

describe('headers', () => {
  it('are matched without case, units and punctuation, each once', () => {
    const found = matchHeaders(['Ref.', 'X [mm]', 'Y_mm', 'z', 'Tol', 'X']);
    expect(Object.fromEntries(found)).toEqual({ code: 0, x: 1, y: 2, z: 3, tolerance: 4 });
  });
});

describe('a chart as a document', () => {
  it('comes back as it went out', () => {
    const rows = demoRows('solbris');
    const document = chartDocumentOf(rows);
    const preview = readChartJson(JSON.stringify(document), none);
    expect(preview.faults).toEqual([]);
    expect(preview.draft.points).toHaveLength(rows.points.length);
    expect(preview.draft.dimensions).toHaveLength(rows.dimensions.length);
  });

  it('says where it is not one', () => {
    expect(readChartJson('{', none).faults[0]).toMatch(/line 1/);
    expect(readChartJson('{"format":"vinkel.chart/1","points":[{"code":1}]}', none).faults.join()).toContain(
      'points[0]',
    );
  });
});
