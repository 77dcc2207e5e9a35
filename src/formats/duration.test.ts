import { describe, expect, it } from 'vitest';
import { parseDuration } from './duration';

describe('a typed duration', () => {
  it.each([
    ['45', 45],
    ['45 min', 45],
    ['3 h', 180],
    ['3h30', 210],
    ['1,5 h', 90],
    ['2 d', 2880],
    ['3 weeks', 30_240],
    ['0', 0],
  ])('%s is so many minutes by the clock', (text, minutes) => expect(parseDuration(text, 1440)).toBe(minutes));
  it('has eight hours to a day of work, and five days to a week', () => {
    expect(parseDuration('2 d', 480)).toBe(960);
    expect(parseDuration('1 week', 480)).toBe(2400);
  });
  it.each(['', 'soon', '3 parsecs', '-2 h', '3 h and a bit'])('“%s” is none', (text) =>
    expect(parseDuration(text, 1440)).toBeUndefined(),
  );
});
