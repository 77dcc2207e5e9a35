import { z } from 'zod';
import { deviationOf, fitSelected, rootMeanSquare, type Deviation, type RigidMotion } from '@/core/maths/rigid/fit';
import { findUndisturbed } from '@/core/maths/search/undisturbed';
import { duplicateFaults, parseShape, type Parsed } from './faults';

const vector = z.tuple([z.number(), z.number(), z.number()]);

const alignmentRequest = z.strictObject({
  format: z.literal('vinkel.alignment-request/1'),
  mode: z.enum(['selected', 'undisturbed']),
  agree: z.number().positive().optional(),
  points: z.array(
    z.strictObject({
      id: z.string().min(1),
      reference: vector,
      measured: vector,
      sigma: z.number().positive().optional(),
      use: z.boolean().optional(),
    }),
  ),
});

export type AlignmentRequest = z.infer<typeof alignmentRequest>;

/** `vinkel.alignment/1`. */
export interface AlignmentDocument {
  readonly format: 'vinkel.alignment/1';
  readonly rotation: RigidMotion['rotation'];
  readonly translation: RigidMotion['translation'];
  readonly used: readonly string[];
  readonly moved: readonly string[];
  readonly rms: number;
  /** In mode `undisturbed`: the set is shown to be the largest. */
  readonly proven?: boolean;
  readonly points: readonly Deviation[];
}

export function parseAlignmentRequest(value: unknown): Parsed<AlignmentRequest> {
  const shape = parseShape(alignmentRequest, value);
  const points = (value as { points?: unknown } | null)?.points;
  const ids = Array.isArray(points) ? points.map((point: { id?: unknown } | null) => point?.id) : [];
  const repeated = duplicateFaults('points', ids);
  if (!shape.ok) return { ok: false, faults: [...shape.faults, ...repeated] };
  return repeated.length > 0 ? { ok: false, faults: repeated } : shape;
}

export type Computed<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly reason: string };

/** How far points of an agreeing set may be off where the request does not say, mm. */
const USUAL_AGREE = 3;

function computeUndisturbed({ points, agree }: AlignmentRequest): Computed<AlignmentDocument> {
  const fit = fitSelected(points.map((point) => ({ ...point, sigma: 1 })));
  if (!fit.ok) return fit;
  const result = findUndisturbed(points, agree ?? USUAL_AGREE);
  if (!result.ok) return result;
  const { motion, used, moved, proven } = result;
  const deviations = points.map((point) => deviationOf(motion, point));
  return {
    ok: true,
    value: {
      format: 'vinkel.alignment/1',
      ...motion,
      used,
      moved,
      rms: rootMeanSquare(deviations.filter((each) => used.includes(each.id))),
      proven,
      points: deviations,
    },
  };
}

/** Computes the answer to an alignment request. */
export function computeAlignment(request: AlignmentRequest): Computed<AlignmentDocument> {
  if (request.mode === 'undisturbed') return computeUndisturbed(request);
  const points = request.points.map((point) => ({ ...point, sigma: point.sigma ?? 1 }));
  const used = points.filter((point) => point.use === true);
  const fit = fitSelected(used);
  if (!fit.ok) return fit;
  const deviations = points.map((point) => deviationOf(fit.motion, point));
  const usedIds = used.map((point) => point.id);
  return {
    ok: true,
    value: {
      format: 'vinkel.alignment/1',
      ...fit.motion,
      used: usedIds,
      moved: [],
      rms: rootMeanSquare(deviations.filter((each) => usedIds.includes(each.id))),
      points: deviations,
    },
  };
}
