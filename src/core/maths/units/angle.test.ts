import { describe, expect, it } from 'vitest';
import { angleText } from './angle';

describe('an angle in words', () => {
  it('has a true minus sign, and none where it is nothing', () => {
    expect([angleText(-24.4), angleText(24.5), angleText(-0.4), angleText(-0.125, 2)]).toEqual([
      '−24°',
      '25°',
      '0°',
      '−0.13°',
    ]);
  });
});
