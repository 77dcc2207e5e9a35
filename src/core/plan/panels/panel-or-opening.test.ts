import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import type { Seam } from '../../shell/job/entities';
import type { HangStation } from './hang';
import { placeOnEdge } from './panel-frame';
import { measureFirst, panelOrOpening, type MeasuredThing, type ShapeLength } from './panel-or-opening';

const SIZE = { kind: 'door', side: 'left', long: 1000, high: 800 } as const;
const CORNERS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const;
const BETWEEN: Readonly<Record<Exclude<ShapeLength, 'twist'>, readonly [number, number]>> = {
  ...{ low: [0, 1], highUp: [3, 2], front: [0, 3], rear: [1, 2], down: [3, 1], up: [0, 2] },
};

type Corners = readonly (readonly [number, number])[];
const RIGHT: Corners = [0, 0, 0, 0].map(() => [0, 0]);
const moved = (corner: number, by: readonly [number, number]): Corners =>
  RIGHT.map((at, i) => (i === corner ? by : at));

interface Shapes {
  readonly panel: Corners;
  readonly opening: Corners;
  /** How the panel hangs: along, up, and turned, mm at its edges. */
  readonly hangs?: readonly [number, number, number];
}

/** What a caliper reads round a door whose corners, and whose opening's, are off: from the geometry, not from the model. */
function readings({ panel, opening, hangs = [0, 0, 0] }: Shapes, noise: () => number): HangStation[] {
  const at = (corners: Corners, edge: 'front' | 'rear' | 'top' | 'bottom', share: number) => {
    const [a, b] = { front: [0, 3], rear: [1, 2], bottom: [0, 1], top: [3, 2] }[edge] as [number, number];
    return [0, 1].map((k) => corners[a]![k]! * (1 - share) + corners[b]![k]! * share) as [number, number];
  };
  return (['front', 'rear', 'top', 'bottom'] as const).flatMap((edge) =>
    [0, 0.5, 1].map((share, number): HangStation => {
      const place = placeOnEdge(SIZE, edge, share)!;
      const [o, p] = [at(opening, edge, share), at(panel, edge, share)];
      const turn = [-hangs[2] * (place.y / 400), hangs[2] * (place.x / 500)];
      const opens = [0, 1].reduce((sum, k) => sum + place.normal[k]! * (o[k]! - p[k]! - hangs[k]! - turn[k]!), 0);
      const gap = { now: 5 + opens + noise(), target: 5, limit: 1, weight: 1, sd: 0.25 };
      return { stationId: `${edge} ${number}`, seam: { code: edge } as Seam, number, place, gap };
    }),
  );
}

function measured(thing: MeasuredThing, corners: Corners, noise: () => number, sd: number) {
  return Object.entries(BETWEEN).map(([what, [a, b]]) => {
    const place = (i: number, off: Corners) =>
      [0, 1].map((k) => CORNERS[i]![k]! * (k === 0 ? 500 : 400) + off[i]![k]!) as [number, number];
    const length = (off: Corners) => {
      const [p, q] = [place(a, off), place(b, off)];
      return Math.hypot(q[0] - p[0], q[1] - p[1]);
    };
    return { thing, what: what as ShapeLength, wanted: length(RIGHT), value: length(corners) + noise(), sd };
  });
}

const judged = (shapes: Shapes, seed: number, things: readonly MeasuredThing[] = ['panel', 'opening']) => {
  const random = seeded(seed);
  const noise = (sd: number) => () => sd * random.normal();
  return panelOrOpening(
    SIZE,
    readings(shapes, noise(0.25)),
    things.flatMap((thing) => measured(thing, shapes[thing], noise(0.4), 0.4)),
    1,
  );
};

describe('panel or opening', () => {
  it('names a door post that leans 2 mm and a door that is 2 mm too long, at most one in twenty wrong', () => {
    const lean: Corners = moved(2, [-2.4, 0]);
    const long: Corners = moved(1, [2.4, 0]);
    const cases: readonly [string, Shapes][] = [
      ['opening', { panel: RIGHT, opening: lean, hangs: [1.2, -0.8, 0.6] }],
      ['panel', { panel: long, opening: RIGHT, hangs: [-0.7, 1.5, -0.9] }],
      ['neither', { panel: RIGHT, opening: RIGHT, hangs: [1.5, 1, -1.2] }],
    ];
    const wrong: Record<string, number> = {};
    for (let seed = 1; seed <= 200; seed++)
      for (const [truth, shapes] of cases)
        wrong[truth] = (wrong[truth] ?? 0) + (judged(shapes, seed).says === truth ? 0 : 1);
    for (const [truth] of cases) expect(wrong[truth]).toBeLessThanOrEqual(10);
  });

  it('cannot tell from gaps alone, however many, and says what to measure', () => {
    const separation = judged({ panel: RIGHT, opening: moved(2, [-3, 0]) }, 1, []);
    expect(separation.says).toBe('cannotTell');
    expect(separation.opening.unmeasured).toContain('down');
  });

  it('knows an opening by its own lengths, and asks for those of the panel before it blames it alone', () => {
    const separation = judged({ panel: RIGHT, opening: moved(2, [-3, 0]) }, 4, ['opening']);
    expect(separation).toMatchObject({ says: 'cannotTell', opening: { verdict: 'outside', isWrong: true } });
    expect(measureFirst(separation)[0]).toMatchObject({ thing: 'panel' });
  });

  it('says the same however the panel hangs', () => {
    const shapes = { panel: RIGHT, opening: moved(1, [2.5, 0]) };
    const [a, b] = [judged(shapes, 7), judged({ ...shapes, hangs: [2, -1.5, 1] }, 7)];
    a.opening.lengths.forEach(({ value }, i) => expect(b.opening.lengths[i]!.value).toBeCloseTo(value, 1));
  });
});
