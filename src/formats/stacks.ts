import { z } from 'zod';
import { loadSolver } from '@/core/maths/search/highs';
import { stack } from '@/core/plan/set-up/stacks/stack';
import { duplicateFaults, parseShape, pathText, type Fault, type Parsed } from './faults';
import type { Computed } from './computed';

const id = z.string().min(1);
const count = z.int().min(0);
const piece = z.strictObject({ id, height: z.number().positive(), count });
const head = z.strictObject({ id, height: z.number(), adjust: z.number().min(0), count });
const stacksRequest = z.strictObject({
  format: z.literal('vinkel.stacks/1'),
  pieces: z.array(piece),
  heads: z.array(head),
  mounts: z.array(z.strictObject({ id, height: z.number(), heads: z.array(id), most: count.optional() })),
});

export type StacksRequest = z.infer<typeof stacksRequest>;

/** `vinkel.stacking/1`. */
export interface StackingDocument {
  readonly format: 'vinkel.stacking/1';
  readonly mounts: readonly {
    readonly id: string;
    readonly built: boolean;
    readonly head?: string;
    /** Tallest first. */
    readonly pieces?: readonly string[];
    readonly lift?: number;
  }[];
  readonly built: number;
  readonly pieces: number;
  readonly off: number;
  readonly proven: boolean;
}

/** Pieces in a stack where the file does not say. */
export const USUAL_MOST = 4;
/** Longer than this neither half of a hard problem is worked on, s. */
const MOST_SECONDS = 15;

const listOf = (value: unknown, key: string): { readonly [key: string]: unknown }[] => {
  const list = (value as Record<string, unknown> | null)?.[key];
  return Array.isArray(list) ? list.map((each) => (each && typeof each === 'object' ? each : {})) : [];
};

/** Heads that a mount names and the shelf has not, each with its place. */
function unknownHeads(value: unknown): Fault[] {
  const known = new Set(listOf(value, 'heads').map((each) => each.id));
  return listOf(value, 'mounts').flatMap(({ heads }, i) =>
    (Array.isArray(heads) ? heads : []).flatMap((name: unknown, k) =>
      typeof name === 'string' && name !== '' && !known.has(name)
        ? [{ path: pathText(['mounts', i, 'heads', k]), message: `no head "${name}" on the shelf` }]
        : [],
    ),
  );
}

export function parseStacks(value: unknown): Parsed<StacksRequest> {
  const shape = parseShape(stacksRequest, value);
  const repeated = ['pieces', 'heads', 'mounts'].flatMap((list) =>
    duplicateFaults(
      list,
      listOf(value, list).map((each) => each.id),
    ),
  );
  const faults = [...(shape.ok ? [] : shape.faults), ...repeated, ...unknownHeads(value)];
  return faults.length > 0 ? { ok: false, faults } : shape;
}

/** Computes what to build under each mount. */
export async function computeStacks({ pieces, heads, mounts }: StacksRequest): Promise<Computed<StackingDocument>> {
  const wanted = mounts.map((mount) => ({ ...mount, most: mount.most ?? USUAL_MOST }));
  const { ways, built, pieces: number, off, proven } = stack({ pieces, heads }, wanted, await loadSolver(MOST_SECONDS));
  return {
    ok: true,
    value: {
      format: 'vinkel.stacking/1',
      mounts: mounts.map(({ id }, i) => {
        const way = ways[i];
        if (!way) return { id, built: false };
        const names = way.pieces.map((each) => pieces[each]!.id);
        return { id, built: true, head: heads[way.head]!.id, pieces: names, lift: way.lift };
      }),
      built,
      pieces: number,
      off,
      proven,
    },
  };
}
