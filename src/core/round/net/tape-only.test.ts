import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { seeded } from '../../maths/random/seeded';
import type { Reading } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { judgeRound } from '../judge/judge-round';
import { observeRound } from '../observe/observe';
import { solveRound, solveRoundFrom, type RoundNet, type Solved } from './net';

const kvist = demoRows('kvist');
const own = kvist.rounds.find(({ shell }) => shell === '')!;
const round = { ...own, temperature: null };
const SHELL: Readonly<Record<string, readonly [number, number, number]>> = {
  FL: [0, -410, 215],
  FR: [0, 410, 218],
  ML: [1150, -655, 190],
  MR: [1152, 655, 188],
  RL: [2390, -480, 262],
  RR: [2385, 482, 260],
};
const CODES = Object.keys(SHELL);
const idOf = (code: string) => `00000000-0000-4000-8000-00000000000${CODES.indexOf(code)}`;

/** Six points without a chart: all their lengths, and the heights of some. */
function taped(heights: readonly string[], more: readonly Partial<Reading>[] = []): Job {
  const random = seeded(heights.length + 1);
  const template = kvist.readings.find(({ quantity }) => quantity === 'distance')!;
  const reading = (some: Partial<Reading>, i: number): Reading => ({
    ...template,
    ...{ id: `00000000-0000-4000-8000-0000000001${String(i).padStart(2, '0')}`, roundId: round.id, sequence: i },
    ...{ toPointId: null, pointerFrom: null, pointerTo: null, pullId: null, ...some },
  });
  const lengths = CODES.flatMap((from, i) =>
    CODES.slice(i + 1).map((to): Partial<Reading> => ({
      ...{ quantity: 'distance', measure: 'tip', pointId: idOf(from), toPointId: idOf(to) },
      value: Math.hypot(...[0, 1, 2].map((k) => SHELL[to]![k]! - SHELL[from]![k]!)) + 0.6 * random.normal(),
    })),
  );
  const read = heights.map((code): Partial<Reading> => ({
    ...{ quantity: 'height', measure: null, pointId: idOf(code) },
    value: SHELL[code]![2] + 0.6 * random.normal(),
  }));
  const points = CODES.map((code) => ({
    ...kvist.points[0]!,
    ...{ id: idOf(code), code, name: '', substituteForId: null, mirrored: true },
    side: code.endsWith('L') ? ('left' as const) : ('right' as const),
  }));
  return Job.of({
    ...kvist,
    ...{
      points,
      readings: [...lengths, ...read, ...more].map(reading),
      rounds: [round],
      readingStrikes: [],
      readingKeeps: [],
    },
    ...{ references: [], referencePoints: [], referenceDimensions: [], dimensions: [], pointConditions: [] },
  });
}

describe('two readings of one thing that disagree', () => {
  const length = (value: number): Partial<Reading> => ({
    ...{ quantity: 'length', measure: null, pointId: idOf('FL'), value },
  });
  const judged = (...values: readonly number[]) => judgeRound(taped(CODES, values.map(length)), round);

  it('and nothing else say only that they disagree; neither is taken, nor what lies between them', () => {
    const { net, located } = judged(120, -443.2);
    expect(net.doubts.map(({ kind, cause, expected }) => [kind, cause, expected])).toEqual([
      ['repeatsDiffer', undefined, undefined],
      ['repeatsDiffer', undefined, undefined],
    ]);
    expect(new Set(net.leftOut)).toEqual(new Set(net.doubts.map(({ readingId }) => readingId)));
    expect(located.size).toBe(6);
    // The shell itself is as it was without them.
    const apart = (of: typeof located) => of.get(idOf('RL'))!.position[0] - of.get(idOf('FL'))!.position[0];
    expect(apart(located)).toBeCloseTo(apart(judged().located), 3);
  });

  it('are decided by a third', () => {
    const { net, located } = judged(120, -443.2, 120.4);
    expect(net.doubts.map(({ kind }) => kind)).toEqual(['contradicted']);
    expect(located.get(idOf('FL'))!.position[0]).toBeCloseTo(120.2, 0);
  });
});

describe('a length read twice in a net that knows it only loosely without', () => {
  it('is accused where it is far from what the others say, and the good one is kept', () => {
    const length = Math.hypot(...[0, 1, 2].map((k) => SHELL.FR![k]! - SHELL.FL![k]!));
    const again: Partial<Reading> = {
      ...{ quantity: 'distance', measure: 'tip', pointId: idOf('FL'), toPointId: idOf('FR') },
      value: length + 254,
    };
    const { net } = judgeRound(taped(CODES, [again]), round);
    expect(net.doubts.map(({ kind, readingId }) => [kind, readingId])).toEqual([
      ['contradicted', '00000000-0000-4000-8000-000000000121'],
    ]);
    expect(net.doubts[0]!.expected!.value).toBeCloseTo(length, -1);
  });
});

describe('six points without a chart', () => {
  it('want three heights before a shape can be made of them', () => {
    const wanted = [[], ['FL'], ['FL', 'FR'], ['FL', 'FR', 'RL']];
    expect(wanted.map((read) => judgeRound(taped(read), round).net.heightsWanted)).toEqual([3, 2, 1, 0]);
    const charted = demoRows('solbris');
    expect(judgeRound(Job.of(charted), charted.rounds.at(-1)!).net.heightsWanted).toBe(0);
  });

  it('are located in plan with one height, and told no height that the lengths cannot tell from its mirror image', () => {
    const { net, located } = judgeRound(taped(['FL']), round);
    expect([located.size, net.inPlan.length]).toEqual([0, 6]);
    expect(net.inPlan.filter(({ heightMissing }) => heightMissing)).toHaveLength(5);
    expect(net.loose.map(({ advice }) => advice)).toContain('add its height');
  });

  it('are located where their heights were read, and in plan where not', () => {
    const { net, located } = judgeRound(taped(['FL', 'FR', 'RL']), round);
    expect([...located.keys()].sort()).toEqual(['FL', 'FR', 'RL'].map(idOf).sort());
    expect(net.inPlan.map(({ id }) => id)).toEqual(['ML', 'MR', 'RR'].map(idOf));
    expect(net.inPlan.every(({ sd }) => sd < 2)).toBe(true);
  });

  it('are all located with all their heights', () => {
    const { net, located } = judgeRound(taped(CODES), round);
    expect([located.size, net.inPlan.length, net.loose.length]).toEqual([6, 0, 0]);
    for (const code of CODES) expect(located.get(idOf(code))!.position[2]).toBeCloseTo(SHELL[code]![2], -1);
  });
});

describe('a shell taped reading by reading, laid out anew each time', () => {
  it.each([1, 2, 3, 4])(
    'has located at each what it would locate at once, in whatever order they are read (%i)',
    (seed) => {
      const whole = taped(CODES).rows;
      const random = seeded(seed);
      const mixed = whole.readings
        .map((reading) => ({ reading, at: random.normal() }))
        .sort((a, b) => a.at - b.at)
        .map(({ reading }, sequence) => ({ ...reading, sequence }));
      let last: Solved | undefined;
      for (let count = 1; count <= mixed.length; count++) {
        const job = Job.of({ ...whole, readings: mixed.slice(0, count) });
        const observed = observeRound(job, round);
        const grown = solveRoundFrom(job, observed, last);
        const located = ({ solution }: RoundNet) => solution?.survey.points.map(({ id }) => id) ?? [];
        expect(located(grown.net)).toEqual(located(solveRound(job, observed)));
        last = grown.solved;
      }
      expect(last?.main.survey.points).toHaveLength(CODES.length);
    },
  );
});
