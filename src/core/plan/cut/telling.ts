import { inner } from '../../maths/linear/inner';
import { once, onceFor } from '../../maths/once';
import { lineBetween } from '../../structure/shell-frame';
import type { StageStiffness } from '../../structure/slack';
import { displaced } from '../../structure/stiffness';
import type { CutModel } from './cut-model';
import { SLACK_LIMIT, type NamedLength } from './lengths';
import { HANDLING, stiffnessAfter } from './worked-stages';

/** A length to be read again after a cut, and how much more it gives than before. */
export interface TellingLength {
  readonly length: NamedLength;
  /** By how much farther it moves under the hand, mm. */
  readonly more: number;
}

const MOST = 5;
const LEAST = 3;
/** A length that says less than this share of the first says nothing new. */
const SAYS_LITTLE = 0.01;

/**
 * The lengths most sensitive to what a stage sets loose. Each length's answer to unit forces at every node is its displacements
 * under a unit push at its ends (reciprocity); what the cut changes of them is what it can tell. The largest is taken first,
 * then that which is left largest once what is told already is taken out of it (Gram and Schmidt), so that each says something
 * of its own.
 */
export function tellingLengths(cut: CutModel, stage: number): TellingLength[] {
  const { usual } = cut.stiffness;
  const before = stiffnessAfter(cut, stage - 1, 1, false);
  const after = stiffnessAfter(cut, stage, 1, false);
  if (!before.ok || !after.ok) return [];
  const there = readableLengths(cut, stage, after.value);
  const [answerBefore, answerAfter] = [before.value, after.value].map(answers) as [Answers, Answers];
  const changes = there.map((length) => {
    const [a, b] = [answerBefore(length), answerAfter(length)];
    const changed = b.moved.map((value, i) => value - a.moved[i]!);
    return { length, changed, more: b.gives - a.gives };
  });
  const left = changes.map(({ changed }) => changed);
  const size = (of: Float64Array) => Math.sqrt(inner(of, of));
  const told: TellingLength[] = [];
  let first = 0;
  while (told.length < MOST && told.length < changes.length) {
    const sizes = left.map((each, i) => size(each) * (changes[i]!.length.dimensionId ? KNOWN : 1));
    const k = sizes.indexOf(Math.max(...sizes));
    first = Math.max(first, sizes[k]!);
    if (sizes[k]! <= 0 || (told.length >= LEAST && sizes[k]! < SAYS_LITTLE * first)) break;
    const { length, more } = changes[k]!;
    told.push({ length, more: (HANDLING * Math.abs(more)) / usual });
    const whole = size(left[k]!);
    const direction = left[k]!.map((value) => value / whole);
    for (const each of left) {
      const along = inner(each, direction);
      for (let i = 0; i < each.length; i++) each[i]! -= along * direction[i]!;
    }
    left[k]!.fill(0);
  }
  return told;
}

/** A dimension that has a name is read rather than two points of no dimension that tell a little more. */
const KNOWN = 1.5;
/** A tape is put between points this near and this far, mm. */
const REACH = [200, 2400] as const;

/**
 * What can be read again after a stage: between points that stay on metal that stands, the job's own lengths first.
 */
export function readableLengths(
  cut: CutModel,
  stage: number,
  { stands }: Pick<StageStiffness, 'stands'>,
): NamedLength[] {
  const { goneIds } = cut.stages[stage]!;
  const { nodes } = cut.structure.model;
  const stays = nodes.flatMap(({ pointId }, i) => (pointId !== null && stands[i] && !goneIds.has(pointId) ? [i] : []));
  const there = new Set(stays);
  const wasRead = readBefore(cut);
  const own = cut.lengths.filter((length) => there.has(length.from) && there.has(length.to) && wasRead(length));
  const known = new Set(own.flatMap(({ from, to }) => [`${from} ${to}`, `${to} ${from}`]));
  const pairs = stays.flatMap((from, i) =>
    stays.slice(i + 1).flatMap((to): NamedLength[] => {
      const [a, b] = [nodes[from]!, nodes[to]!];
      const length = Math.hypot(...a.at.map((value, k) => value - b.at[k]!));
      if (known.has(`${from} ${to}`) || length < REACH[0] || length > REACH[1] || !wasRead({ from, to })) return [];
      const code = `${a.code}–${b.code}`;
      return [{ id: code, code, name: '', from, to, limit: SLACK_LIMIT }];
    }),
  );
  return [...own, ...pairs];
}

/** Whether the last round says what a length was: it was read, or both its ends were located. Before any round everything may be. */
function readBefore({ latest, structure }: CutModel): (length: Pick<NamedLength, 'from' | 'to'>) => boolean {
  if (!latest) return () => true;
  const id = (node: number) => structure.model.nodes[node]!.pointId ?? '';
  const read = new Set(latest.measured.distances.map(({ fromPointId, toPointId }) => `${fromPointId} ${toPointId}`));
  return ({ from, to }) =>
    (latest.located.has(id(from)) && latest.located.has(id(to))) ||
    read.has(`${id(from)} ${id(to)}`) ||
    read.has(`${id(to)} ${id(from)}`);
}

/** How all nodes move, and how far apart its ends go, when the ends of a length are pushed apart by a unit force; mm/N. */
type Answers = (length: Pick<NamedLength, 'from' | 'to'>) => {
  readonly moved: Float64Array;
  readonly gives: number;
};

/** What nodes answer to a unit force at a freedom, by its number. */
const unitAnswers = onceFor((_: StageStiffness['stiffness']) => new Map<number, Float64Array>());

/** Put together from the answers to unit forces at single nodes, which many lengths share. */
function answers({ frame, stands, stiffness }: StageStiffness): Answers {
  const width = 3 * frame.nodes.length;
  const known = unitAnswers(stiffness);
  const toUnit = (freedom: number): Float64Array => {
    const load = new Float64Array(2 * width);
    load[freedom] = 1;
    const all = displaced(stiffness, load);
    return Float64Array.from({ length: width }, (_, i) => all[6 * Math.floor(i / 3) + (i % 3)]!);
  };
  const to = (freedom: number) => once(known, freedom, () => toUnit(freedom));
  return ({ from, to: end }) => {
    const moved = new Float64Array(width);
    if (!stands[from] || !stands[end]) return { moved, gives: 0 };
    const { along } = lineBetween(frame, from, end);
    for (let k = 0; k < 3; k++) {
      const [plus, minus] = [to(6 * end + k), to(6 * from + k)];
      for (let i = 0; i < width; i++) moved[i]! += along[k]! * (plus[i]! - minus[i]!);
    }
    const gives = along.reduce((sum, each, k) => sum + each * (moved[3 * end + k]! - moved[3 * from + k]!), 0);
    return { moved, gives };
  };
}
