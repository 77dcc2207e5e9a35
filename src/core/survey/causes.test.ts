import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { shellNet, type ShellNet } from '../practice/shell-net';
import type { ReadingFacts } from './causes';
import { solveNet } from './solve';
import { accuse, type Accusation } from './suspects';
import type { PairReading, SurveyReading } from './survey';

const held = (id: string) => (/^P0|^P9R/.test(id) ? ('fixed' as const) : undefined);
const netOf = (seed: number): ShellNet => shellNet({ points: 20, distances: 110, hold: held }, seeded(seed));

/** Accuses the readings of a net one of whose readings was changed. */
function accused(
  net: ShellNet,
  id: string,
  change: (reading: PairReading) => SurveyReading,
  facts: ReadingFacts = {},
): Accusation[] {
  const readings = net.survey.readings.map((reading) => (reading.id === id ? change(reading as PairReading) : reading));
  const result = solveNet({ ...net.survey, readings });
  if (!result.ok) throw new Error(result.why);
  return accuse(result.solution, (reading) => (reading.id === id ? facts : {})).accusations;
}

const add = (amount: number) => (reading: PairReading) => ({ ...reading, value: reading.value + amount });
const distances = Array.from({ length: 24 }, (_, i) => `d${i * 4 + 3}`);

/** How many of two dozen readings, spoiled in one way, are accused first and given this cause. */
function named(
  kind: string,
  change: (reading: PairReading) => SurveyReading | undefined,
  facts?: (reading: PairReading) => ReadingFacts,
): { tried: number; found: number; first: number } {
  const [net] = [netOf(21)];
  let [tried, found, first] = [0, 0, 0];
  for (const id of distances) {
    const reading = net.survey.readings.find((each) => each.id === id) as PairReading;
    const spoiled = change(reading);
    if (!spoiled) continue;
    tried++;
    const [worst] = accused(net, id, () => spoiled, facts?.(spoiled as PairReading));
    if (worst?.reading?.id === id) first++;
    if (worst?.reading?.id === id && worst.cause?.kind === kind) found++;
  }
  return { tried, found, first };
}

describe('a wrong reading', () => {
  it('is accused alone: readings that only look wrong because of it are cleared', () => {
    const all = accused(netOf(8), 'd10', add(-140));
    expect(all.map((each) => each.reading?.id)).toEqual(['d10']);
  });

  it('that is one of two is found beside the other', () => {
    const net = netOf(9);
    const readings = net.survey.readings.map((reading) =>
      reading.id === 'd3' || reading.id === 'd40' ? add(100)(reading as PairReading) : reading,
    );
    const result = solveNet({ ...net.survey, readings });
    if (!result.ok) throw new Error(result.why);
    const { accusations } = accuse(result.solution);
    expect(accusations.map((each) => each.reading?.id).sort()).toEqual(['d3', 'd40']);
    expect(accusations.map((each) => each.cause?.kind)).toEqual(['startMark', 'startMark']);
  });

  it.each([
    ['startMark', 'a tape started at the 100 mm mark', (r: PairReading) => add(100)(r)],
    ['unit', 'inches typed as millimetres', (r: PairReading) => ({ ...r, value: r.value / 25.4 })],
    ['unit', 'centimetres typed as millimetres', (r: PairReading) => ({ ...r, value: r.value / 10 })],
    [
      'digitsExchanged',
      'the first two of four digits exchanged',
      (r: PairReading) => {
        const text = r.value.toFixed(0);
        return text.length === 4 && text[0] !== text[1]
          ? { ...r, value: Number(text[1]! + text[0]! + text.slice(2)) }
          : undefined;
      },
    ],
    [
      'sidesExchanged',
      'left and right exchanged at one end',
      (r: PairReading) => {
        const to = r.to.replace(/[LR]$/, (side) => (side === 'L' ? 'R' : 'L'));
        return to === r.from || (to === 'P9R' && r.from === 'P9L') ? undefined : { ...r, to };
      },
    ],
  ] as const)('is named as %s: %s', (kind, _, change) => {
    const { tried, found, first } = named(kind, change as never);
    expect(tried).toBeGreaterThan(12);
    expect(first / tried).toBeGreaterThan(0.9);
    expect(found / tried).toBeGreaterThan(0.7);
  });

  it('is named with the edge of a hole, given the diameter of the hole', () => {
    const holes = new Map(netOf(21).survey.points.map((point) => [point.id, 26]));
    const { tried, found } = named('edgeForCentre', add(13), () => ({ holes }));
    expect(found / tried).toBeGreaterThan(0.5);
  });

  it('typed in inches is named with an eighth for a sixteenth only where the net is that exact', () => {
    const exact = shellNet({ points: 20, distances: 150, sigma: 0.15, heightSigma: 0.15, hold: held }, seeded(5));
    const [worst] = accused(exact, 'd20', add(25.4 / 16), { typed: { amount: 40, unit: 'in' } });
    expect(worst).toMatchObject({ reading: { id: 'd20' }, cause: { kind: 'eighthForSixteenth' } });
  });

  it('says what it should have been', () => {
    const net = netOf(30);
    const sound = net.survey.readings.find((each) => each.id === 'd17') as PairReading;
    const [worst] = accused(net, 'd17', add(100));
    expect(worst!.cause!.text).toContain('100 mm mark');
    expect((worst!.cause!.corrected as PairReading).value).toBeCloseTo(sound.value, 9);
    expect(Math.abs(worst!.cause!.w)).toBeLessThan(2);
  });

  it('of no known kind gets a false cause in at most one case of ten', () => {
    const random = seeded(77);
    let [blunders, falselyNamed] = [0, 0];
    for (let i = 0; i < 240; i++) {
      const net = i % 24 === 0 ? netOf(100 + i) : nets;
      nets = net;
      const size = (8 + 192 * random.next()) * (random.next() < 0.5 ? -1 : 1);
      const [worst] = accused(net, `d${(i * 7) % 110}`, add(size));
      if (!worst) continue;
      blunders++;
      if (worst.cause) falselyNamed++;
    }
    expect(blunders).toBeGreaterThan(220);
    expect(falselyNamed / blunders).toBeLessThan(0.1);
  });
  let nets = netOf(100);
});
