import { describe, expect, it } from 'vitest';
import { shopTime } from './shop-time';

describe('the shop’s own time', () => {
  const stockholm = shopTime('Europe/Stockholm');

  it('puts an evening reading on the day it was taken, not on the day of Greenwich', () => {
    expect(stockholm.day('2026-11-04T23:30:00.000Z')).toBe('5 Nov 2026');
    expect(stockholm.time('2026-11-04T23:30:00.000Z')).toBe('00:30');
    expect(stockholm.date('2026-11-04T23:30:00.000Z')).toBe('2026-11-05');
    expect(shopTime('America/New_York').date('2026-11-05T02:00:00.000Z')).toBe('2026-11-04');
  });

  it('knows summer from winter when a day is typed', () => {
    expect(stockholm.instant('2026-11-04', 8)).toBe('2026-11-04T07:00:00.000Z');
    expect(stockholm.instant('2026-07-04', 8)).toBe('2026-07-04T06:00:00.000Z');
  });

  it('gives back the day that was typed', () => {
    for (const zone of ['Pacific/Auckland', 'America/Los_Angeles', 'UTC'])
      expect(shopTime(zone).date(shopTime(zone).instant('2026-03-29', 12))).toBe('2026-03-29');
  });
});
