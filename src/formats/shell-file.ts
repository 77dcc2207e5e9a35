import { z } from 'zod';
import { FREEDOMS, panelSize, STEEL, type Member, type ShellFrame } from '@/core/structure/shell-frame';
import type { CriticalLength, Stage } from '@/core/structure/slack';
import { duplicateFaults, parseShape, pathText, type Fault, type Parsed } from './faults';

/** `vinkel.shell/1`, the base of all documents about a shell as a structure. */

const id = z.string().min(1);
const number = z.number();
const above = number.positive();
const vector = z.tuple([number, number, number]);
const material = { E: above.optional(), G: above.optional(), density: number.min(0).optional() };
const section = { A: above, Iy: above, Iz: above, J: above };
export const memberSchema = z.strictObject({ id, from: id, to: id, ...section, ...material });

/** The fields every document about a shell has. */
export const SHELL_FIELDS = {
  format: z.literal('vinkel.shell/1'),
  nodes: z.array(z.strictObject({ id, x: number, y: number, z: number })),
  members: z.array(memberSchema),
  panels: z.array(z.strictObject({ id, nodes: z.tuple([id, id, id, id]), t: above, ...material })).default([]),
  supports: z.array(z.strictObject({ node: id, fix: z.array(z.enum(FREEDOMS)) })),
  loads: z.array(z.strictObject({ node: id, force: vector, moment: vector.optional() })).default([]),
  gravity: z.boolean().optional(),
};
const shellDocument = z.strictObject(SHELL_FIELDS);
export type ShellDocument = z.infer<typeof shellDocument>;

/** A member stood on end, or with nothing between its ends, has no direction: nearer than this its ends are one spot, mm. */
const ONE_SPOT = 1e-9;

type Raw = { readonly [key: string]: unknown };

/** The items of a list of a document that may be anything, as objects. */
export const listOf = (value: unknown, key: string): readonly Raw[] => {
  const list = (value as Raw | null)?.[key];
  return Array.isArray(list)
    ? list.map((each: unknown) => (each && typeof each === 'object' ? (each as Raw) : {}))
    : [];
};

const places = (value: unknown): ReadonlyMap<unknown, readonly number[]> =>
  new Map(listOf(value, 'nodes').map((node) => [node.id, [node.x, node.y, node.z] as number[]]));

/** Faults of a name that no node has; one that is no text at all is the schema's. */
export function unknownNode(value: unknown, name: unknown, path: readonly PropertyKey[]): Fault[] {
  if (typeof name !== 'string' || name === '' || places(value).has(name)) return [];
  return [{ path: pathText(path), message: `no node "${name}"` }];
}

/** Faults of two ends that are not there, or are one spot. */
export function lineFaults(value: unknown, part: Raw, path: readonly PropertyKey[]): Fault[] {
  const missing = (['from', 'to'] as const).flatMap((end) => unknownNode(value, part[end], [...path, end]));
  const known = places(value);
  const [a, b] = [known.get(part.from), known.get(part.to)];
  if (missing.length > 0 || !a || !b) return missing;
  const length = Math.hypot(b[0]! - a[0]!, b[1]! - a[1]!, b[2]! - a[2]!);
  return length > ONE_SPOT ? [] : [{ path: pathText(path), message: 'its two ends are one spot: it has no length' }];
}

/** What no schema sees: names that nothing has, parts without a size, twice the same name. */
export function shellFaults(value: unknown): Fault[] {
  const ids = (list: string) =>
    duplicateFaults(
      list,
      listOf(value, list).map((each) => each.id),
    );
  return [
    ...['nodes', 'members', 'panels'].flatMap(ids),
    ...listOf(value, 'members').flatMap((member, i) => lineFaults(value, member, ['members', i])),
    ...listOf(value, 'panels').flatMap((panel, i) => panelFaults(value, panel, i)),
    ...['supports', 'loads'].flatMap((list) =>
      listOf(value, list).flatMap(({ node }, i) => unknownNode(value, node, [list, i, 'node'])),
    ),
    ...duplicateNodes(value, 'supports'),
  ];
}

/** A node that stands twice in a list, by the second place. */
export function duplicateNodes(value: unknown, list: string): Fault[] {
  const seen = new Set<unknown>();
  return listOf(value, list).flatMap(({ node }, i) => {
    if (typeof node !== 'string') return [];
    if (seen.has(node)) return [{ path: pathText([list, i, 'node']), message: `"${node}" stands here twice` }];
    seen.add(node);
    return [];
  });
}

function panelFaults(value: unknown, { nodes }: Raw, i: number): Fault[] {
  if (!Array.isArray(nodes) || nodes.length !== 4) return [];
  const path = ['panels', i, 'nodes'];
  const missing = nodes.flatMap((name: unknown, k) => unknownNode(value, name, [...path, k]));
  if (missing.length > 0) return missing;
  if (new Set(nodes).size < 4) return [{ path: pathText(path), message: 'four different nodes' }];
  const known = places(value);
  const at = nodes.map((name) => known.get(name));
  if (!at.every((place) => place?.every((each) => typeof each === 'number'))) return [];
  const corners = at.map((place) => ({ id: '', at: place as unknown as [number, number, number] }));
  const { m, n, area } = panelSize({ nodes: corners }, { nodes: [0, 1, 2, 3] });
  const sizes = [m, n, area, distance(at[0]!, at[2]!), distance(at[1]!, at[3]!)];
  return sizes.every((size) => size > ONE_SPOT)
    ? []
    : [{ path: pathText(path), message: 'its corners enclose nothing' }];
}

const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((each, k) => b[k]! - each));

/** Reads a document about a shell by its schema and its references, all faults in one go. */
export function parseShell<T>(schema: z.ZodType<T>, value: unknown, more: readonly Fault[] = []): Parsed<T> {
  const shape = parseShape(schema, value);
  const faults = [...(shape.ok ? [] : shape.faults), ...shellFaults(value), ...more];
  return faults.length > 0 ? { ok: false, faults } : shape;
}

export const parseShellDocument = (value: unknown): Parsed<ShellDocument> => parseShell(shellDocument, value);

type ShellParts = Pick<ShellDocument, 'nodes' | 'members' | 'panels' | 'supports'>;

/** Where each node stands among the nodes. */
export const nodeIndex = ({ nodes }: Pick<ShellDocument, 'nodes'>): ReadonlyMap<string, number> =>
  new Map(nodes.map((node, i) => [node.id, i]));

/** The structure a document describes. */
export function frameOf(document: ShellParts): ShellFrame {
  const at = nodeIndex(document);
  return {
    nodes: document.nodes.map((node) => ({ id: node.id, at: [node.x, node.y, node.z] })),
    members: document.members.map((member) => memberOf(member, at)),
    panels: document.panels.map((panel) => ({
      ...{ ...STEEL, ...panel },
      nodes: panel.nodes.map((name) => at.get(name)!) as unknown as [number, number, number, number],
    })),
    struts: [],
    supports: document.supports.map(({ node, fix }) => ({ node: at.get(node)!, fix })),
  };
}

export const memberOf = (member: z.infer<typeof memberSchema>, at: ReadonlyMap<string, number>): Member => ({
  ...{ ...STEEL, ...member },
  from: at.get(member.from)!,
  to: at.get(member.to)!,
});

/** What `slack` reads beside a shell. */
export const SLACK_FIELDS = {
  ...SHELL_FIELDS,
  dimensions: z.array(z.strictObject({ id, from: id, to: id, limit: above })),
  handling: above.default(200),
  stages: z.array(
    z.strictObject({ name: id, remove: z.array(id).default([]), add: z.array(memberSchema).default([]) }),
  ),
};
const slackDocument = z.strictObject(SLACK_FIELDS);
export type SlackDocument = z.infer<typeof slackDocument>;

/** Faults of dimensions and stages: parts that are not there to be removed, names that are taken. */
export function stageFaults(value: unknown): Fault[] {
  const there = new Set(['members', 'panels'].flatMap((list) => listOf(value, list).map((part) => part.id)));
  const stages = listOf(value, 'stages').flatMap((stage, i) => {
    const faults: Fault[] = [];
    const remove = Array.isArray(stage.remove) ? stage.remove : [];
    remove.forEach((name: unknown, k) => {
      if (typeof name === 'string' && !there.delete(name))
        faults.push({
          path: pathText(['stages', i, 'remove', k]),
          message: `no part "${name}" is there to be removed`,
        });
    });
    listOf(stage, 'add').forEach((member, k) => {
      const path = ['stages', i, 'add', k];
      faults.push(...lineFaults(value, member, path));
      if (typeof member.id === 'string' && there.has(member.id))
        faults.push({ path: pathText([...path, 'id']), message: `"${member.id}" is there already` });
      there.add(member.id);
    });
    return faults;
  });
  const names = listOf(value, 'stages').map(({ name }) => name);
  const twice = names.flatMap((name, i) =>
    typeof name === 'string' && names.indexOf(name) < i
      ? [{ path: pathText(['stages', i, 'name']), message: `"${name}" stands here twice` }]
      : [],
  );
  return [
    ...duplicateFaults(
      'dimensions',
      listOf(value, 'dimensions').map((each) => each.id),
    ),
    ...listOf(value, 'dimensions').flatMap((each, i) => lineFaults(value, each, ['dimensions', i])),
    ...stages,
    ...twice,
  ];
}

export const parseSlack = (value: unknown): Parsed<SlackDocument> =>
  parseShell(slackDocument, value, stageFaults(value));

export function lengthsOf({ dimensions, ...document }: SlackDocument): CriticalLength[] {
  const at = nodeIndex(document);
  return dimensions.map((each) => ({ ...each, from: at.get(each.from)!, to: at.get(each.to)! }));
}

export function stagesOf(document: SlackDocument): Stage[] {
  const at = nodeIndex(document);
  return document.stages.map(({ name, remove, add }) => ({
    name,
    remove,
    add: add.map((member) => memberOf(member, at)),
  }));
}
