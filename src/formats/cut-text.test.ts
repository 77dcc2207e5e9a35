import { describe, expect, it } from 'vitest';
import { cutLinesText, jointsText, readCutLines, readJoints, readOutline } from './cut-text';

let next = 0;
const newId = () => `id ${++next}`;

describe('cut lines as people write them', () => {
  it('have a label, an edge that stays and a distance; read back or not yet', () => {
    const { lines, faults } = readCutLines(
      'A; front edge of the A post foot; 62; 62.4\nB; swage; 2 1/2 in',
      'mm',
      { panelId: 'p', known: [] },
      newId,
    );
    expect(faults).toEqual([]);
    expect(lines).toMatchObject([
      { label: 'A', edge: 'front edge of the A post foot', distance: 62, readBack: 62.4 },
      { label: 'B', distance: 63.5, readBack: null },
    ]);
  });

  it('keep their identity by their label, and name the line that makes no sense', () => {
    const known = [
      { id: 'mine', panelId: 'p', label: 'a', edge: 'x', distance: 1, readBack: null, kerf: null, gap: null },
    ];
    const { lines } = readCutLines('A; swage; 40', 'mm', { panelId: 'p', known }, newId);
    expect(lines[0]!.id).toBe('mine');
    const { faults } = readCutLines('A; swage; far\n; ; 3\nB; x; 3\nb; y; 4', 'mm', { panelId: 'p', known }, newId);
    expect(faults.map(({ message }) => message)).toEqual([
      expect.stringMatching(/^line 1: distance/),
      expect.stringMatching(/^line 2: a label/),
      expect.stringMatching(/^line 2: from which edge/),
      'line “b” stands here twice',
    ]);
  });
});

describe('a template’s outline', () => {
  it('is a corner a line, three of them at least', () => {
    expect(readOutline('0; 0\n400; 0\n400; 120', 'mm')).toMatchObject({
      corners: [{ x: 0, y: 0 }, { x: 400 }, { y: 120 }],
      faults: [],
    });
    expect(readOutline('0; 0\n1; 1', 'mm').faults).toMatchObject([{ message: 'three corners at least' }]);
    expect(readOutline('0; wide', 'mm').faults[0]!.message).toMatch(/^line 1: up/);
  });
});

describe('joints as people write them', () => {
  const panel = { panelId: 'p', jobId: 'j', known: [] };

  it('say what lies beside, how it is joined, the sheets and the spots', () => {
    const text = 'A post foot; spot welds; 0.9; 1.2; 14\nrear wing; brazed';
    const { joints, faults } = readJoints(text, 'mm', panel, newId);
    expect(faults).toEqual([]);
    expect(joints).toMatchObject([
      { beside: 'A post foot', kind: 'spots', thicknessA: 0.9, thicknessB: 1.2, factorySpots: 14 },
      { beside: 'rear wing', kind: 'brazed', thicknessA: null, thicknessB: null, factorySpots: null },
    ]);
    const again = readJoints(
      jointsText(joints, (mm) => mm.toFixed(2)),
      'mm',
      { ...panel, known: joints },
      newId,
    );
    expect(again.joints).toEqual(joints);
  });

  it('are refused with the ways there are', () => {
    const { faults } = readJoints('sill; glued up; 0.9; 0.9; 3.5', 'mm', panel, newId);
    expect(faults.map(({ message }) => message)).toEqual([
      expect.stringMatching(/one of spot welds, plug welds, seam weld, brazed/),
      'line 1: spots: a whole number, or nothing',
    ]);
  });

  it('and lines are shown again as they were typed', () => {
    const { lines } = readCutLines('A; swage; 40; 41', 'mm', { panelId: 'p', known: [] }, newId);
    expect(cutLinesText(lines, (mm) => mm.toFixed(1))).toBe('A; swage; 40.0; 41.0');
  });
});
