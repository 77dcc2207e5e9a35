import { mirroredCode } from '../shell/mirrored-code';
import { predict } from './prediction';
import { numberSlips, PRIOR, type CauseKind, type MakeSlip, type TypedAmount } from './slips';
import type { NetSolution } from './solve';
import { COORDINATE_AXIS, isPair, tipDistance, type SurveyReading } from './survey';

export type { CauseKind } from './slips';

/** A misreading that would make a reading fit. */
export interface Cause {
  readonly kind: CauseKind;
  /** `the tape was started at 100 mm`. */
  readonly text: string;
  /** The reading as it should have been typed. */
  readonly corrected: SurveyReading;
  /** Its misfit after the correction, in standard deviations. */
  readonly w: number;
  /** The kind is known, but not which of several points was meant: only measuring again tells. */
  readonly ambiguous: boolean;
}

/** What is known of a reading besides its number. */
export interface ReadingFacts {
  /** The number as it was typed, in the unit it was typed in; the value in mm where absent. */
  readonly typed?: TypedAmount;
  /** Diameters of holes, mm, by point. */
  readonly holes?: ReadonlyMap<string, number>;
  /** The point on the other side, by point. */
  readonly opposite?: ReadonlyMap<string, string | undefined>;
  /** What a point is called where it goes by an identity. */
  readonly name?: (id: string) => string;
}

/** A cause must bring the reading within this many of its standard deviations … */
const FITS = 2;
/** … and be this many times likelier than any rival, a blunder of no known kind included. */
const LIKELIER = 10;
/** Spread of blunders of no known kind: even to here, then falling with the square, mm. */
const BLUNDER_REACH = 200;
/** Holes nearer than this to a point are its neighbours, mm. */
const NEIGHBOUR = 160;

/**
 * Names the misreading behind a reading that the rest of its net contradicts.
 *
 * Each candidate is compared with what the net without the reading predicts: its likelihood is the
 * prior times the normal density of the misfit, that of a plain blunder a broad density of the error
 * (Bayes factor against a diffuse alternative).
 *
 * @param without the net solved without the reading
 * @param axis    component of a position, 0 … 2
 */
export function likelyCause(
  without: NetSolution,
  reading: SurveyReading,
  facts: ReadingFacts = {},
  axis = 0,
): Cause | undefined {
  const judged = candidates(without, reading, facts, axis).map((candidate) => {
    const { value, variance } = predict(without, candidate.corrected, axis);
    const sd = Math.sqrt(sigmaOf(candidate.corrected, axis) ** 2 + variance);
    const w = (valueOf(candidate.corrected, axis) - value) / sd;
    const density = Math.exp(-(w ** 2) / 2) / (sd * Math.sqrt(2 * Math.PI));
    return { ...candidate, w, likelihood: (PRIOR[candidate.kind] / candidate.among) * density };
  });
  judged.sort((a, b) => b.likelihood - a.likelihood);
  const [best] = judged;
  if (!best || Math.abs(best.w) > FITS) return undefined;
  const error = Math.abs(valueOf(reading, axis) - predict(without, reading, axis).value);
  const blunder = error < BLUNDER_REACH ? 0.5 / BLUNDER_REACH : (0.5 * BLUNDER_REACH) / error ** 2;
  // Which end was exchanged often cannot be told on a symmetrical shell; that it was, can.
  const alike = judged.filter(
    (each) =>
      each !== best &&
      each.kind === best.kind &&
      EITHER_END.has(each.kind) &&
      each.likelihood * LIKELIER > best.likelihood,
  );
  const rival = judged.find((each) => each !== best && !alike.includes(each));
  if (best.likelihood < LIKELIER * Math.max(blunder * 0.5, rival?.likelihood ?? 0)) return undefined;
  return {
    kind: best.kind,
    text: [best, ...alike].map((each) => each.text).join(', or '),
    corrected: best.corrected,
    w: best.w,
    ambiguous: alike.length > 0,
  };
}

/** Kinds of which the same sort at another end is no rival. */
const EITHER_END: ReadonlySet<CauseKind> = new Set<CauseKind>(['sidesExchanged', 'neighbouringHole', 'edgeForCentre']);

interface Candidate {
  readonly kind: CauseKind;
  readonly text: string;
  readonly corrected: SurveyReading;
  /** Over how many like it the prior is spread. */
  readonly among: number;
}

const valueOf = (reading: SurveyReading, axis: number): number =>
  reading.kind === 'position'
    ? reading.value[axis]!
    : tipDistance(reading.value, isPair(reading) ? reading.pointers : undefined);

const sigmaOf = (reading: SurveyReading, axis: number): number =>
  Math.hypot(reading.kind === 'position' ? reading.sigma[axis]! : reading.sigma, reading.bias?.sigma ?? 0);

/** The reading with another number. */
function withValue(reading: SurveyReading, value: number, axis: number): SurveyReading {
  if (reading.kind !== 'position') return { ...reading, value };
  const position = [...reading.value] as [number, number, number];
  position[axis] = value;
  return { ...reading, value: position };
}

function candidates(without: NetSolution, reading: SurveyReading, facts: ReadingFacts, axis: number): Candidate[] {
  // Nobody typed the place of a gauge.
  if (reading.kind === 'position' && reading.body) return [];
  const raw = reading.kind === 'position' ? reading.value[axis]! : reading.value;
  const taped = reading.kind === 'distance' || reading.kind === 'plan';
  const width = reading.kind === 'offset' || (reading.kind === 'position' && axis === 1);
  const number = (kind: CauseKind, text: string, value: number, among = 1): Candidate => ({
    kind,
    text,
    corrected: withValue(reading, value, axis),
    among,
  });
  return [
    ...numberSlips(raw, { taped, signed: width, typed: facts.typed }, number),
    ...(taped ? edges(reading, raw, facts, number) : []),
    ...(isPair(reading) ? otherPoints(without, reading, facts) : []),
    ...(reading.kind === 'distance' ? pointers(without, reading) : []),
  ];
}

/** Between an edge and a centre lies half a diameter, at one end or at both. */
function edges(reading: SurveyReading, raw: number, { holes }: ReadingFacts, make: MakeSlip<Candidate>): Candidate[] {
  if (!holes || !isPair(reading)) return [];
  const radii = [reading.from, reading.to].flatMap((id) => {
    const diameter = holes.get(id);
    return diameter ? [diameter / 2] : [];
  });
  const both = radii.length === 2 ? [radii[0]! + radii[1]!] : [];
  const amounts = [...new Set([...radii, ...both])];
  return amounts.flatMap((amount) => [
    make('edgeForCentre', 'the edge of a hole was taken for its centre', raw + amount, 2 * amounts.length),
    make('edgeForCentre', 'the edge of a hole was taken for its centre', raw - amount, 2 * amounts.length),
  ]);
}

/** The same number between other points: the other side, or the hole beside. */
function otherPoints(
  without: NetSolution,
  reading: Extract<SurveyReading, { from: string }>,
  { opposite, name = (id) => id }: ReadingFacts,
): Candidate[] {
  const exchange = (end: 'from' | 'to', id: string): SurveyReading => ({ ...reading, [end]: id });
  const result: Candidate[] = [];
  const sides = (['from', 'to'] as const).flatMap((end) => {
    const id = opposite?.has(reading[end]) ? opposite.get(reading[end]) : mirroredCode(reading[end]);
    const other = end === 'from' ? reading.to : reading.from;
    return id !== undefined && known(without, id) && id !== other ? [{ end, id }] : [];
  });
  for (const { end, id } of sides)
    result.push({
      kind: 'sidesExchanged',
      text: `left and right were exchanged: ${name(id)} instead of ${name(reading[end])}`,
      corrected: exchange(end, id),
      among: sides.length,
    });
  const beside = (['from', 'to'] as const).flatMap((end) =>
    neighbours(without, reading[end])
      .filter((id) => id !== reading.from && id !== reading.to && !sides.some((side) => side.id === id))
      .map((id) => ({ end, id })),
  );
  for (const { end, id } of beside)
    result.push({
      kind: 'neighbouringHole',
      text: `it was read at the hole beside: ${name(id)} instead of ${name(reading[end])}`,
      corrected: exchange(end, id),
      among: beside.length,
    });
  return result;
}

const known = (solution: NetSolution, id: string): boolean => solution.survey.points.some((point) => point.id === id);

function neighbours({ survey, x }: NetSolution, id: string): string[] {
  const i = survey.points.findIndex((point) => point.id === id);
  if (i < 0) return [];
  return survey.points.flatMap((point, j) => {
    const apart = Math.hypot(x[3 * j]! - x[3 * i]!, x[3 * j + 1]! - x[3 * i + 1]!, x[3 * j + 2]! - x[3 * i + 2]!);
    return j !== i && apart < NEIGHBOUR ? [point.id] : [];
  });
}

/** Pointers of unequal length that were not entered, or entered though they were equal. */
function pointers(without: NetSolution, reading: Extract<SurveyReading, { from: string }>): Candidate[] {
  if (reading.pointers && reading.pointers[0] !== reading.pointers[1])
    return [
      {
        kind: 'pointers',
        text: 'the pointers were of equal length',
        corrected: { ...reading, pointers: undefined },
        among: 1,
      },
    ];
  const index = (id: string) => without.survey.points.findIndex((point) => point.id === id);
  const rise = without.x[3 * index(reading.to) + 2]! - without.x[3 * index(reading.from) + 2]!;
  if (Math.abs(rise) < 15) return [];
  return [
    {
      kind: 'pointers',
      text: 'the pointers were set to two heights and that was not entered',
      corrected: { ...reading, pointers: rise > 0 ? [rise, 0] : [0, -rise] },
      among: 1,
    },
  ];
}

export const axisWord = (reading: SurveyReading, axis: number): string =>
  reading.kind === 'position'
    ? ['length', 'width', 'height'][axis]!
    : isPair(reading)
      ? reading.kind
      : { x: 'length', y: 'width', z: 'height' }[COORDINATE_AXIS[reading.kind]];
