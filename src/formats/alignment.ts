import { z } from 'zod';
import {
  deviationOf,
  fitSelected,
  rootMeanSquare,
  type Deviation,
  type RigidMotion,
} from '@/core/alignment/selected';
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
  readonly points: readonly Deviation[];
}

export function parseAlignmentRequest(value: unknown): Parsed<AlignmentRequest> {
  const shape = parseShape(alignmentRequest, value);
  const points = (value as { points?: unknown } | null)?.points;
  const ids = Array.isArray(points)
    ? points.map((point: { id?: unknown } | null) => point?.id)
    : [];
  const repeated = duplicateFaults('points', ids);
  if (!shape.ok) return { ok: false, faults: [...shape.faults, ...repeated] };
  return repeated.length > 0 ? { ok: false, faults: repeated } : shape;
}

export type Computed<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly reason: string };

/** Computes the answer to an alignment request in mode `selected`. */
export function computeAlignment(request: AlignmentRequest): Computed<AlignmentDocument> {
  if (request.mode === 'undisturbed')
    return {
      ok: false,
      reason: 'mode "undisturbed" is not computed yet: choose the points and use mode "selected"',
    };
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
