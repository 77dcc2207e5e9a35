import { describe, expect, it } from 'vitest';
import { checksText, holesText, readChecks, readHoles } from './gauge-text';

const ids = () => {
  let last = 0;
  return () => `00000000-0000-4000-8000-${String(++last).padStart(12, '0')}`;
};
const id = '00000000-0000-4000-8000-999999999999';
const read = (text: string, holes: Parameters<typeof readHoles>[2]['holes'] = []) =>
  readHoles(text, 'mm', { id, holes }, ids());
const mm = (value: number) => String(value);

describe('a part as it is written down', () => {
  it('is read as it is shown, and its holes keep what they are by their names', () => {
    const { holes, faults } = read('1; 0; -410; 20; 0.4\n2; 0; 410; 20\n\n3; -180,5; 0; 12');
    expect(faults).toEqual([]);
    expect(holes.map(({ x, clearance }) => [x, clearance])).toEqual([
      [0, 0.4],
      [0, 0.5],
      [-180.5, 0.5],
    ]);
    const again = readHoles(
      holesText(holes, mm).replace('410; 20; 0.5', '411; 20; 0.5'),
      'mm',
      { id, holes },
      () => 'new',
    );
    expect(again.holes).toEqual(holes.map((hole, i) => (i === 1 ? { ...hole, y: 411 } : hole)));
    const checks = readChecks('1; 2; 820.3\n2; 3; 448', 'mm', { id, holes }, ids());
    expect(checks.faults).toEqual([]);
    expect(checksText(checks.checks, holes, mm)).toBe('1; 2; 820.3\n2; 3; 448');
  });

  it('names the line of each fault', () => {
    expect(read('1; 0; wide; 20\n2; 1; 2; 3\n2; 4; 5; 6').faults.map(({ message }) => message.split(':')[0])).toEqual([
      'line 1',
      'hole “2” stands here twice',
    ]);
    const { holes } = read('1; 0; 0; 0\n2; 100; 0; 0');
    const { faults } = readChecks('1; 7; 100\n1; 1; 100\n1; 2; -5', 'mm', { id, holes }, ids());
    expect(faults.map(({ message }) => message.split(':')[0])).toEqual(['line 1', 'line 2', 'line 3']);
  });
});
