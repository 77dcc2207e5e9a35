import { cross, dot, norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import type { Stiffener } from '../shell/job/entities';
import { boxSection } from './box-section';
import { localAxes, STEEL, type Section } from './shell-frame';
import type { ModelMember, ShellModel } from './shell-model';

/** Why a stiffener cannot be put on a structure. */
export type StiffenerFault =
  | { readonly kind: 'noMember'; readonly code: string }
  /** The two members a gusset ties do not meet. */
  | { readonly kind: 'apart'; readonly codes: readonly [string, string] };

export type StiffenedResult =
  { readonly ok: true; readonly model: ShellModel } | { readonly ok: false; readonly fault: StiffenerFault };

/** Half a member at most is end. */
const HALF = 0.5;

/** What it weighs, kg. */
export function stiffenerMass({ kind, long, width, height, thickness }: Stiffener): number {
  const area = kind === 'gusset' ? long ** 2 / 2 : (width! + 2 * (height ?? 0)) * long;
  return area * thickness * STEEL.density * 1e-9;
}

/** The structure with metal put on one or two of its members. Nothing else of them changes. */
export function stiffened(model: ShellModel, stiffener: Stiffener): StiffenedResult {
  const { kind, part, otherPart } = stiffener;
  const member = model.members.find(({ code }) => code === part);
  if (!member) return { ok: false, fault: { kind: 'noMember', code: part } };
  if (kind !== 'gusset') {
    const more = kind === 'rib' ? ribOn(member, stiffener) : doublerOn(member, stiffener);
    const share = Math.min(1, stiffener.long / lengthOf(model, member));
    return { ok: true, model: withGain(model, member, more, { bending: share, stretching: share }) };
  }
  const other = model.members.find(({ code }) => code === otherPart);
  if (!other) return { ok: false, fault: { kind: 'noMember', code: otherPart } };
  const shared = [member.from, member.to].find((node) => node === other.from || node === other.to);
  if (shared === undefined || part === otherPart)
    return { ok: false, fault: { kind: 'apart', codes: [part, otherPart] } };
  const normal = cross(awayFrom(model, member, shared), awayFrom(model, other, shared));
  if (norm(normal) < 1e-6) return { ok: false, fault: { kind: 'apart', codes: [part, otherPart] } };
  return {
    ok: true,
    model: [member, other].reduce((built, each) => {
      const share = Math.min(HALF, stiffener.long / lengthOf(model, each));
      // A moment that changes its sign along the member does most at its end: so much of ∫M² lies over that share of it.
      const bending = (1 - (1 - 2 * share) ** 3) / 2;
      return withGain(built, each, gussetOn(model, each, stiffener, normal), { bending, stretching: share });
    }, model),
  };
}

/** The structure with several, one after another; what cannot be put on is left away. */
export const stiffenedBy = (model: ShellModel, stiffeners: readonly Stiffener[]): ShellModel =>
  stiffeners.reduce((built, each) => {
    const result = stiffened(built, each);
    return result.ok ? result.model : built;
  }, model);

const ends = ({ nodes }: ShellModel, { from, to }: ModelMember): readonly [Vector, Vector] => [
  nodes[from]!.at,
  nodes[to]!.at,
];
const lengthOf = (model: ShellModel, member: ModelMember): number => {
  const [a, b] = ends(model, member);
  return norm(subtract(b, a));
};
function awayFrom(model: ShellModel, member: ModelMember, node: number): Vector {
  const [a, b] = ends(model, member);
  const by = member.from === node ? subtract(b, a) : subtract(a, b);
  return scale(by, 1 / norm(by));
}

/** What plates add to a section where they are, mm² and mm⁴. */
type More = Section;

/** Two areas bend together about their common middle (Steiner): what the second adds, `apart` between their centroids. */
const steiner = (a: number, b: number, apart: number): number => ((a * b) / (a + b)) * apart ** 2;

/** A plate flat on the upper or lower face. */
function doublerOn(member: ModelMember, { width, thickness: t }: Stiffener): More {
  const A = width! * t;
  const own = boxSection(member, member.condition);
  return { A, Iy: steiner(own.A, A, (member.height + t) / 2), Iz: (t * width! ** 3) / 12, J: (width! * t ** 3) / 3 };
}

/** A channel standing on the upper or lower face, closed by it: two webs and a crown. */
function ribOn(member: ModelMember, { width, height, thickness: t }: Stiffener): More {
  const [b, h] = [width!, height!];
  const A = t * (2 * h + b);
  const middle = (t * (h ** 2 + b * h)) / A;
  const itself = t * ((2 * h ** 3) / 12 + 2 * h * (h / 2 - middle) ** 2 + b * (h - middle) ** 2);
  const own = boxSection(member, member.condition);
  return {
    A,
    Iy: itself + steiner(own.A, A, member.height / 2 + middle),
    Iz: t * (2 * h * (b / 2) ** 2 + b ** 3 / 12),
    // Bredt: a closed cell beside the closed cell of the member.
    J: (4 * (b * h) ** 2 * t) / (2 * (b + h)),
  };
}

/** Half as deep as its leg on average, beside the member in the plane of both. */
function gussetOn(model: ShellModel, member: ModelMember, { long, thickness: t }: Stiffener, normal: Vector): More {
  const A = (t * long) / 2;
  const own = boxSection(member, member.condition);
  const [a, b] = ends(model, member);
  const by = subtract(b, a);
  const [, y, z] = localAxes(scale(by, 1 / norm(by)));
  const about = (axis: Vector) => (dot(normal, axis) / norm(normal)) ** 2;
  const deep = (size: number) => (t * (long / 2) ** 3) / 12 + steiner(own.A, A, size / 2 + long / 4);
  return { A, Iy: about(y) * deep(member.height), Iz: about(z) * deep(member.width), J: 0 };
}

/**
 * A member that is stiffer over a share of its length is, as a whole, as soft as its stiff and its plain length one after the
 * other: 1/X′ = share/(X + ΔX) + (1 − share)/X.
 */
function withGain(
  model: ShellModel,
  member: ModelMember,
  more: More,
  share: { readonly bending: number; readonly stretching: number },
): ShellModel {
  const own = boxSection(member, member.condition);
  const gain = (key: keyof Section, over: number) => {
    const stiff = own[key] / (own[key] + more[key]);
    return (member.gain?.[key] ?? 1) / (over * stiff + 1 - over);
  };
  const changed: ModelMember = {
    ...member,
    gain: {
      A: gain('A', share.stretching),
      Iy: gain('Iy', share.bending),
      Iz: gain('Iz', share.bending),
      J: gain('J', share.stretching),
    },
  };
  return { ...model, members: model.members.map((each) => (each.code === member.code ? changed : each)) };
}
