import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { seeded } from '../../maths/random/seeded';
import { STEEL, type Member, type ShellFrame } from '../../structure/shell-frame';
import { sagOf, slackOf, stageStiffness, type CriticalLength } from '../../structure/slack';
import { braceCandidates, touches, type BraceChoice } from './candidates';
import { Braced } from './braced';
import { chooseBraces, type BracingTask } from './choose';

const TUBE = { A: 171, Iy: 23_213, Iz: 23_213, J: 34_723 };

/** An open tray of posts on a frame, each a little off its place. */
function tray(seed: number): ShellFrame {
  const random = seeded(seed);
  const off = () => 15 * random.normal();
  const places: Vector[] = [0, 700, 1400].flatMap((x) =>
    [-500, 500].flatMap((y) => [0, 450].map((z): Vector => [x + off(), y + off(), z + off()])),
  );
  const member = (from: number, to: number): Member => ({ ...STEEL, ...TUBE, id: `${from}-${to}`, from, to });
  // Nodes go by station, then side, then height.
  const at = (station: number, side: number, up: number) => 4 * station + 2 * side + up;
  const stations = [0, 1, 2];
  return {
    nodes: places.map((place, i) => ({ id: `N${i}`, at: place })),
    members: [
      ...stations.flatMap((s) => [0, 1].map((side) => member(at(s, side, 0), at(s, side, 1)))),
      ...stations.map((s) => member(at(s, 0, 0), at(s, 1, 0))),
      ...[0, 1].flatMap((s) => [0, 1].map((side) => member(at(s, side, 0), at(s + 1, side, 0)))),
      ...[0, 1].flatMap((s) => [0, 1].map((side) => member(at(s, side, 1), at(s + 1, side, 1)))),
    ],
    panels: [],
    struts: [],
    supports: [
      { node: at(0, 0, 0), fix: ['x', 'y', 'z'] },
      { node: at(0, 1, 0), fix: ['x', 'z'] },
      { node: at(2, 0, 0), fix: ['z'] },
      { node: at(2, 1, 0), fix: ['z'] },
    ],
  };
}

const length = (id: string, from: number, to: number, limit: number): CriticalLength => ({ id, from, to, limit });
const choice: BraceChoice = {
  nodes: [0, 1, 3, 5, 7, 9, 11],
  area: () => 220,
  maxLength: 1700,
  forbid: [],
  keepOut: [],
};
const task = (seed: number, some: Partial<BracingTask> = {}): BracingTask => ({
  frame: tray(seed),
  stages: [],
  lengths: [length('waist', 5, 7, 0.5), length('top', 1, 11, 0.8), length('end', 9, 11, 0.5)],
  handling: 200,
  choice,
  most: 6,
  ...some,
});
const chosen = (of: BracingTask) => {
  const result = chooseBraces(of);
  if (!result.ok) throw new Error(result.loose.join());
  return result.value;
};

describe('a stage with braces in it', () => {
  it('is the same by low ranks as solved anew, weight and all', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const { frame, lengths, handling } = task(seed);
      const bare = stageStiffness(frame, []);
      if (!bare.ok) throw new Error();
      const uncut = sagOf(bare.value, lengths);
      const candidates = braceCandidates(frame, bare.value.stands, choice);
      const braces = [candidates[0]!, candidates[5]!, candidates[9]!];
      const first = Braced.of(bare.value, { lengths, handling, uncut }, choice.nodes);
      const before = first.with(braces[0]!).with(braces[1]!);
      const struts = braces.map(({ from, to }, i) => ({ ...STEEL, id: `${i}`, from, to, A: choice.area(0) }));
      const anew = stageStiffness(frame, [], struts);
      if (!anew.ok) throw new Error();
      const ratios = lengths.map((each, d) => {
        const slack = slackOf(anew.value, each, handling, uncut[d]!)!;
        return Math.max(Math.abs(slack.push), Math.abs(slack.worst), Math.abs(slack.sag)) / each.limit;
      });
      before.ratiosWith(braces[2]!)!.forEach((value, d) => expect(value).toBeCloseTo(ratios[d]!, 9));
      before
        .with(braces[2]!)
        .ratios()
        .forEach((value, d) => expect(value).toBeCloseTo(ratios[d]!, 9));
    }
  });
});

describe('braces', () => {
  /** The fewest that hold, by trying all sets up to three. */
  function fewestByTrying(of: BracingTask): number {
    const bare = stageStiffness(of.frame, []);
    if (!bare.ok) throw new Error();
    const candidates = braceCandidates(of.frame, bare.value.stands, of.choice);
    const first = Braced.of(
      bare.value,
      { lengths: of.lengths, handling: of.handling, uncut: sagOf(bare.value, of.lengths) },
      of.choice.nodes,
    );
    const holds = (state: Braced) => state.ratios().every((ratio) => ratio <= 1);
    const any = (state: Braced, from: number, left: number): boolean =>
      left === 0 ? holds(state) : candidates.some((brace, i) => i >= from && any(state.with(brace), i + 1, left - 1));
    return [0, 1, 2, 3].find((size) => any(first, 0, size)) ?? Infinity;
  }

  it('hold every length with as few as there can be, on trays of all sorts', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const of = task(seed);
      const { ok, braces, after } = chosen(of);
      const fewest = fewestByTrying(of);
      if (fewest === Infinity) continue;
      expect([seed, ok, braces.length]).toEqual([seed, true, fewest]);
      expect(after.every((row) => row!.ok)).toBe(true);
      expect(braces.every(({ gain }, i) => i === 0 || gain > -1)).toBe(true);
    }
  });

  it('are none where nothing is loose, and the best found where too few are allowed', () => {
    const easy = task(1, { lengths: task(1).lengths.map((each) => ({ ...each, limit: 50 })) });
    expect(chosen(easy)).toMatchObject({ ok: true, braces: [] });
    const tight = task(1, { lengths: task(1).lengths.map((each) => ({ ...each, limit: 0.01 })), most: 2 });
    const { ok, braces, before, after } = chosen(tight);
    expect([ok, braces.length]).toEqual([false, 2]);
    const worst = (rows: typeof after) =>
      Math.max(...rows.map((row) => Math.max(Math.abs(row!.push), Math.abs(row!.worst))));
    expect(worst(after)).toBeLessThan(worst(before));
  });

  it('go another way where the best is forbidden or its line is to stay clear', () => {
    const [best] = chosen(task(2)).braces;
    const forbidden = task(2, { choice: { ...choice, forbid: [[best!.to, best!.from]] } });
    expect(chosen(forbidden).braces.map(({ from, to }) => [from, to])).not.toContainEqual([best!.from, best!.to]);
    const { nodes } = task(2).frame;
    const middle = [0, 1, 2].map((k) => (nodes[best!.from]!.at[k]! + nodes[best!.to]!.at[k]!) / 2) as unknown as Vector;
    const box = {
      min: middle.map((value) => value - 20) as unknown as Vector,
      max: middle.map((value) => value + 20) as unknown as Vector,
    };
    const clear = chosen(task(2, { choice: { ...choice, keepOut: [box] } }));
    for (const { from, to } of clear.braces) expect(touches(box, nodes[from]!.at, nodes[to]!.at)).toBe(false);
  });

  it('touch a box that their line only grazes, and none that it passes', () => {
    const box = { min: [0, 0, 0] as Vector, max: [100, 100, 100] as Vector };
    expect(touches(box, [-50, 100, 50], [150, 100, 50])).toBe(true);
    expect(touches(box, [-50, 101, 50], [150, 101, 50])).toBe(false);
    expect(touches(box, [-50, 50, 50], [-1, 50, 50])).toBe(false);
    expect(touches(box, [50, 50, 50], [60, 50, 50])).toBe(true);
  });
});
