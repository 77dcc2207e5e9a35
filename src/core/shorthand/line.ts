import type { Measure, Quantity, Side } from '../job/entities';
import { LENGTH_PATTERN, parseLength, plainLengthText, type LengthUnit } from '../units/length';

/** What a line of shorthand can name. Codes are compared without regard to case. */
export interface Subjects {
  readonly points: readonly { readonly id: string; readonly code: string; readonly side: Side }[];
  readonly stations: readonly { readonly id: string; readonly code: string }[];
  /** Charted pairs: how the chart says their length is taken. */
  readonly pairs: readonly {
    readonly fromPointId: string;
    readonly toPointId: string;
    readonly measure: Measure;
  }[];
}

/** One number of a typed line, in millimetres, before it has an identity. */
export interface ShorthandReading {
  readonly quantity: Quantity;
  readonly value: number;
  readonly measure: Measure | null;
  readonly pointId: string | null;
  readonly toPointId: string | null;
  readonly stationId: string | null;
}

export type ParsedLine =
  | {
      readonly ok: true;
      readonly readings: readonly ShorthandReading[];
      readonly warnings: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

const QUANTITY_WORD: Readonly<Record<string, Quantity>> = {
  l: 'length', length: 'length', w: 'width', width: 'width', h: 'height', height: 'height',
  g: 'gap', gap: 'gap', f: 'flush', flush: 'flush',
}; // prettier-ignore

const refuse = (reason: string): ParsedLine => ({ ok: false, reason });

/**
 * Reads one typed line: `F1L S2L 1011.5` (distance), `F1L 120 -410 215` (length, width, height),
 * `F1L h 215`, `DL.3 5.2 0.5` (gap and flush at station 3 of seam DL). Lengths in any form that
 * `parseLength` takes; `tip` or `level` behind a distance overrides what the chart says of the pair.
 * A width without a sign takes the sign of the point's side.
 */
export function parseLine(text: string, subjects: Subjects, unit: LengthUnit): ParsedLine {
  const words = plainLengthText(text).trim().split(/\s+/);
  if (words[0] === '') return refuse('nothing was typed');
  const named = readSubject(words, subjects);
  if (!named.ok) return named;
  const rest = words.slice(named.words).join(' ');
  if (named.kind === 'pair') return readDistance(rest, named.from, named.to, subjects, unit);
  if (named.kind === 'station')
    return readAmounts(rest, STATION_ORDER, unit, finishStation(named.id));
  return readAmounts(rest, POINT_ORDER, unit, finishPoint(named.point));
}

type NamedPoint = Subjects['points'][number];
type Named =
  | { ok: true; kind: 'point'; point: NamedPoint; words: number }
  | { ok: true; kind: 'pair'; from: NamedPoint; to: NamedPoint; words: number }
  | { ok: true; kind: 'station'; id: string; words: number };

function readSubject(
  words: readonly string[],
  subjects: Subjects,
): Named | { ok: false; reason: string } {
  const find = (code: string | undefined) =>
    subjects.points.find((point) => point.code.toLowerCase() === code?.toLowerCase());
  const first = words[0]!;
  const station = subjects.stations.find((each) => each.code.toLowerCase() === first.toLowerCase());
  if (station) return { ok: true, kind: 'station', id: station.id, words: 1 };
  const point = find(first);
  if (point) {
    const joined = /^(to|-|>)$/i.test(words[1] ?? '') ? 2 : 1;
    const to = find(words[joined]);
    if (to) return pair(point, to, joined + 1);
    if (joined === 2) return { ok: false, reason: `no point "${words[2] ?? ''}" in this job` };
    const second = words[1];
    if (second && /^[a-z]/i.test(second) && !startsWithQuantity(second))
      return { ok: false, reason: `no point "${second}" in this job` };
    return { ok: true, kind: 'point', point, words: 1 };
  }
  for (const split of splits(first)) {
    const [from, to] = [find(split[0]), find(split[1])];
    if (from && to) return pair(from, to, 1);
  }
  return { ok: false, reason: `no point or station "${first}" in this job` };

  function pair(
    from: NamedPoint,
    to: NamedPoint,
    count: number,
  ): Named | { ok: false; reason: string } {
    if (from.id === to.id) return { ok: false, reason: `${from.code} to itself has no distance` };
    return { ok: true, kind: 'pair', from, to, words: count };
  }
}

/** `h`, `h215` or `h=215`: a quantity, not the code of a second point. */
const startsWithQuantity = (word: string): boolean =>
  QUANTITY_WORD[word.toLowerCase().replace(/[=\d.,+-].*$/, '')] !== undefined;

/** `F1L-S2L` as its two halves, at every dash or arrow: codes may hold dashes themselves. */
const splits = (word: string): [string, string][] =>
  [...word.matchAll(/[-–>]/g)].map((match) => [
    word.slice(0, match.index),
    word.slice(match.index + 1),
  ]);

function readDistance(
  rest: string,
  from: NamedPoint,
  to: NamedPoint,
  subjects: Subjects,
  unit: LengthUnit,
): ParsedLine {
  const word = /\b(tip|level)\s*$/i.exec(rest);
  const amount = word ? rest.slice(0, word.index) : rest;
  if (amount.trim() === '') return refuse(`${from.code} to ${to.code}: the length is missing`);
  const parsed = parseLength(amount, unit);
  if (!parsed.ok) return refuse(parsed.reason);
  if (parsed.mm <= 0) return refuse(`a distance is above zero, not "${amount.trim()}"`);
  const ends = new Set([from.id, to.id]);
  const charted = subjects.pairs.find(
    (each) => ends.has(each.fromPointId) && ends.has(each.toPointId),
  );
  const measure = (word?.[1]?.toLowerCase() as Measure | undefined) ?? charted?.measure ?? 'tip';
  return {
    ok: true,
    readings: [
      {
        quantity: 'distance',
        value: parsed.mm,
        measure,
        pointId: from.id,
        toPointId: to.id,
        stationId: null,
      },
    ],
    warnings: parsed.warnings,
  };
}

const POINT_ORDER: readonly Quantity[] = ['length', 'width', 'height'];
const STATION_ORDER: readonly Quantity[] = ['gap', 'flush'];

interface Amount {
  readonly quantity: Quantity;
  readonly mm: number;
  readonly signed: boolean;
}

const NEXT_AMOUNT = new RegExp(
  String.raw`^\s*[,;]?\s*(?:([a-z]+)\s*=?\s*)?(${LENGTH_PATTERN})`,
  'i',
);

/** Amounts either each behind its word (`h 215 l 120`) or bare in the usual order. */
function readAmounts(
  rest: string,
  order: readonly Quantity[],
  unit: LengthUnit,
  finish: (amounts: readonly Amount[], warnings: string[]) => ParsedLine,
): ParsedLine {
  if (rest.trim() === '') return refuse('the reading is missing');
  const amounts: Amount[] = [];
  const warnings: string[] = [];
  let bare = true;
  for (let left = rest; left.trim() !== '';) {
    const match = NEXT_AMOUNT.exec(left);
    if (!match || match[2]!.trim() === '') return refuse(`"${left.trim()}" is not a reading`);
    const word = match[1]?.toLowerCase();
    if (word !== undefined) bare = false;
    const quantity = word === undefined ? order[amounts.length] : QUANTITY_WORD[word];
    if (!quantity)
      return refuse(word ? `"${word}" is not a quantity` : 'there is one number too many');
    if (!order.includes(quantity)) return refuse(`a ${quantity} is not read here`);
    if (amounts.some((each) => each.quantity === quantity))
      return refuse(`the ${quantity} is given twice`);
    const parsed = parseLength(match[2]!, unit);
    if (!parsed.ok) return refuse(parsed.reason);
    warnings.push(...parsed.warnings);
    amounts.push({ quantity, mm: parsed.mm, signed: parsed.signed });
    left = left.slice(match[0].length);
  }
  if (order === POINT_ORDER && bare && amounts.length < 3)
    return refuse('say which: l (length), w (width) or h (height), or give all three');
  return finish(amounts, warnings);
}

const finishStation =
  (stationId: string) =>
  (amounts: readonly Amount[], warnings: string[]): ParsedLine => {
    const gap = amounts.find((each) => each.quantity === 'gap');
    if (gap && gap.mm < 0) return refuse('a gap is not below zero: an overlap goes into the log');
    return {
      ok: true,
      readings: amounts.map(({ quantity, mm }) => ({
        quantity, value: mm, measure: null, pointId: null, toPointId: null, stationId,
      })),
      warnings,
    }; // prettier-ignore
  };

const finishPoint =
  (point: NamedPoint) =>
  (amounts: readonly Amount[], warnings: string[]): ParsedLine => ({
    ok: true,
    readings: amounts.map(({ quantity, mm, signed }) => ({
      quantity,
      value: quantity === 'width' && !signed && point.side === 'left' ? -mm : mm,
      measure: null,
      pointId: point.id,
      toPointId: null,
      stationId: null,
    })),
    warnings: [
      ...warnings,
      ...amounts.flatMap(({ quantity, mm, signed }) =>
        quantity === 'width' && signed && crossesOver(point.side, mm)
          ? [`${point.code} is a ${point.side} point, but its width has the other side's sign`]
          : [],
      ),
    ],
  });

const crossesOver = (side: Side, width: number): boolean =>
  (side === 'left' && width > 0) || (side === 'right' && width < 0);
