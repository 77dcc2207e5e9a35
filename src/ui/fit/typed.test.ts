import { describe, expect, it } from 'vitest';
import type { Fault } from '@/formats/faults';
import { readPanelSeams } from './panel-form';
import { readEffects, type StationRows } from './settings';
import { readShims } from './shims';

const seams = ['DFL', 'DBL'].map((code) => ({ id: code.toLowerCase(), code, name: '' }));
const DOOR = { id: 'door', kind: 'door', side: 'left' } as const;
const length = (text: string) => Number(text.replace(',', '.'));

/** What a reader makes of a text, and what it finds wrong. */
function reading<T>(read: (faults: Fault[]) => T): { made: T; said: string } {
  const faults: Fault[] = [];
  const made = read(faults);
  return { made, said: faults.map(({ message }) => message).join('; ') };
}

describe('the seams of a panel, typed', () => {
  const typed = (text: string) => reading((faults) => readPanelSeams(text, DOOR, seams, faults));

  it('are codes with the edge each runs along, turned where it is', () => {
    expect(typed('dfl front, DBL rear turned').made).toEqual([
      { hungId: 'door', seamId: 'dfl', edge: 'front', turned: false },
      { hungId: 'door', seamId: 'dbl', edge: 'rear', turned: true },
    ]);
    expect(typed('').made).toEqual([]);
  });

  it('are refused with what would be accepted', () => {
    expect(typed('DXL front').said).toBe('no seam “DXL”: the seams are DFL, DBL');
    expect(typed('DFL').said).toBe('say which edge DFL runs along: front, rear, bottom, top');
    expect(typed('DFL left').said).toBe('a door has no left edge: front, rear, bottom, top');
    expect(typed('DFL front DFL rear').said).toMatch(/named twice/);
  });
});

describe('shims, typed', () => {
  const typed = (text: string) => reading((faults) => readShims(text, 'job', length, faults));

  it('are so many of each, four where nobody says', () => {
    expect(typed('2 × 0.5, 0.8').made).toMatchObject([
      { pieces: 2, thickness: 0.5 },
      { pieces: 4, thickness: 0.8 },
    ]);
    expect(typed('0').said).toMatch(/is no shim: say how many and how thick/);
  });
});

describe('what a trial did, typed', () => {
  const rows = {
    seams: seams.map((seam) => ({ ...seam })),
    seamStations: [1, 2].map((number) => ({ id: `dfl ${number}`, seamId: 'dfl', number, name: '' })),
  } as unknown as StationRows;
  const typed = (text: string) => reading((faults) => readEffects(text, rows, length, faults));

  it('is stations, each with its gap and its flush', () => {
    expect(typed('DFL.1 0.5, dfl.2 -0.4 0.1').made).toEqual([
      { stationId: 'dfl 1', gap: 0.5, flush: 0 },
      { stationId: 'dfl 2', gap: -0.4, flush: 0.1 },
    ]);
  });

  it('is refused at what makes no sense', () => {
    expect(typed('0.5').said).toMatch(/follows no station/);
    expect(typed('DFL.9 0.5').said).toBe('no station “DFL.9”');
    expect(typed('DFL.1').said).toBe('DFL.1 has no figure');
    expect(typed('DFL.1 1 2 3').said).toMatch(/“3” follows no station/);
  });
});
