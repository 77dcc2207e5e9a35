import { describe, expect, it } from 'vitest';
import type { Fault } from '@/formats/faults';
import { readStretches } from './seam-form';

const typed = (text: string) => {
  const faults: Fault[] = [];
  const made = readStretches(text, 's', Number, faults);
  return { made, said: faults[0]?.message };
};

describe('stretches of a seam, typed', () => {
  it('are what is different with where, a corner a place alone', () => {
    expect(typed('corner 130, Double 250 330; void 300 320').made).toMatchObject([
      { seamId: 's', what: 'corner', starts: 130, ends: 130 },
      { what: 'double', starts: 250, ends: 330 },
      { what: 'void', starts: 300, ends: 320 },
    ]);
    expect(typed('').made).toEqual([]);
  });

  it('are refused at what makes no sense', () => {
    expect(typed('130').said).toMatch(/follows nothing/);
    expect(typed('rust 1 2').said).toMatch(/no “rust”: say corner, double/);
    expect(typed('corner').said).toBe('corner wants one figure');
    expect(typed('lead 10').said).toBe('lead wants where it begins and ends');
  });
});
