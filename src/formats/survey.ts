import { z } from 'zod';
import { adjust, type Adjustment } from '@/core/survey/adjust';
import { pointsOf, type Survey, type SurveyReading } from '@/core/survey/survey';
import { duplicateFaults, parseShape, type Fault, type Parsed } from './faults';

const id = z.string().min(1);
const sigma = z.number().positive();
const vector = z.tuple([z.number(), z.number(), z.number()]);
const reading = z.discriminatedUnion('kind', [
  z.strictObject({
    id,
    kind: z.literal('distance'),
    from: id,
    to: id,
    value: z.number().positive(),
    sigma,
    pointers: z.tuple([z.number().min(0), z.number().min(0)]).optional(),
  }),
  z.strictObject({
    id,
    kind: z.literal('plan'),
    from: id,
    to: id,
    value: z.number().positive(),
    sigma,
  }),
  z.strictObject({ id, kind: z.literal('rise'), from: id, to: id, value: z.number(), sigma }),
  z.strictObject({ id, kind: z.literal('height'), point: id, value: z.number(), sigma }),
  z.strictObject({ id, kind: z.literal('offset'), point: id, value: z.number(), sigma }),
  z.strictObject({ id, kind: z.literal('station'), point: id, value: z.number(), sigma }),
  z.strictObject({
    id,
    kind: z.literal('position'),
    point: id,
    value: vector,
    sigma: z.tuple([sigma, sigma, sigma]),
  }),
]);

const surveyDocument = z.strictObject({
  format: z.literal('vinkel.survey/1'),
  points: z.array(
    z.strictObject({
      id,
      x: z.number(),
      y: z.number(),
      z: z.number(),
      hold: z.union([z.literal('fixed'), sigma]).optional(),
    }),
  ),
  readings: z.array(reading),
  options: z.strictObject({ robust: z.boolean().optional() }).optional(),
});

export type SurveyDocument = z.infer<typeof surveyDocument>;

/** Reads `vinkel.survey/1`; every fault of shape and of reference in one run. */
export function parseSurvey(value: unknown): Parsed<SurveyDocument> {
  const shape = parseShape(surveyDocument, value);
  const references = referenceFaults(value);
  if (!shape.ok) return { ok: false, faults: [...shape.faults, ...references] };
  return references.length > 0 ? { ok: false, faults: references } : shape;
}

/** Repeated ids and points that are not there, as far as the document can be read at all. */
function referenceFaults(value: unknown): Fault[] {
  const listed = (key: string): Record<string, unknown>[] => {
    const list = (value as Record<string, unknown> | null)?.[key];
    return Array.isArray(list) ? list.map((each) => (typeof each === 'object' && each !== null ? each : {})) : [];
  };
  const [points, readings] = [listed('points'), listed('readings')];
  const ids = new Set(points.map((point) => point.id));
  const faults = [
    ...duplicateFaults(
      'points',
      points.map((point) => point.id),
    ),
    ...duplicateFaults(
      'readings',
      readings.map((each) => each.id),
    ),
  ];
  readings.forEach((each, i) => {
    for (const end of ['from', 'to', 'point'])
      if (typeof each[end] === 'string' && each[end] !== '' && !ids.has(each[end]))
        faults.push({ path: `readings[${i}].${end}`, message: `no point "${each[end]}"` });
    if (typeof each.from === 'string' && each.from === each.to)
      faults.push({ path: `readings[${i}].to`, message: `"${each.from}" to itself is no reading` });
  });
  return faults;
}

/** The document as the core takes it. */
export const surveyOf = (document: SurveyDocument): Survey => ({
  points: document.points.map(({ id: pointId, x, y, z: height, hold }) => ({
    id: pointId,
    start: [x, y, height] as const,
    ...(hold === undefined ? {} : { hold }),
  })),
  readings: document.readings as readonly SurveyReading[],
});

/**
 * A survey as `vinkel.survey/1`: points that no reading speaks of left out, shared biases made part of the spread, which
 * the format has no place for.
 *
 * @param name what a point is called where it goes by an identity
 */
export function surveyDocumentOf(
  { points, readings }: Survey,
  name: (id: string) => string = (id) => id,
  robust = false,
): SurveyDocument {
  const spoken = new Set(readings.flatMap(pointsOf));
  return {
    format: 'vinkel.survey/1',
    points: points.flatMap(({ id, start: [x, y, z], hold }) =>
      spoken.has(id) || hold !== undefined ? [{ id: name(id), x, y, z, ...(hold === undefined ? {} : { hold }) }] : [],
    ),
    readings: readings.map(({ bias, ...each }) => ({
      ...each,
      ...('point' in each ? { point: name(each.point) } : { from: name(each.from), to: name(each.to) }),
      ...(bias && each.kind !== 'position' ? { sigma: Math.hypot(each.sigma, bias.sigma) } : {}),
    })) as SurveyDocument['readings'],
    options: { robust },
  };
}

export type AdjustmentDocument = { readonly format: 'vinkel.adjustment/1' } & Adjustment;

export function computeAdjustment(
  document: SurveyDocument,
): { readonly ok: true; readonly value: AdjustmentDocument } | { readonly ok: false; readonly reason: string } {
  const result = adjust(surveyOf(document), { robust: document.options?.robust });
  return result.ok ? { ok: true, value: { format: 'vinkel.adjustment/1', ...result.adjustment } } : result;
}
