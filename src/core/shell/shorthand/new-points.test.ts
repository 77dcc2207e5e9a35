import { describe, expect, it } from 'vitest';
import type { Subjects } from './line';
import { newPointId, readWithNew, sideOfCode, type LineWithNew } from './new-points';

const nothing: Subjects = { points: [], stations: [], pairs: [] };
const some: Subjects = { ...nothing, points: [{ id: 'a', code: 'FL', side: 'left' }] };

const madeBy = (line: LineWithNew) => (line.ok ? (line.made ?? []) : []);

describe('a line that names points which are not there yet', () => {
  it('makes both, their sides guessed from their codes, each the other’s mirror image', () => {
    const line = readWithNew('fl fr 1230', nothing, 'mm');
    expect(line).toMatchObject({
      ok: true,
      readings: [{ quantity: 'distance', value: 1230, pointId: newPointId('FL'), toPointId: newPointId('FR') }],
      made: [
        { code: 'FL', side: 'left' },
        { code: 'FR', side: 'right' },
      ],
    });
    expect(madeBy(line).some(({ mirror }) => mirror)).toBe(false);
  });

  it('makes only the one that is new, and offers its mirror image', () => {
    expect(readWithNew('FL RR 2600', some, 'mm')).toMatchObject({
      readings: [{ pointId: 'a', toPointId: newPointId('RR') }],
      made: [{ code: 'RR', side: 'right', mirror: 'RL' }],
    });
  });

  it('takes a letter with a number and a side for a code, also where the letter could say what is read', () => {
    for (const [text, second] of [
      ['F1L F1R 800', 'F1R'],
      ['A1 H2R 900', 'H2R'],
      ['A1 G10L 900', 'G10L'],
    ] as const)
      expect(madeBy(readWithNew(text, nothing, 'mm'))[1]).toMatchObject({ code: second });
    expect(madeBy(readWithNew('A1 h215mm', nothing, 'mm'))).toEqual([{ code: 'A1', side: 'centre' }]);
  });

  it.each([
    ['A1 h 215', 'height'],
    ['A1 h215', 'height'],
    ['A1 120 -410 215', 'length'],
  ])('takes %s for a reading of one new point', (text, quantity) => {
    const line = readWithNew(text, nothing, 'mm');
    expect(line.ok && line.readings[0]).toMatchObject({ quantity, pointId: newPointId('A1') });
    expect(madeBy(line)).toEqual([{ code: 'A1', side: 'centre' }]);
  });

  it('reads dashes, arrows and commas between two codes', () => {
    for (const text of ['FL-FR 1230', 'FL to FR 1230', 'FL, FR 1230', 'FL,FR,1230', 'fl ,fr, 1230'])
      expect(madeBy(readWithNew(text, nothing, 'mm')).map(({ code }) => code)).toEqual(['FL', 'FR']);
  });

  it('makes nothing of a line that is understood, and refuses what is no reading either way', () => {
    expect(madeBy(readWithNew('FL h 215', some, 'mm'))).toEqual([]);
    expect(readWithNew('FL FR', nothing, 'mm')).toEqual({ ok: false, reason: 'FL to FR: the length is missing' });
    expect(readWithNew('1230', nothing, 'mm').ok).toBe(false);
  });

  it.each([
    ['FL', 'left'],
    ['S2R', 'right'],
    ['L1', 'left'],
    ['R12', 'right'],
    ['TUNNEL', 'centre'],
    ['M1', 'centre'],
  ])('guesses the side of %s', (code, side) => {
    expect(sideOfCode(code)).toBe(side);
  });
});
