import { describe, expect, it } from 'vitest';
import { scale, type Vector } from '../maths/geometry/vector';
import { BODIES } from '../shell/bodies';
import { BODY_TYPES } from '../shell/job/entities';
import { modelFromBody, modelFromLines, withPointsOn } from './from-body';
import { morphOnto, type KnownPoint } from './morph';
import { massOf } from './shell-frame';
import { frameOf } from './shell-model';
import { slackOf, stageStiffness } from './slack';

const asDrawn = (at: Vector): Vector => at;
const pointsOf = (type: (typeof BODY_TYPES)[number], to: (at: Vector) => Vector, every = 1): KnownPoint[] =>
  BODIES[type].places
    .filter((_, i) => i % every === 0)
    .map(({ code, side, at }) => ({ id: code, code: `P${code}`, side, place: '', at: to(at) }));

describe('a body’s picture brought onto a shell', () => {
  it('ties each place to its point where a shell is the picture, stretched and shifted', () => {
    const to = ([x, y, z]: Vector): Vector => [1.08 * x - 420, 0.94 * y, 1.05 * z - 60];
    for (const type of BODY_TYPES) {
      const { ties, carry } = morphOnto(BODIES[type], pointsOf(type, to), asDrawn);
      const right = [...ties].filter(([place, { id }]) => place === id).length;
      expect([type, right / BODIES[type].places.length]).toEqual([type, expect.closeTo(1, 1)]);
      const free: Vector = [1700, -300, 500];
      carry(free).forEach((value, k) => expect(Math.abs(value - to(free)[k]!)).toBeLessThan(25));
    }
  });

  it('carries a tied place exactly to its point, and bends what lies between', () => {
    const bent = ([x, y, z]: Vector): Vector => [x, y, x > 2500 ? z + 40 : z];
    const { ties, carry } = morphOnto(BODIES.estate, pointsOf('estate', bent), asDrawn);
    for (const [place, { at }] of ties) {
      const from = BODIES.estate.places.find(({ code }) => code === place)!.at;
      carry(from).forEach((value, k) => expect(value).toBeCloseTo(at[k]!, 6));
    }
  });

  it('follows points chosen on the picture, and stands by typed measures where there are none', () => {
    const chosen = pointsOf('open', (at) => scale(at, 1.1), 4).map((point) => ({ ...point, place: point.id }));
    const { ties } = morphOnto(BODIES.open, chosen, asDrawn);
    expect(ties.size).toBe(chosen.length);
    const none = morphOnto(BODIES.open, [], (at) => scale(at, 0.9));
    expect(none.carry([1000, 500, 200])).toEqual([900, 450, 180]);
  });
});

describe('a structure', () => {
  const modelOf = (type: (typeof BODY_TYPES)[number]) =>
    modelFromBody(BODIES[type], morphOnto(BODIES[type], [], asDrawn));
  /** Stood on its four lowest corners. */
  const standing = (type: (typeof BODY_TYPES)[number]) => {
    const model = modelOf(type);
    const at = (code: string) => model.nodes.findIndex((node) => node.code === `.${code}`);
    const under =
      type === 'onPlatform'
        ? ['P2L', 'P2R', 'P4L', 'P4R']
        : type === 'pickupCab'
          ? ['F2L', 'F2R', 'R1L', 'R1R']
          : ['S1L', 'S1R', 'S3L', 'S3R'];
    const supports = under.map((code) => ({ node: at(code), fix: ['x', 'y', 'z'] as const }));
    return { model, at, frame: frameOf(model, supports) };
  };

  it.each(BODY_TYPES)('of each body holds together and weighs what a bare shell weighs: %s', (type) => {
    const { frame } = standing(type);
    const stage = stageStiffness(frame, []);
    expect(stage.ok || stage.loose).toBe(true);
    if (stage.ok) expect(stage.value.stands.every((stands) => stands)).toBe(true);
    expect(massOf(frame)).toBeGreaterThan(80);
    expect(massOf(frame)).toBeLessThan(320);
  });

  it('of a closed shell gives about a third of half a millimetre across the top of its door, an open one far more', () => {
    const give = (type: 'twoDoor' | 'open') => {
      const { frame, at } = standing(type);
      const stage = stageStiffness(frame, []);
      if (!stage.ok) throw new Error(stage.loose.join());
      const door = { id: 'door', from: at('A3L'), to: at('B3L'), limit: 0.5 };
      const { push, worst } = slackOf(stage.value, door, 200, 0)!;
      return Math.max(Math.abs(push), Math.abs(worst));
    };
    expect(give('twoDoor')).toBeGreaterThan(0.08);
    expect(give('twoDoor')).toBeLessThan(0.3);
    expect(give('open')).toBeGreaterThan(2 * give('twoDoor'));
  });

  it('loses a sheet’s stiffness with the member along its edge, and a part’s with its condition', () => {
    const { model } = standing('estate');
    const whole = frameOf(model, []);
    const cut = frameOf(model, [], new Map([['S1L-S2L', 0]]));
    const t = (frame: typeof whole, code: string) => frame.panels.find(({ id }) => id === code)?.t ?? 0;
    expect(cut.members).toHaveLength(whole.members.length - 1);
    expect(t(cut, 'T1-S1L-S2L-T2') / t(whole, 'T1-S1L-S2L-T2')).toBeCloseTo(0.2, 9);
    expect(t(cut, 'T1-S1R-S2R-T2')).toBe(t(whole, 'T1-S1R-S2R-T2'));
    const half = frameOf(model, [], new Map([['S1L-S2L', 0.5]]));
    expect(t(half, 'T1-S1L-S2L-T2') / t(whole, 'T1-S1L-S2L-T2')).toBeCloseTo(0.6, 9);
  });

  it('has a point that lies on a member as a node of it', () => {
    const { model } = standing('estate');
    const on = withPointsOn(model, [
      { id: 'p', code: 'L9', name: '', at: [1380, 640, 172] },
      { id: 'q', code: 'far', name: '', at: [1380, 100, 900] },
    ]);
    expect(on.nodes.at(-1)).toMatchObject({ code: 'L9', pointId: 'p' });
    expect(on.members.filter(({ code }) => code.startsWith('S1R-S2R')).map(({ code }) => code)).toEqual([
      'S1R-S2R 1',
      'S1R-S2R 2',
    ]);
    expect(on.nodes).toHaveLength(model.nodes.length + 1);
  });

  it('is made of a chart’s own lines where no picture fits', () => {
    const points = ['A', 'B', 'C', 'D'].map((code, i) => ({ id: code, code, name: '', at: [100 * i, 0, 0] as Vector }));
    const { nodes, members } = modelFromLines(points, [
      ['A', 'B'],
      ['B', 'C'],
    ]);
    expect(nodes.map(({ code }) => code)).toEqual(['A', 'B', 'C']);
    expect(members.map(({ code }) => code)).toEqual(['A-B', 'B-C']);
  });
});
