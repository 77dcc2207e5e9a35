import { cross, dot, norm, scale, subtract, type Matrix3, type Vector } from '../maths/geometry/vector';

/** A shell as a space frame. Millimetres, newtons, MPa, kg/m³; any axes with Z up. */
export interface ShellFrame {
  readonly nodes: readonly FrameNode[];
  readonly members: readonly Member[];
  readonly panels: readonly ShearPanel[];
  readonly struts: readonly Strut[];
  readonly supports: readonly FrameSupport[];
}

export interface FrameNode {
  readonly id: string;
  readonly at: Vector;
}

/** What something is made of. */
export interface Material {
  readonly E: number;
  readonly G: number;
  readonly density: number;
}

export const STEEL: Material = { E: 210_000, G: 80_769, density: 7850 };

/** Section of a member: area, second moments about its local y and z, torsion constant. */
export interface Section {
  readonly A: number;
  readonly Iy: number;
  readonly Iz: number;
  readonly J: number;
}

/** A straight Euler–Bernoulli beam, rigidly joined; its ends by their places among the nodes. */
export interface Member extends Section, Material {
  readonly id: string;
  readonly from: number;
  readonly to: number;
}

/** A sheet between four nodes that carries shear in its plane alone. */
export interface ShearPanel extends Material {
  readonly id: string;
  readonly nodes: readonly [number, number, number, number];
  readonly t: number;
}

/** A bar with a pin at each end. */
export interface Strut extends Pick<Material, 'E' | 'density'> {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly A: number;
}

export const FREEDOMS = ['x', 'y', 'z', 'rx', 'ry', 'rz'] as const;
export type Freedom = (typeof FREEDOMS)[number];

export interface FrameSupport {
  readonly node: number;
  readonly fix: readonly Freedom[];
}

/** Displacements, or forces, of all nodes: six a node, mm and rad, or N and N·mm. */
export type NodeVector = Float64Array;

/** Free fall on the ground, m/s². */
export const GRAVITY = 9.80665;
const PER_CUBIC_METRE = 1e-9;

/** The line between two nodes: its length, and its direction as a unit vector. */
export function lineBetween({ nodes }: Pick<ShellFrame, 'nodes'>, from: number, to: number) {
  const by = subtract(nodes[to]!.at, nodes[from]!.at);
  const length = norm(by);
  return { length, along: scale(by, 1 / length) };
}

/** Unit forces that push the ends of a line apart. */
export function pushingApart(frame: Pick<ShellFrame, 'nodes'>, from: number, to: number): NodeVector {
  const { along } = lineBetween(frame, from, to);
  const load = new Float64Array(6 * frame.nodes.length);
  for (let k = 0; k < 3; k++) {
    load[6 * from + k] = -along[k]!;
    load[6 * to + k] = along[k]!;
  }
  return load;
}

/** How far apart two nodes move along their line, to first order. */
export function apart(frame: Pick<ShellFrame, 'nodes'>, from: number, to: number, moved: NodeVector): number {
  const at = (node: number) => [moved[6 * node]!, moved[6 * node + 1]!, moved[6 * node + 2]!] as const;
  return dot(lineBetween(frame, from, to).along, subtract(at(to), at(from)));
}

/** So nearly vertical a member takes the global Y for its local y. */
const VERTICAL = 1e-6;

/**
 * The local axes of a member as rows: x along it, y = unit(Z × x), or the global Y where it is vertical, z = x × y.
 */
export function localAxes(along: Vector): Matrix3 {
  const level = cross([0, 0, 1], along);
  const size = norm(level);
  const y: Vector = size <= VERTICAL ? [0, 1, 0] : scale(level, 1 / size);
  return [along, y, cross(along, y)];
}

/** Lengths and area of a shear panel a–b–c–d, mm and mm²: its mass is that of two triangles a-b-c and a-c-d. */
export function panelSize({ nodes }: Pick<ShellFrame, 'nodes'>, { nodes: corners }: Pick<ShearPanel, 'nodes'>) {
  const [a, b, c, d] = corners.map((node) => nodes[node]!.at) as [Vector, Vector, Vector, Vector];
  const between = (p: Vector, q: Vector) => norm(subtract(q, p));
  const triangle = (p: Vector, q: Vector, r: Vector) => norm(cross(subtract(q, p), subtract(r, p))) / 2;
  return {
    m: (between(a, b) + between(c, d)) / 2,
    n: (between(b, c) + between(d, a)) / 2,
    area: triangle(a, b, c) + triangle(a, c, d),
  };
}

/** The two pin-ended diagonals that stand for a panel, each with its stiffness E·A/L = G·t·L²/(2·m·n), N/mm. */
export function diagonalsOf(frame: Pick<ShellFrame, 'nodes'>, panel: ShearPanel) {
  const { m, n } = panelSize(frame, panel);
  const [a, b, c, d] = panel.nodes;
  return [
    [a, c],
    [b, d],
  ].map(([from, to]) => {
    const { length } = lineBetween(frame, from!, to!);
    return { from: from!, to: to!, stiffness: (panel.G * panel.t * length ** 2) / (2 * m * n) };
  });
}

/** Mass of a straight bar, kg. */
export const barMass = (density: number, area: number, length: number): number =>
  density * PER_CUBIC_METRE * area * length;

/** Mass of each part and the nodes it hangs on, kg, in equal shares. */
function masses(frame: ShellFrame): { readonly mass: number; readonly nodes: readonly number[] }[] {
  const bar = ({ from, to, A, density }: Pick<Strut, 'from' | 'to' | 'A' | 'density'>) => ({
    mass: barMass(density, A, lineBetween(frame, from, to).length),
    nodes: [from, to],
  });
  return [
    ...frame.members.map(bar),
    ...frame.struts.map(bar),
    ...frame.panels.map((panel) => ({
      mass: panel.density * PER_CUBIC_METRE * panel.t * panelSize(frame, panel).area,
      nodes: panel.nodes,
    })),
  ];
}

export const massOf = (frame: ShellFrame): number => masses(frame).reduce((sum, { mass }) => sum + mass, 0);

/** The shell's own weight on its nodes: half a member's to each end, a quarter of a panel's to each corner. */
export function weightOf(frame: ShellFrame): NodeVector {
  const load = new Float64Array(6 * frame.nodes.length);
  for (const { mass, nodes } of masses(frame))
    for (const node of nodes) load[6 * node + 2]! -= (mass * GRAVITY) / nodes.length;
  return load;
}

/** Pairs of nodes that some element of the stiffness matrix couples: of a panel its two diagonals alone. */
export const couplingsOf = ({ members, struts, panels }: Pick<ShellFrame, 'members' | 'struts' | 'panels'>) => [
  ...[...members, ...struts].map(({ from, to }) => [from, to] as const),
  ...panels.flatMap(({ nodes: [a, b, c, d] }) => [[a, c] as const, [b, d] as const]),
];

/** The places of every part: which nodes it joins. */
export const joinsOf = ({ members, struts, panels }: Pick<ShellFrame, 'members' | 'struts' | 'panels'>) => [
  ...members.map(({ from, to }) => [from, to]),
  ...struts.map(({ from, to }) => [from, to]),
  ...panels.map(({ nodes }) => nodes),
];
