import type { Measure, Quantity, Side } from '../job/entities';
import { LENGTH_PATTERN, parseLength, plainLengthText, type LengthUnit } from '../../maths/units/length';
import { readHead, readHole, type NamedHole } from './gauge-line';
import { NOTHING, refuse, type ParsedLine, type Subjects } from './parsed';

export { NOTHING } from './parsed';
export type { ParsedLine, ShorthandReading, Subjects } from './parsed';

const QUANTITY_WORD: Readonly<Record<string, Quantity>> = {
  l: 'length',
  length: 'length',
  w: 'width',
  width: 'width',
  h: 'height',
  height: 'height',
  g: 'gap',
  gap: 'gap',
  f: 'flush',
  flush: 'flush',
};

/**
 * Reads one typed line: `F1L S2L 1011.5` (distance), `F1L 120 -410 215` (length, width, height),
 * `F1L h 215`, `DL.3 5.2 0.5` (gap and flush at station 3 of seam DL), `F1L S2L 1005 p 120 300` (a tram
 * gauge with pointers of 120 at the first and 300 at the second point), `F1L S2L 996 & 1027` (inner and outer
 * edges of unequal holes, entered as one), `F2L head tight 0.5` (a fixture head enters `free`, `tight` or not,
 * `no`; its clearance behind it), `S2L axle.1 centred`, `S2L axle.1 4 rear` or `S2L axle.1 no` (hole 1 of the part
 * `axle`, bolted up as a gauge, is over its point, the point lies 4 to its rear, or the bolt will not go in). Lengths in any form that
 * `parseLength` takes; `tip` or `level` behind a distance overrides what the chart says of the pair.
 * A width without a sign takes the sign of the point's side.
 */
export function parseLine(text: string, subjects: Subjects, unit: LengthUnit): ParsedLine {
  const words = withoutListCommas(plainLengthText(text).trim()).split(/\s+/);
  if (words[0] === '') return refuse('nothing was typed');
  const named = readSubject(words, subjects);
  if (!named.ok) return named;
  const rest = words.slice(named.words).join(' ');
  if (named.kind === 'point' && /^head\b/i.test(rest)) return readHead(rest, named.point, unit);
  if (named.kind === 'pair') return readDistance(rest, named.from, named.to, subjects, unit);
  if (named.kind === 'hole') return readHole(rest, named.point, named.hole, unit);
  if (named.kind === 'station') return readAmounts(rest, STATION_ORDER, unit, finishStation(named.id));
  return readAmounts(rest, POINT_ORDER, unit, finishPoint(named.point));
}

/** `FL, FR, 1230` as people list things: a comma behind a code is a blank; one in a number stays. */
const withoutListCommas = (text: string): string =>
  text.replace(/^([a-z][\w.]*)\s*,\s*/i, '$1 ').replace(/^(\S+\s+[a-z][\w.]*)\s*,\s*/i, '$1 ');

type NamedPoint = Subjects['points'][number];
type Named =
  | { ok: true; kind: 'point'; point: NamedPoint; words: number }
  | { ok: true; kind: 'pair'; from: NamedPoint; to: NamedPoint; words: number }
  | { ok: true; kind: 'hole'; point: NamedPoint; hole: NamedHole; words: number }
  | { ok: true; kind: 'station'; id: string; words: number };

function readSubject(words: readonly string[], subjects: Subjects): Named | { ok: false; reason: string } {
  const find = (code: string | undefined) =>
    subjects.points.find((point) => point.code.toLowerCase() === code?.toLowerCase());
  const first = words[0]!;
  const station = subjects.stations.find((each) => each.code.toLowerCase() === first.toLowerCase());
  if (station) return { ok: true, kind: 'station', id: station.id, words: 1 };
  const point = find(first);
  if (point) {
    const hole = subjects.partHoles?.find(({ code }) => code.toLowerCase() === words[1]?.toLowerCase());
    if (hole) return { ok: true, kind: 'hole', point, hole, words: 2 };
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

  function pair(from: NamedPoint, to: NamedPoint, count: number): Named | { ok: false; reason: string } {
    if (from.id === to.id) return { ok: false, reason: `${from.code} to itself has no distance` };
    return { ok: true, kind: 'pair', from, to, words: count };
  }
}

/** `h`, `h215` or `h=215`: a quantity, not the code of a second point. */
const startsWithQuantity = (word: string): boolean =>
  /^head$/i.test(word) || QUANTITY_WORD[word.toLowerCase().replace(/[=\d.,+-].*$/, '')] !== undefined;

/** `F1L-S2L` as its two halves, at every dash or arrow: codes may hold dashes themselves. */
const splits = (word: string): [string, string][] =>
  [...word.matchAll(/[-–>]/g)].map((match) => [word.slice(0, match.index), word.slice(match.index + 1)]);

function readDistance(
  rest: string,
  from: NamedPoint,
  to: NamedPoint,
  subjects: Subjects,
  unit: LengthUnit,
): ParsedLine {
  const word = /\b(tip|level)\s*$/i.exec(rest);
  const pointed = readPointers(word ? rest.slice(0, word.index) : rest, unit);
  if (!pointed.ok) return refuse(pointed.reason);
  const { amount, pointers } = pointed;
  if (amount.trim() === '') return refuse(`${from.code} to ${to.code}: the length is missing`);
  const parsed = readLengthOrEdges(amount, unit);
  if (!parsed.ok) return refuse(parsed.reason);
  if (parsed.mm <= 0) return refuse(`a distance is above zero, not "${amount.trim()}"`);
  const ends = new Set([from.id, to.id]);
  const charted = subjects.pairs.find((each) => ends.has(each.fromPointId) && ends.has(each.toPointId));
  const measure = (word?.[1]?.toLowerCase() as Measure | undefined) ?? charted?.measure ?? 'tip';
  return {
    ok: true,
    readings: [
      {
        ...NOTHING,
        quantity: 'distance',
        value: parsed.mm,
        measure,
        pointId: from.id,
        toPointId: to.id,
        pointerFrom: pointers?.[0] ?? null,
        pointerTo: pointers?.[1] ?? null,
      },
    ],
    warnings: parsed.warnings,
  };
}

const POINTERS = /\s(?:p|pointers)\s+([^\s/,]+)\s*[\s/]\s*([^\s/]+)\s*$/i;

/** Takes `p 120 300` off the end of a length. */
function readPointers(
  text: string,
  unit: LengthUnit,
): { ok: true; amount: string; pointers?: readonly [number, number] } | { ok: false; reason: string } {
  const match = POINTERS.exec(text);
  if (!match)
    return /\sp(ointers)?\b/i.test(text)
      ? { ok: false, reason: 'two pointer lengths stand behind p: p 120 300' }
      : { ok: true, amount: text };
  const [first, second] = [parseLength(match[1]!, unit), parseLength(match[2]!, unit)];
  if (!first.ok) return first;
  if (!second.ok) return second;
  return { ok: true, amount: text.slice(0, match.index), pointers: [first.mm, second.mm] };
}

/** One length, or the lengths between the inner and between the outer edges: their mean is the centres'. */
function readLengthOrEdges(text: string, unit: LengthUnit): ReturnType<typeof parseLength> {
  const [inner, outer, ...more] = text.split('&');
  if (outer === undefined) return parseLength(text, unit);
  if (more.length > 0) return { ok: false, reason: 'two edge readings are joined by one &' };
  const [a, b] = [parseLength(inner!, unit), parseLength(outer, unit)];
  if (!a.ok) return a;
  if (!b.ok) return b;
  return {
    ok: true,
    mm: (a.mm + b.mm) / 2,
    signed: false,
    warnings: [
      ...a.warnings,
      ...b.warnings,
      ...(Math.abs(a.mm - b.mm) > 120 ? ['the two edge readings are far apart'] : []),
    ],
  };
}

const POINT_ORDER: readonly Quantity[] = ['length', 'width', 'height'];
const STATION_ORDER: readonly Quantity[] = ['gap', 'flush'];

interface Amount {
  readonly quantity: Quantity;
  readonly mm: number;
  readonly signed: boolean;
}

const NEXT_AMOUNT = new RegExp(String.raw`^\s*[,;]?\s*(?:([a-z]+)\s*=?\s*)?(${LENGTH_PATTERN})`, 'i');

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
    if (!quantity) return refuse(word ? `"${word}" is not a quantity` : 'there is one number too many');
    if (!order.includes(quantity)) return refuse(`a ${quantity} is not read here`);
    if (amounts.some((each) => each.quantity === quantity)) return refuse(`the ${quantity} is given twice`);
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
  // A gap below nothing is an overlap.
  (amounts: readonly Amount[], warnings: string[]): ParsedLine => {
    return {
      ok: true,
      readings: amounts.map(({ quantity, mm }) => ({
        ...NOTHING,
        quantity,
        value: mm,
        stationId,
      })),
      warnings,
    };
  };

const finishPoint =
  (point: NamedPoint) =>
  (amounts: readonly Amount[], warnings: string[]): ParsedLine => ({
    ok: true,
    ...(point.side === 'left' && amounts.some(({ quantity, mm, signed }) => quantity === 'width' && !signed && mm > 0)
      ? { asks: [`${point.code} is a left point: its width is taken as left of the centre plane, below zero.`] }
      : {}),
    readings: amounts.map(({ quantity, mm, signed }) => ({
      ...NOTHING,
      quantity,
      value: quantity === 'width' && !signed && point.side === 'left' ? -mm : mm,
      pointId: point.id,
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
