import { z } from 'zod';
import { norm, scale, type Vector } from '@/core/maths/geometry/vector';
import { evenRoom } from '@/core/plan/pulls/room';
import { choosePulls } from '@/core/plan/pulls/choose';
import type { Computed } from './computed';
import { duplicateFaults, pathText, type Fault, type Parsed } from './faults';
import { named } from './frame';
import { duplicateNodes, frameOf, listOf, nodeIndex, parseShell, SHELL_FIELDS, unknownNode } from './shell-file';

const id = z.string().min(1);
const above = z.number().positive();
const vector = z.tuple([z.number(), z.number(), z.number()]);

/** `vinkel.shell/1` with what is wanted, what is kept and the pulls there could be. */
const pullDocument = z.strictObject({
  ...SHELL_FIELDS,
  wanted: z.array(z.strictObject({ node: id, move: vector, limit: above })),
  keep: z.array(z.strictObject({ node: id, limit: above })),
  pulls: z.array(z.strictObject({ id, node: id, direction: vector, most: above, against: id.optional() })),
  together: z.int().min(1).max(6),
});
export type PullDocument = z.infer<typeof pullDocument>;

/** `vinkel.pulling/1`. */
export interface PullingAnswer {
  readonly format: 'vinkel.pulling/1';
  readonly pulls: readonly { readonly id: string; readonly force: number }[];
  readonly error: number;
  readonly before: number;
  readonly nodes: readonly { readonly node: string; readonly moved: Vector; readonly left: Vector }[];
  readonly kept: readonly { readonly node: string; readonly moved: Vector }[];
  readonly proven: boolean;
}

/** Faults of a direction that points nowhere, and of a force against its own node. */
export function directionFaults(value: unknown, list: string): Fault[] {
  return listOf(value, list).flatMap(({ node, direction, against }, i): Fault[] => [
    ...unknownNode(value, node, [list, i, 'node']),
    ...unknownNode(value, against, [list, i, 'against']),
    ...(Array.isArray(direction) && direction.length === 3 && direction.every((each) => each === 0)
      ? [{ path: pathText([list, i, 'direction']), message: 'it points nowhere: its length is zero' }]
      : []),
    ...(typeof node === 'string' && node !== '' && node === against
      ? [{ path: pathText([list, i, 'against']), message: 'a pull against its own node does nothing' }]
      : []),
  ]);
}

export const parsePull = (value: unknown): Parsed<PullDocument> =>
  parseShell(pullDocument, value, [
    ...['wanted', 'keep'].flatMap((list) => [
      ...listOf(value, list).flatMap(({ node }, i) => unknownNode(value, node, [list, i, 'node'])),
      ...duplicateNodes(value, list),
    ]),
    ...directionFaults(value, 'pulls'),
    ...duplicateFaults(
      'pulls',
      listOf(value, 'pulls').map((each) => each.id),
    ),
  ]);

export const unit = (direction: Vector): Vector => scale(direction, 1 / norm(direction));

/** Computes which pulls have the shape of what is wanted. */
export function computePulling(document: PullDocument): Computed<PullingAnswer> {
  const { wanted, keep, pulls, together } = document;
  const at = nodeIndex(document);
  const place = (name: string) => at.get(name)!;
  const result = choosePulls(
    frameOf(document),
    wanted.map(({ node, ...rest }) => ({ node: place(node), ...rest })),
    keep.map(({ node, limit }) => ({ node: place(node), ...evenRoom(limit) })),
    pulls.map(({ node, direction, most, against }) => ({
      ...{ node: place(node), direction: unit(direction), most },
      ...(against === undefined ? {} : { against: place(against) }),
    })),
    together,
  );
  if (!result.ok) return { ok: false, reason: `nothing holds ${named(result.loose)}: add a support or a member there` };
  const { forces, error, before, moved, kept, proven } = result.value;
  return {
    ok: true,
    value: {
      format: 'vinkel.pulling/1',
      pulls: pulls
        .map((pull, i) => ({ id: pull.id, force: forces[i]! }))
        .filter(({ force }) => force > 0)
        .toSorted((a, b) => b.force - a.force),
      ...{ error, before },
      nodes: wanted.map(({ node, move }, i) => ({
        node,
        moved: moved[i]!,
        left: move.map((value, k) => value - moved[i]![k]!) as unknown as Vector,
      })),
      kept: keep.map(({ node }, i) => ({ node, moved: kept[i]! })),
      proven,
    },
  };
}
