import type { Point } from '@/core/shell/job/entities';
import { equivalentBox } from '@/core/structure/box-section';
import { STEEL, type FrameSupport } from '@/core/structure/shell-frame';
import { frameOf, JOINTS, type ShellModel } from '@/core/structure/shell-model';
import { parseJson, type Parsed } from './faults';
import { parseShellDocument, type ShellDocument } from './shell-file';

/** A structure as `vinkel.shell/1`, as it is calculated with: soft joints stand in its E and G, rust in its sections. */
export function structureDocument(model: ShellModel, supports: readonly FrameSupport[]): ShellDocument {
  const frame = frameOf(model, supports);
  const id = (node: number) => frame.nodes[node]!.id;
  return {
    format: 'vinkel.shell/1',
    nodes: frame.nodes.map(({ id: name, at: [x, y, z] }) => ({ id: name, x, y, z })),
    members: frame.members.map(({ from, to, ...member }) => ({ ...member, from: id(from), to: id(to) })),
    panels: frame.panels.map(({ nodes: [a, b, c, d], ...panel }) => ({
      ...panel,
      nodes: [id(a), id(b), id(c), id(d)] as [string, string, string, string],
    })),
    supports: supports.map(({ node, fix }) => ({ node: id(node), fix: [...fix] })),
    loads: [],
  };
}

/**
 * A structure out of a document: a node called as a point of the job stands at it; a member becomes the box that is as good,
 * and what its E lacks of steel with soft joints becomes its condition.
 */
export function modelFromFile(text: string, points: readonly Pick<Point, 'id' | 'code'>[]): Parsed<ShellModel> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const read = parseShellDocument(json.value);
  if (!read.ok) return read;
  const { nodes, members, panels } = read.value;
  const pointOf = new Map(points.map(({ id, code }) => [code, id]));
  const number = new Map(nodes.map(({ id }, i) => [id, i]));
  const at = (id: string) => number.get(id)!;
  const condition = (E: number = STEEL.E) => Math.min(1, Math.max(0.01, E / (JOINTS * STEEL.E)));
  return {
    ok: true,
    value: {
      nodes: nodes.map(({ id, x, y, z }) => ({ code: id, name: '', at: [x, y, z], pointId: pointOf.get(id) ?? null })),
      members: members.map(({ id, from, to, A, Iy, Iz, E }) => ({
        ...{ code: id, name: '', from: at(from), to: at(to), ...equivalentBox({ A, Iy, Iz }) },
        condition: condition(E),
      })),
      sheets: panels.map(({ id, nodes: [a, b, c, d], t, E }) => ({
        ...{ code: id, name: '', thickness: t, condition: condition(E) },
        nodes: [at(a), at(b), at(c), at(d)],
      })),
    },
  };
}
