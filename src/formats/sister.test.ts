import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readSister } from './sister';

describe('a round of another shell from a file', () => {
  it('is a list of points, whatever its decimal sign', () => {
    const file = readSister(
      'id;name;side;x;y;z\nA;first;left;10,5;-400;200\nB;second;right;10;400;201\n',
      'theirs.csv',
      'mm',
    );
    if (!file.ok) throw new Error(file.faults.join());
    expect(file.positions.get('A')).toEqual([10.5, -400, 200]);
    expect(file.readings).toHaveLength(6);
    expect(file.readings[0]).toMatchObject({ quantity: 'length', codes: ['A'], value: 10.5 });
  });

  it('is a survey, adjusted, with its readings kept', () => {
    const text = readFileSync('tests/samples/mixed.survey.json', 'utf8');
    const file = readSister(text, 'theirs.json', 'mm');
    if (!file.ok) throw new Error(file.faults.join());
    const document = JSON.parse(text) as { points: unknown[]; readings: { kind: string }[] };
    expect(file.positions.size).toBe(document.points.length);
    const rises = document.readings.filter(({ kind }) => kind === 'rise').length;
    const positions = document.readings.filter(({ kind }) => kind === 'position').length;
    expect(file.readings).toHaveLength(document.readings.length - rises + 2 * positions);
    expect(file.leftOut.includes('rises')).toBe(rises > 0);
  });

  it('says what is wrong with a file that is neither', () => {
    expect(readSister('{', 'x.json', 'mm')).toMatchObject({ ok: false, faults: [expect.stringContaining('not JSON')] });
    expect(readSister('{"format":"vinkel.survey/1"}', 'x.json', 'mm').ok).toBe(false);
    expect(readSister('one,two\n1,2\n', 'x.csv', 'mm').ok).toBe(false);
    const loose = JSON.stringify({
      format: 'vinkel.survey/1',
      points: [
        { id: 'A', x: 0, y: 0, z: 0 },
        { id: 'B', x: 500, y: 0, z: 0 },
      ],
      readings: [{ id: 'r', kind: 'height', point: 'A', value: 1, sigma: 1 }],
    });
    expect(readSister(loose, 'x.json', 'mm')).toMatchObject({
      ok: false,
      faults: [expect.stringContaining('nothing of this survey is determined')],
    });
  });
});
