import { describe, expect, it } from 'vitest';
import { position, type Vector } from '../../maths/geometry/vector';
import { level, type LevelOptions, type LevelPoint, type LevelSupport } from './level';

const weight: Vector = [1200, 0, 500];
const options: LevelOptions = { height: 'bench', weight };
const supports: LevelSupport[] = [
  { id: 'FL', x: 400, y: -600 },
  { id: 'FR', x: 400, y: 600 },
  { id: 'RL', x: 2000, y: -600 },
  { id: 'RR', x: 2000, y: 600 },
];
const places: Vector[] = [0, 800, 1600, 2400].flatMap((x) => [-400, 400].map((y): Vector => [x, y, 300]));
/** Points as they are read on a shell that lies by `off` from where it is wanted. */
const read = (off: (x: number, y: number) => number, sd = 0.3): LevelPoint[] =>
  places.map((at, i) => ({
    id: `P${i}`,
    wanted: position<'chart'>(at),
    read: { z: { value: at[2] + off(at[0], at[1]), sd } },
  }));
const levelled = (points: readonly LevelPoint[], at = supports, how = options) => {
  const result = level(points, at, how);
  if (!result.ok) throw new Error(result.reason.kind);
  return result.levelling;
};
const raises = (points: readonly LevelPoint[], at = supports, how = options) => {
  const { moves } = levelled(points, at, how);
  return supports.map(({ id }) => moves.find((move) => move.id === id)!.raise);
};

describe('levelling', () => {
  it('lowers the end that stands high, each support by what the shell is off there', () => {
    // 5 mm in a metre up to the rear, from 2 mm at the middle of the supports.
    const { lies, moves, twist } = levelled(read((x) => 2 + 0.005 * (x - 1200)));
    expect(lies.height.value).toBeCloseTo(2, 9);
    expect(lies.pitch.value).toBeCloseTo(5, 9);
    expect(lies.roll.value).toBeCloseTo(0, 9);
    expect(twist!.sure).toBe(false);
    expect(moves[0]).toMatchObject({ id: expect.stringMatching(/^R/), raise: expect.closeTo(-6, 9) });
    expect(raises(read((x) => 2 + 0.005 * (x - 1200)))).toEqual([2, 2, -6, -6].map((by) => expect.closeTo(by, 9)));
  });

  it('undoes a twist that the support has put in, and says that one corner only follows', () => {
    const twisted = read((x, y) => (3 * (x - 1200) * y) / (800 * 600));
    const { twist } = levelled(twisted);
    expect(twist).toMatchObject({ sure: true, value: expect.closeTo(3, 6) });
    expect(raises(twisted)).toEqual([-3, 3, 3, -3].map((by) => expect.closeTo(by, 6)));
  });

  it('leaves alone what is not worth a spanner, and takes the height that leaves most alone where any will do', () => {
    expect(raises(read(() => 0.1))).toEqual([0, 0, 0, 0]);
    const rear = read((x) => 4 + 0.005 * (x - 400));
    expect(raises(rear).map((by) => Math.round(by))).toEqual([-4, -4, -12, -12]);
    const free = raises(rear, supports, { ...options, height: 'free' });
    expect(free.filter((by) => by !== 0)).toHaveLength(2);
  });

  it('says turns, what is beyond the travel, what to take up first, and where a jack must carry meanwhile', () => {
    const clamps = supports.map((support, i) => ({
      ...support,
      pitch: 1.5,
      travel: [-4, 10] as const,
      ...(i === 1 ? { carries: false } : {}),
    }));
    const { moves } = levelled(
      read((x) => 2 + 0.005 * (x - 1200)),
      clamps,
    );
    expect(moves[0]).toMatchObject({
      id: 'FR',
      takeUp: true,
      raise: expect.closeTo(2, 9),
      turns: expect.closeTo(4 / 3, 9),
    });
    const rear = moves.find(({ id }) => id === 'RL')!;
    expect(rear.beyond).toBeCloseTo(-2, 9);
    // Front left and the two at the rear carry: without the rear left one nothing holds the shell.
    expect(rear.jack).toBe(true);
    expect(moves.find(({ id }) => id === 'FR')!.jack).toBe(false);
  });

  it('shifts and turns the shell onto the centre line', () => {
    const turned = places.map(([x, y, z], i): LevelPoint => ({
      id: `P${i}`,
      wanted: position<'chart'>([x, y, z]),
      read: {
        z: { value: z, sd: 0.3 },
        y: { value: y + 3 + 0.002 * (x - 1200), sd: 1 },
        x: { value: x - 4 - 0.002 * y, sd: 1 },
      },
    }));
    const { lies, moves } = levelled(turned);
    expect(lies.yaw!.value).toBeCloseTo(2, 6);
    expect(lies.across!.value).toBeCloseTo(3, 6);
    expect(moves.find(({ id }) => id === 'FL')).toMatchObject({
      across: expect.closeTo(-(3 - 1.6), 6),
      along: expect.closeTo(4 - 1.2, 6),
    });
  });

  it('names a point that does not go with the rest', () => {
    const points = read((x) => 0.001 * x).map((point, i) =>
      i === 2 ? { ...point, read: { z: { value: point.read.z!.value + 6, sd: 0.3 } } } : point,
    );
    expect(levelled(points).strange[0]!.id).toBe('P2');
  });

  it('says what is missing', () => {
    const reason = (points: readonly LevelPoint[], at = supports) => {
      const result = level(points, at, options);
      return result.ok ? undefined : result.reason.kind;
    };
    expect(reason(read(() => 0).slice(0, 2))).toBe('tooFewHeights');
    expect(
      reason(
        read(() => 0),
        supports.slice(0, 2),
      ),
    ).toBe('tooFewSupports');
    expect(reason(read(() => 0).filter((_, i) => i % 2 === 0))).toBe('heightsOnLine');
  });
});
