import { describe, expect, it } from 'vitest';
import { formatLength } from '@/core/maths/units/length';
import { readShelf, shelfLine, shelfText } from './shelf-text';

const ids = () => {
  let last = 0;
  return () => `00000000-0000-4000-8000-${String(++last).padStart(12, '0')}`;
};
const version = '00000000-0000-4000-8000-999999999999';
const inches = (mm: number) => formatLength(mm, { unit: 'in', denominator: 16 });
const read = (text: string) => readShelf(text, 'mm', version, ids()).items;

describe('a shelf as it is written down', () => {
  it('is read as it is shown', () => {
    const items = read('T80; tower; 80; 8\ncone; head; 55; 10; 24; 2; 9; 24; 400');
    const mm = (value: number) => String(value);
    expect(read(shelfText(items, mm))).toEqual(items);
  });

  it('keeps to the last digit what was not touched, in whatever unit it was shown', () => {
    const items = read('T80; tower; 80; 8\nS10; spacer; 10; 6');
    const known = new Map(items.map((item) => [shelfLine(item, inches), item]));
    const text = shelfText(items, inches).replace('; 6', '; 5');
    const again = readShelf(text, 'in', version, ids(), known).items;
    expect(again[0]!.height).toBe(80);
    // The line that was touched says what it shows.
    expect(again[1]).toMatchObject({ count: 5, height: expect.closeTo((3 / 8) * 25.4, 6) });
  });
});
