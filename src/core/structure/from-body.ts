import { add, dot, norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import { MEMBER_BOXES, type BodyPicture } from '../shell/bodies/body';
import type { Morph } from './morph';
import type { ModelMember, ModelNode, ShellModel } from './shell-model';

/** A part between places is called by them. */
export const partCode = (codes: readonly string[]): string => codes.join('-');

const KIND_NAME: Readonly<Record<keyof typeof MEMBER_BOXES, string>> = {
  leg: 'chassis leg',
  sill: 'sill',
  post: 'post',
  rail: 'rail',
  crossmember: 'crossmember',
  tunnel: 'tunnel',
  tower: 'strut tower',
  flange: 'flange',
  frame: 'frame',
};

const SIDE_NAME = { left: 'left ', right: 'right ', centre: '' } as const;

/**
 * The structure of a body's picture brought onto a shell: a place that a known point stands at is called by the point's code
 * and stands at it, one that a point was chosen at which nobody measured yet is called by that point's and stands where the picture
 * has it, any other by its own code with a dot before it.
 *
 * @param chosen points chosen at places, by the places' codes
 */
export function modelFromBody(
  { places, members, sheets }: BodyPicture,
  { carry, ties }: Morph,
  chosen: ReadonlyMap<string, { readonly id: string; readonly code: string }> = new Map(),
): ShellModel {
  const taken = new Set([...ties.values()].map(({ id }) => id));
  const nodes = places.map(({ code, name, at }): ModelNode => {
    const tied = ties.get(code);
    if (tied) return { code: tied.code, name, at: tied.at, pointId: tied.id };
    const own = chosen.get(code);
    return own && !taken.has(own.id)
      ? { code: own.code, name, at: carry(at as Vector), pointId: own.id }
      : { code: `.${code}`, name, at: carry(at as Vector), pointId: null };
  });
  const number = new Map(places.map(({ code }, i) => [code, i]));
  const side = (codes: readonly string[]) => {
    const sides = new Set(codes.map((code) => places[number.get(code)!]!.side));
    return SIDE_NAME[sides.size === 1 ? [...sides][0]! : 'centre'];
  };
  return {
    nodes,
    members: members.map(({ from, to, kind }) => ({
      code: partCode([from, to]),
      name: `${side([from, to])}${KIND_NAME[kind]}`,
      from: number.get(from)!,
      to: number.get(to)!,
      ...MEMBER_BOXES[kind],
      condition: 1,
    })),
    sheets: sheets.map(({ name, corners, thickness }) => ({
      code: partCode(corners),
      name: `${side(corners)}${name}`,
      nodes: corners.map((code) => number.get(code)!) as unknown as readonly [number, number, number, number],
      thickness,
      condition: 1,
    })),
  };
}

/** So near a member a point lies on it, mm; so near its end, as a share of it, it does not divide it. */
const ON_MEMBER = 130;
const NEAR_END = 0.12;

/**
 * The model with the points that stand on no node yet as nodes of the members they lie on: each divides the member it is
 * nearest to in two, called by the whole's code and a number.
 */
export function withPointsOn(
  model: ShellModel,
  points: readonly { readonly id: string; readonly code: string; readonly name: string; readonly at: Vector }[],
): ShellModel {
  const nodes = [...model.nodes];
  let members = [...model.members];
  const tied = new Set(nodes.map(({ pointId }) => pointId));
  for (const { id, code, name, at } of points) {
    if (tied.has(id)) continue;
    let best: { readonly member: ModelMember; readonly off: number } | undefined;
    for (const member of members) {
      const [a, b] = [nodes[member.from]!.at, nodes[member.to]!.at];
      const by = subtract(b, a);
      const share = dot(subtract(at, a), by) / dot(by, by);
      const off = norm(subtract(at, add(a, scale(by, share))));
      if (share < NEAR_END || share > 1 - NEAR_END || off > (best?.off ?? ON_MEMBER)) continue;
      best = { member, off };
    }
    if (!best) continue;
    const { member } = best;
    const middle = nodes.push({ code, name, at, pointId: id }) - 1;
    const half = (number: 1 | 2, from: number, to: number) => ({
      ...member,
      code: `${member.code} ${number}`,
      from,
      to,
    });
    members = members.flatMap((each) =>
      each === member ? [half(1, member.from, middle), half(2, middle, member.to)] : [each],
    );
  }
  return { ...model, nodes, members };
}

/** The structure of a chart's own lines, where no picture fits: a member of a usual box to each. */
export function modelFromLines(
  points: readonly { readonly id: string; readonly code: string; readonly name: string; readonly at: Vector }[],
  lines: readonly (readonly [fromId: string, toId: string])[],
): ShellModel {
  const used = new Set(lines.flat());
  const there = points.filter(({ id }) => used.has(id));
  const number = new Map(there.map(({ id }, i) => [id, i]));
  return {
    nodes: there.map(({ id, code, name, at }) => ({ code, name, at, pointId: id })),
    members: lines.flatMap(([a, b]) => {
      const [from, to] = [number.get(a), number.get(b)];
      if (from === undefined || to === undefined) return [];
      const code = partCode([there[from]!.code, there[to]!.code]);
      return [{ code, name: '', from, to, ...MEMBER_BOXES.rail, condition: 1 }];
    }),
    sheets: [],
  };
}
