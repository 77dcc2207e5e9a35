import { describe, expect, it } from 'vitest';
import { inWords } from './terms';

describe('the words for the parts', () => {
  it.each([
    ['Sill front jacking hole', 'us', 'Rocker panel front jacking hole'],
    ['Inner sills', 'us', 'Inner rockers'],
    ['Door rear edge to B post', 'us', 'Door rear edge to B pillar'],
    ['Bonnet to front wing', 'us', 'Hood to front fender'],
    ['Rocker panel, left', 'uk', 'Sill, left'],
    ['windscreen diagonal', 'us', 'windshield diagonal'],
    ['Windowsill', 'us', 'Windowsill'],
    ['Sill', 'uk', 'Sill'],
    ['Left sill panel and rear panel', 'us', 'Left rocker panel and tail panel'],
  ] as const)('%s in %s words', (text, words, expected) => expect(inWords(text, words)).toBe(expected));

  it('come back when the reader changes back', () => {
    for (const text of ['Rear wing', 'Chassis leg end hole', 'Slam panel centre', 'Cantrail', 'Tailgate to rear wing'])
      expect(inWords(inWords(text, 'us'), 'uk')).toBe(text);
  });
});
