import { describe, expect, it } from 'vitest';
import { apply, type Matrix3, type Vector } from '../maths/geometry/vector';
import { turned } from '../maths/rigid/turn';
import { seeded } from '../maths/random/seeded';
import { solveFrame } from './frame';
import { massOf, STEEL, type FrameSupport, type Freedom, type Member, type ShellFrame } from './shell-frame';

const TUBE = { A: 291, Iy: 79_398, Iz: 148_988, J: 156_885 };
const ALL: readonly Freedom[] = ['x', 'y', 'z', 'rx', 'ry', 'rz'];

function frameOf(
  places: Readonly<Record<string, Vector>>,
  lines: readonly (readonly [string, string])[],
  supports: Readonly<Record<string, readonly Freedom[]>>,
): ShellFrame {
  const ids = Object.keys(places);
  const at = (id: string) => ids.indexOf(id);
  return {
    nodes: ids.map((id) => ({ id, at: places[id]! })),
    members: lines.map(([from, to]): Member => ({ ...STEEL, ...TUBE, id: `${from}${to}`, from: at(from), to: at(to) })),
    panels: [],
    struts: [],
    supports: Object.entries(supports).map(([id, fix]): FrameSupport => ({ node: at(id), fix })),
  };
}

const loaded = (frame: ShellFrame, node: number, force: readonly number[], gravity = false) => {
  const load = new Float64Array(6 * frame.nodes.length);
  force.forEach((value, k) => (load[6 * node + k] = value));
  const result = solveFrame(frame, load, gravity);
  if (!result.ok) throw new Error(`${result.why}: ${result.nodes.join()}`);
  return result.value;
};

/** A made-up box of members and one sheet on three supports. */
function box(seed = 1): ShellFrame {
  const random = seeded(seed);
  const off = () => 20 * random.normal();
  const corner = (x: number, y: number, z: number): Vector => [x + off(), y + off(), z + off()];
  const frame = frameOf(
    {
      ...{ A: corner(0, -500, 0), B: corner(0, 500, 0), C: corner(1500, -500, 0), D: corner(1500, 500, 0) },
      ...{ E: corner(0, -500, 600), F: corner(0, 500, 600), G: corner(1500, -500, 600), H: corner(1500, 500, 600) },
    },
    [
      ['A', 'B'],
      ['C', 'D'],
      ['A', 'C'],
      ['B', 'D'],
      ['A', 'E'],
      ['B', 'F'],
      ['C', 'G'],
      ['D', 'H'],
      ['E', 'F'],
      ['G', 'H'],
      ['E', 'G'],
      ['F', 'H'],
    ],
    { A: ['x', 'y', 'z'], B: ['x', 'z'], C: ['z'] },
  );
  return { ...frame, panels: [{ ...STEEL, id: 'floor', nodes: [0, 1, 3, 2], t: 0.9 }] };
}

describe('a frame under load', () => {
  it('is a cantilever by the book: bending both ways, stretching and twisting', () => {
    const frame = frameOf({ root: [0, 0, 0], tip: [800, 0, 0] }, [['root', 'tip']], { root: ALL });
    const { moved, reactions } = loaded(frame, 1, [1000, 50, -120, 4000, 0, 0]);
    const { E, G } = STEEL;
    expect(moved[6]).toBeCloseTo((1000 * 800) / (E * TUBE.A), 12);
    expect(moved[7]).toBeCloseTo((50 * 800 ** 3) / (3 * E * TUBE.Iz), 9);
    expect(moved[8]).toBeCloseTo((-120 * 800 ** 3) / (3 * E * TUBE.Iy), 9);
    expect(moved[9]).toBeCloseTo((4000 * 800) / (G * TUBE.J), 12);
    expect([...reactions[0]!].map((value) => Math.round(value))).toEqual([-1000, -50, 120, -4000, -96_000, -40_000]);
  });

  it('is a portal by the book: sway of two clamped columns under a stiff beam', () => {
    const [h, L, H] = [600, 1000, 500];
    const frame = frameOf(
      { A: [0, 0, 0], B: [0, 0, h], C: [L, 0, h], D: [L, 0, 0] },
      [
        ['A', 'B'],
        ['B', 'C'],
        ['C', 'D'],
      ],
      { A: ALL, D: ALL },
    );
    const stiff = {
      ...frame,
      members: frame.members.map((member) => ({ ...member, A: 1e7, Iy: TUBE.Iy, Iz: TUBE.Iy })),
    };
    const { moved } = loaded(stiff, 1, [H, 0, 0]);
    // Kleinlogel: Δ = H h³ (3k + 2) / (12 E I (6k + 1)), k = (I beam/I column)·(h/L) = h/L.
    const k = h / L;
    const sway = (H * h ** 3 * (3 * k + 2)) / (12 * STEEL.E * TUBE.Iy * (6 * k + 1));
    expect(moved[6]! / sway).toBeCloseTo(1, 3);
  });

  it('has a sheet that carries shear alone: four pinned bars round it, G·t·a/b stiff', () => {
    const [a, b] = [800, 500];
    const square = frameOf({ A: [0, 0, 0], B: [a, 0, 0], C: [a, b, 0], D: [0, b, 0] }, [], {
      A: ['x', 'y', 'z'],
      B: ['y', 'z'],
      C: ['z'],
      D: ['z'],
    });
    const bars = [
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 0],
    ].map(([from, to]) => ({ ...STEEL, id: `${from}`, from: from!, to: to!, A: 1e6 }));
    const frame: ShellFrame = { ...square, struts: bars, panels: [{ ...STEEL, id: 'p', nodes: [0, 1, 2, 3], t: 1 }] };
    const { moved } = loaded(frame, 3, [1000, 0, 0]);
    // γ = F/(G t a), and the top edge moves γ b.
    expect(moved[18]! / ((1000 * b) / (STEEL.G * a))).toBeCloseTo(1, 2);
  });

  it('answers at one place as it is pushed at another, the same both ways round', () => {
    const frame = box();
    for (const [i, j] of [
      [4 * 6 + 1, 7 * 6],
      [6 * 6 + 2, 5 * 6 + 4],
      [3 * 6, 3 * 6 + 5],
    ] as const) {
      const unit = (k: number) => [0, 1, 2, 3, 4, 5].map((each) => Number(each === k % 6));
      const there = loaded(frame, Math.floor(i / 6), unit(i)).moved[j]!;
      const back = loaded(frame, Math.floor(j / 6), unit(j)).moved[i]!;
      expect(there).toBeCloseTo(back, 12);
    }
  });

  it('balances its loads and its weight by its reactions', () => {
    const frame = box(3);
    const { reactions, mass } = loaded(frame, 6, [300, -200, 150], true);
    const sum = [0, 1, 2].map((k) => reactions.reduce((all, each) => all + each[k]!, 0));
    expect(sum[0]).toBeCloseTo(-300, 6);
    expect(sum[1]).toBeCloseTo(200, 6);
    expect(sum[2]).toBeCloseTo(-150 + mass * 9.80665, 6);
    expect(massOf(frame)).toBe(mass);
  });

  it('gives the same turned as a whole, members of any direction', () => {
    const frame = box(2);
    const w: Vector = [0.7, -0.4, 1.1];
    const columns = [0, 1, 2].map((k) => turned([Number(k === 0), Number(k === 1), Number(k === 2)], w));
    const rotation = [0, 1, 2].map((r) => columns.map((column) => column[r]!)) as unknown as Matrix3;
    // Held all round at one corner, so that the support turns with it; round tubes have no side of their own.
    const round = (each: ShellFrame): ShellFrame => ({
      ...each,
      members: each.members.map((member) => ({ ...member, Iy: 9e4, Iz: 9e4 })),
      supports: [{ node: 0, fix: ALL }],
    });
    const whole: ShellFrame = {
      ...round(frame),
      nodes: frame.nodes.map((node) => ({ ...node, at: apply(rotation, node.at) })),
    };
    const force: Vector = [120, -80, 40];
    const before = loaded(round(frame), 7, force).moved;
    const after = loaded(whole, 7, apply(rotation, force)).moved;
    frame.nodes.forEach((_, i) => {
      const at = [0, 1, 2].map((k) => before[6 * i + k]!) as unknown as Vector;
      apply(rotation, at).forEach((value, k) => expect(after[6 * i + k]!).toBeCloseTo(value, 9));
    });
  });

  it('names what nothing holds: a part cut loose, a mechanism, a shell on too few supports', () => {
    const loose = (frame: ShellFrame) => {
      const result = solveFrame(frame, new Float64Array(6 * frame.nodes.length), false);
      return result.ok ? [] : result.nodes;
    };
    const frame = box();
    expect(loose({ ...frame, supports: [] })).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H']);
    const cut = frame.members.filter(({ id }) => !['AE', 'BF', 'CG', 'DH'].includes(id));
    expect(loose({ ...frame, members: cut })).toEqual(['E', 'F', 'G', 'H']);
    const hanging = { ...frame, nodes: [...frame.nodes, { id: 'X', at: [0, 0, 900] as Vector }] };
    const strut = { ...STEEL, id: 's', from: 4, to: 8, A: 200 };
    expect(loose({ ...hanging, struts: [strut] })).toEqual(['X']);
    expect(loose(frame)).toEqual([]);
  });

  it('refuses a moment where no member could carry it', () => {
    const frame = box();
    const hanging: ShellFrame = {
      ...frame,
      nodes: [...frame.nodes, { id: 'X', at: [700, 0, 300] }],
      struts: [0, 3, 5].map((to, i) => ({ ...STEEL, id: `s${i}`, from: 8, to, A: 200 })),
    };
    const load = new Float64Array(6 * 9);
    load[6 * 8 + 4] = 100;
    expect(solveFrame(hanging, load, false)).toEqual({ ok: false, why: 'moment', nodes: ['X'] });
  });
});
