import { z } from 'zod';
import { position, type Matrix3, type Motion, type Vector } from '@/core/maths/geometry/vector';
import { deviationOf, fitSelected, rootMeanSquare } from '@/core/maths/rigid/fit';
import { findUndisturbed } from '@/core/maths/search/undisturbed';
import type { Computed } from './computed';
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
  readonly rotation: Matrix3;
  readonly translation: Vector;
  readonly used: readonly string[];
  readonly moved: readonly string[];
  readonly rms: number;
  /** In mode `undisturbed`: the set is shown to be the largest. */
  readonly proven?: boolean;
  readonly points: readonly {
    readonly id: string;
    readonly dx: number;
    readonly dy: number;
    readonly dz: number;
    readonly d: number;
  }[];
}

export function parseAlignmentRequest(value: unknown): Parsed<AlignmentRequest> {
  const shape = parseShape(alignmentRequest, value);
  const points = (value as { points?: unknown } | null)?.points;
  const ids = Array.isArray(points) ? points.map((point: { id?: unknown } | null) => point?.id) : [];
  const repeated = duplicateFaults('points', ids);
  if (!shape.ok) return { ok: false, faults: [...shape.faults, ...repeated] };
  return repeated.length > 0 ? { ok: false, faults: repeated } : shape;
}

/** How far points of an agreeing set may be off where the request does not say, mm. */
const USUAL_AGREE = 3;

/** The points of a request, each position in the axes it is given in. */
const pairsOf = (points: AlignmentRequest['points']) =>
  points.map(({ id, measured, reference, sigma }) => ({
    id,
    measured: position<'round'>(measured),
    reference: position<'chart'>(reference),
    sigma,
  }));

/** What a motion makes of all points, as the document says it. */
function documentOf(
  motion: Motion<'round', 'chart'>,
  points: ReturnType<typeof pairsOf>,
  used: readonly string[],
  moved: readonly string[],
  proven?: boolean,
): AlignmentDocument {
  const { rotation, translation } = motion;
  const deviations = points.map((point) => deviationOf(motion, point));
  return {
    format: 'vinkel.alignment/1',
    rotation,
    translation,
    used,
    moved,
    rms: rootMeanSquare(deviations.filter(({ id }) => used.includes(id))),
    ...(proven === undefined ? {} : { proven }),
    points: deviations.map(({ id, by: [dx, dy, dz], d }) => ({ id, dx, dy, dz, d })),
  };
}

function computeUndisturbed({ points, agree }: AlignmentRequest): Computed<AlignmentDocument> {
  const pairs = pairsOf(points);
  const fit = fitSelected(pairs.map((point) => ({ ...point, sigma: 1 })));
  if (!fit.ok) return fit;
  const result = findUndisturbed(pairs, agree ?? USUAL_AGREE);
  if (!result.ok) return result;
  const { motion, used, moved, proven } = result;
  return { ok: true, value: documentOf(motion, pairs, used, moved, proven) };
}

/** Computes the answer to an alignment request. */
export function computeAlignment(request: AlignmentRequest): Computed<AlignmentDocument> {
  if (request.mode === 'undisturbed') return computeUndisturbed(request);
  const chosen = new Set(request.points.flatMap(({ id, use }) => (use === true ? [id] : [])));
  const pairs = pairsOf(request.points);
  const used = pairs.filter(({ id }) => chosen.has(id)).map((pair) => ({ ...pair, sigma: pair.sigma ?? 1 }));
  const fit = fitSelected(used);
  if (!fit.ok) return fit;
  return { ok: true, value: documentOf(fit.motion, pairs, [...chosen], []) };
}
