import { z } from 'zod';
import { yieldUnder } from '@/core/structure/yielding';
import type { Computed } from './computed';
import { duplicateFaults, pathText, type Fault, type Parsed } from './faults';
import { named } from './frame';
import { directionFaults, unit } from './pulling';
import { frameOf, listOf, nodeIndex, parseShell, SHELL_FIELDS } from './shell-file';

const id = z.string().min(1);
const above = z.number().positive();

/** `vinkel.shell/1` with where its members may yield, and the pulls on it. */
const yieldDocument = z.strictObject({
  ...SHELL_FIELDS,
  hinges: z.array(
    z.strictObject({ id, member: id, end: z.enum(['from', 'to']), about: z.enum(['y', 'z']), moment: above }),
  ),
  pulls: z.array(
    z.strictObject({
      node: id,
      direction: z.tuple([z.number(), z.number(), z.number()]),
      force: above,
      against: id.optional(),
    }),
  ),
});
export type YieldDocument = z.infer<typeof yieldDocument>;

type Moved = readonly { readonly id: string; readonly ux: number; readonly uy: number; readonly uz: number }[];

/** `vinkel.yielding/1`. */
export interface YieldingAnswer {
  readonly format: 'vinkel.yielding/1';
  readonly first: number | null;
  readonly loaded: Moved;
  readonly released: Moved;
  readonly hinges: readonly { readonly id: string; readonly turned: number; readonly moment: number }[];
}

/** Faults of hinges on members that are not there, and of two at one place. */
function hingeFaults(value: unknown): Fault[] {
  const members = new Set(listOf(value, 'members').map((member) => member.id));
  const seen = new Set<string>();
  return listOf(value, 'hinges').flatMap(({ member, end, about }, i): Fault[] => {
    if (typeof member !== 'string' || member === '') return [];
    if (!members.has(member)) return [{ path: pathText(['hinges', i, 'member']), message: `no member "${member}"` }];
    const place = `${member} ${String(end)} ${String(about)}`;
    if (seen.has(place))
      return [{ path: pathText(['hinges', i]), message: 'a second hinge at the same end about the same axis' }];
    seen.add(place);
    return [];
  });
}

export const parseYield = (value: unknown): Parsed<YieldDocument> =>
  parseShell(yieldDocument, value, [
    ...hingeFaults(value),
    ...directionFaults(value, 'pulls'),
    ...duplicateFaults(
      'hinges',
      listOf(value, 'hinges').map((each) => each.id),
    ),
  ]);

/** Computes what pulls move while they are on, and what they leave behind. */
export function computeYielding(document: YieldDocument): Computed<YieldingAnswer> {
  const frame = frameOf(document);
  const at = nodeIndex(document);
  const memberAt = new Map(document.members.map((member, i) => [member.id, i]));
  const load = new Float64Array(6 * frame.nodes.length);
  for (const { node, direction, force, against } of document.pulls)
    unit(direction).forEach((share, k) => {
      load[6 * at.get(node)! + k]! += force * share;
      if (against !== undefined) load[6 * at.get(against)! + k]! -= force * share;
    });
  const hinges = document.hinges.map((hinge) => ({ ...hinge, member: memberAt.get(hinge.member)! }));
  const result = yieldUnder(frame, hinges, load);
  if (!result.ok)
    return {
      ok: false,
      reason:
        result.why === 'loose'
          ? `nothing holds ${named(result.nodes)}: add a support or a member there`
          : `the hinges ${named(result.hinges)} let the load grow no further than ${result.share.toPrecision(6)} of it: pull less, or hold it elsewhere`,
    };
  const { first, loaded, released, hinges: turned } = result.value;
  const moved = (of: Float64Array): Moved =>
    frame.nodes.map((node, i) => ({ id: node.id, ux: of[6 * i]!, uy: of[6 * i + 1]!, uz: of[6 * i + 2]! }));
  return {
    ok: true,
    value: {
      format: 'vinkel.yielding/1',
      first,
      loaded: moved(loaded),
      released: moved(released),
      hinges: document.hinges.map((hinge, i) => ({ id: hinge.id, ...turned[i]! })),
    },
  };
}
