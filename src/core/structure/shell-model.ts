import { dot, norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import { boxSection, type Box } from './box-section';
import { STEEL, type FrameSupport, type Section, type ShellFrame } from './shell-frame';

/** A shell as its members and sheets, before anything is worked out of it. Chart axes, mm; places by their numbers. */
export interface ShellModel {
  readonly nodes: readonly ModelNode[];
  readonly members: readonly ModelMember[];
  readonly sheets: readonly ModelSheet[];
}

export interface ModelNode {
  readonly code: string;
  readonly name: string;
  readonly at: Vector;
  /** The point of the chart it stands at. */
  readonly pointId: string | null;
}

/** What a node is called: by the code of its point, or by the place of the picture where none was measured. */
export function nodeWord({ code, name, pointId }: ModelNode): string {
  if (pointId !== null || name === '') return code;
  return [name, ...(code.endsWith('L') ? ['left'] : code.endsWith('R') ? ['right'] : [])].join(', ');
}

/** Part of a structure: called the same in every edition; `condition` is what rust left of it, 0 … 1. */
interface Part {
  readonly code: string;
  readonly name: string;
  readonly condition: number;
}

export interface ModelMember extends Part, Box {
  readonly from: number;
  readonly to: number;
  /** By how much metal put on it makes its section better; not said: nothing is put on. */
  readonly gain?: Section;
}

export interface ModelSheet extends Part {
  readonly nodes: readonly [number, number, number, number];
  /** mm */
  readonly thickness: number;
}

/**
 * What soft joints, curves and holes leave of the stiffness that rigidly joined boxes would have: so taken, a sound closed shell
 * gives about a third of half a millimetre across its door openings at 200 N.
 */
export const JOINTS = 0.5;
/**
 * What ribs, curves, holes and buckling leave of the shear stiffness of a flat sheet: a ribbed floor or a bowed roof warps where a
 * flat one would shear.
 */
export const RIBBED = 0.15;

/** What is left of each part, by its code: 0 where all of it is out, 1 where it is whole. */
export type Left = ReadonlyMap<string, number>;

export const WHOLE: Left = new Map();

/** What a sheet still carries once the member along one of its edges is gone: its edge is free, and folds away. */
const FREE_EDGE = 0.2;
/** So near the line between two corners a node lies on an edge, mm. */
const ON_EDGE = 60;

/** How much of a sheet's stiffness its edges leave it: least where most of the member along one of them is out. */
function edgeShare(
  nodes: readonly ModelNode[],
  members: readonly ModelMember[],
  { nodes: corners }: ModelSheet,
  leftOf: (code: string) => number,
): number {
  let least = 1;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % 4]!;
    for (const { code, from, to } of members) {
      const left = leftOf(code);
      if (left < least && isOnEdge(nodes, a, b, from) && isOnEdge(nodes, a, b, to)) least = left;
    }
  });
  return FREE_EDGE + (1 - FREE_EDGE) * least;
}

/** Whether a node is one of two corners, or lies on the line between them. */
function isOnEdge(nodes: readonly ModelNode[], a: number, b: number, node: number): boolean {
  if (node === a || node === b) return true;
  const [from, by] = [nodes[a]!.at, subtract(nodes[b]!.at, nodes[a]!.at)];
  const off = subtract(nodes[node]!.at, from);
  const along = dot(off, by) / dot(by, by);
  return along > 0 && along < 1 && norm(subtract(off, scale(by, along))) < ON_EDGE;
}

const times = ({ A, Iy, Iz, J }: Section, gain: Section | undefined): Section =>
  gain ? { A: A * gain.A, Iy: Iy * gain.Iy, Iz: Iz * gain.Iz, J: J * gain.J } : { A, Iy, Iz, J };

/**
 * The model as a frame: boxes become sections and sheets shear panels.
 *
 * @param left      what is still there of each part; a part of which nothing is left is not there
 * @param stiffness factor on the stiffness of everything, not on its weight: what a press test found, or a half or twice
 */
export function frameOf(
  { nodes, members, sheets }: ShellModel,
  supports: readonly FrameSupport[],
  left: Left = WHOLE,
  stiffness = 1,
): ShellFrame {
  const factor = JOINTS * stiffness;
  const material = { ...STEEL, E: STEEL.E * factor, G: STEEL.G * factor };
  const leftOf = (code: string) => left.get(code) ?? 1;
  return {
    nodes: nodes.map(({ code, at }) => ({ id: code, at })),
    members: members.flatMap((member) => {
      const share = leftOf(member.code);
      if (share <= 0) return [];
      const section = boxSection(member, member.condition * share);
      return [{ id: member.code, from: member.from, to: member.to, ...times(section, member.gain), ...material }];
    }),
    panels: sheets.flatMap((sheet) => {
      const { code, nodes: corners, thickness, condition } = sheet;
      const share = leftOf(code) * edgeShare(nodes, members, sheet, leftOf);
      return share <= 0
        ? []
        : [{ id: code, nodes: corners, t: thickness * condition * share, ...material, G: material.G * RIBBED }];
    }),
    struts: [],
    supports,
  };
}
