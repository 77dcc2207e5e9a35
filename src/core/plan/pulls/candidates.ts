import { add, dot, norm, scale, subtract, type Vector } from '../../maths/geometry/vector';
import { Symmetric } from '../../maths/linear/symmetric';
import type { Job } from '../../shell/job/job';
import type { NodeVector } from '../../structure/shell-frame';
import { displaced } from '../../structure/stiffness';
import { barPull, deepestFirst, isStraight, plateRows, type PlateRow } from './bars';
import { chooseAmong, type ChosenPulls, type KeptNode } from './choose';
import { mainAxis, movedAt } from './moves';
import type { KeptPoint, PullModel, WantedPoint } from './pull-model';
import { roomOf, takenOf } from './room';
import { loadOf, tryPull, type PullAt, type TriedPull } from './try-pull';

/** A pull that could be made, tried as far as its own point is out. */
export interface Candidate extends Place {
  readonly tried: TriedPull;
}

/** Where one could pull. */
interface Place extends PullAt {
  readonly wanted: WantedPoint;
  readonly againstPointId?: string;
  /** The row of plates its point is one of: the bar through all of them, or the deepest of them first. */
  readonly row?: PlateRow;
  /** How far its place is to have moved along it, mm. */
  readonly gain: number;
}

/** Some candidates, how much of each is made, and how much of the error that brings. */
export interface Chosen {
  readonly candidates: readonly Candidate[];
  readonly chosen: ChosenPulls;
  readonly brought: number;
}

/** So many pulls are proposed at once: after them the shell is measured again. */
const AT_ONCE = 3;
/** A move has a part of its own along an axis where that is so much of its limit. */
const OF_ITS_OWN = 0.5;

/** What a proposed pull is called when it is declined: its point, what it goes against or with, and which way it goes most. */
export function pullKey(
  job: Job,
  {
    pointId,
    againstPointId,
    direction,
    plates,
  }: Pick<Candidate, 'direction' | 'againstPointId'> & {
    readonly pointId: string;
    readonly plates?: readonly unknown[];
  },
): string {
  const k = mainAxis(direction);
  const way = `${direction[k]! < 0 ? '-' : '+'}${'xyz'[k]}`;
  const other = againstPointId ? [job.code(againstPointId)] : plates && plates.length > 0 ? [BAR] : [];
  return [job.code(pointId), ...other, way].join(' ');
}

/** In a key: by a bar through several plates. */
export const BAR = 'bar';

/**
 * Every point that is out pulled along where it should go, along each axis that has a part of its own in that, across the
 * openings it is an end of, and in the direction that brings it straight home; points that lie in a row are pulled by a bar, or
 * the deepest of them first.
 */
export function candidatesOf(model: PullModel, ask: (share: number) => void): Candidate[] {
  const rows = plateRows(model);
  const inRow = new Map(rows.flatMap((row) => row.places.map(({ node }) => [node, row] as const)));
  const single = (place: Place) => inRow.get(place.node)?.axis !== mainAxis(place.direction) || place.row !== undefined;
  const out = model.wanted.filter(({ isOut }) => isOut);
  const held = new Set(model.holds.filter(({ fix }) => fix.length > 1).map(({ node }) => node));
  const all = [
    ...alone(out, held),
    ...acrossOpenings(model, out),
    ...between(model, out),
    ...rows.flatMap((row) => ofRow(model, row, held)),
  ].filter(single);
  const tries = all.length + out.length;
  const straight = all.flatMap((place, i): Candidate[] => {
    ask(i / tries);
    const tried = tryPull(model, place, place.gain);
    return tried ? [{ ...place, tried }] : [];
  });
  const turned = out.flatMap((wanted, i): Candidate[] => {
    ask((all.length + i) / tries);
    const candidate = held.has(wanted.node) ? undefined : homeward(model, wanted);
    return candidate && single(candidate) ? [candidate] : [];
  });
  return [...straight, ...turned];
}

/** The bar through all plates of a row; where it would not go through them, the deepest by itself until it does. */
function ofRow(model: PullModel, row: PlateRow, held: ReadonlySet<number>): Place[] {
  const wanted = row.deepest;
  if (!isStraight(row)) {
    const move = deepestFirst(row);
    const direction = scale(move, 1 / norm(move));
    return held.has(wanted.node) ? [] : [{ node: wanted.node, direction, wanted, gain: norm(move), row }];
  }
  const bar = barPull(model, row);
  const own = bar && row.places.find(({ node }) => node === bar.node);
  return bar && own ? [{ ...bar, wanted: own, gain: dot(own.move, bar.direction), row }] : [];
}

/** Each point by itself. */
function alone(out: readonly WantedPoint[], held: ReadonlySet<number>): Place[] {
  return out.flatMap((wanted): Place[] => {
    const { node, move, limit } = wanted;
    if (held.has(node)) return [];
    const size = norm(move);
    const axes = [0, 1, 2].flatMap((k) => {
      const part = move[k]!;
      if (Math.abs(part) < OF_ITS_OWN * limit || Math.abs(part) > 0.97 * size) return [];
      const direction = [0, 1, 2].map((i) => (i === k ? Math.sign(part) : 0)) as unknown as Vector;
      return [{ node, direction, wanted, gain: Math.abs(part) }];
    });
    return [{ node, direction: scale(move, 1 / size), wanted, gain: size }, ...axes];
  });
}

/** Points against the other side of an opening that stands right. */
function acrossOpenings(model: PullModel, out: readonly WantedPoint[]): Place[] {
  return model.cut.lengths.flatMap(({ from, to }): Place[] => {
    const [wanted, other] = [from, to].map((node) => out.find((each) => each.node === node));
    if (!wanted || other) return [];
    const { nodes } = model.frame;
    const line = [0, 1, 2].map((k) => nodes[to]!.at[k]! - nodes[from]!.at[k]!) as unknown as Vector;
    const opens = -dot(wanted.move, line) / norm(line);
    if (Math.abs(opens) < OF_ITS_OWN * wanted.limit) return [];
    const direction = scale(line, -Math.sign(opens) / norm(line));
    const againstPointId = model.cut.structure.model.nodes[to]!.pointId;
    return againstPointId
      ? [{ node: from, against: to, direction, wanted, gain: Math.abs(opens), againstPointId }]
      : [];
  });
}

/** So many pairs of points that are out the opposite way are tried with a jack between them, and no further apart than this, mm. */
const PAIRS = 6;
const JACK = 2000;

/** Two points that are out the opposite way along the line between them: one jack or strap does for both. */
function between({ frame, cut }: PullModel, out: readonly WantedPoint[]): Place[] {
  const named = cut.structure.model.nodes;
  const pairs = out.flatMap((wanted, i) =>
    out.slice(i + 1).flatMap((other): (Place & { readonly each: number })[] => {
      const line = subtract(frame.nodes[other.node]!.at, frame.nodes[wanted.node]!.at);
      const size = norm(line);
      const againstPointId = named[other.node]!.pointId;
      if (size === 0 || size > JACK || !againstPointId) return [];
      const [own, theirs] = [wanted, other].map(({ move }) => dot(move, line) / size) as [number, number];
      const each = Math.min(Math.abs(own) / wanted.limit, Math.abs(theirs) / other.limit);
      if (own * theirs >= 0 || each < OF_ITS_OWN) return [];
      const direction = scale(line, Math.sign(own) / size);
      const gain = Math.abs(own) + Math.abs(theirs);
      return [{ node: wanted.node, against: other.node, direction, wanted, gain, againstPointId, each }];
    }),
  );
  return pairs
    .toSorted((a, b) => b.each - a.each)
    .slice(0, PAIRS)
    .map(({ each: _, ...place }) => place);
}

/** So often a direction is bettered by what its pull leaves. */
const TURNS = 3;

/**
 * The pull that brings a point straight home: metal seldom goes the way it is pulled, so that the force has to lean against what
 * it does besides. At first by the inverse of how the place gives elastically, then by what was left over of the way.
 */
function homeward(model: PullModel, wanted: WantedPoint): Candidate | undefined {
  const { node, move } = wanted;
  const gives = AXES.map((direction): Vector =>
    movedAt(displaced(model.stiffness, loadOf(model, { node, direction })), node),
  );
  const compliance = new Symmetric(3, Float64Array.from(gives.flat())).factor();
  if (!compliance) return undefined;
  let towards: Vector = move;
  let best: { readonly candidate: Candidate; readonly beside: number } | undefined;
  for (let i = 0; i < TURNS; i++) {
    const force = [...compliance.solve(new Float64Array(towards))] as unknown as Vector;
    const direction = scale(force, 1 / norm(force));
    const gain = dot(move, direction);
    if (gain < LEAST_GAIN) break;
    const tried = tryPull(model, { node, direction }, gain);
    if (!tried) break;
    const left = subtract(move, movedAt(tried.stays, node));
    const beside = norm(left);
    if (best && beside >= best.beside) break;
    best = { candidate: { node, direction, wanted, gain, tried }, beside };
    towards = add(towards, left);
  }
  return best?.candidate;
}

/** A pull that is to leave less than this along itself is none, mm. */
const LEAST_GAIN = 0.5;
const AXES: readonly Vector[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** A pull that comes home by more than this of its way moves everything but its place, mm. */
const mostHome = (gain: number): number => 2 * gain + 8;
/** Pulls that bend nothing sound are enough where they do so much of what all together could. */
const ENOUGH = 0.6;

/** The best few pulls: of those that bend nothing sound, unless these alone bring too little. */
export function chosenOf({ wanted }: PullModel, candidates: readonly Candidate[], kept: readonly KeptPoint[]): Chosen {
  const moves = [
    ...wanted.map(({ node, move, weighedLimit }) => ({ node, move, limit: weighedLimit })),
    // What stands right is best left where it belongs too.
    ...kept.map(({ node, off, limit }) => ({ node, move: scale(off, -1), limit })),
  ];
  const rooms = kept.map((each) => ({ node: each.node, ...roomOf(each) }));
  const choose = (of: readonly Candidate[]) => {
    const from = of.map((candidate) => asFarAs(candidate, rooms));
    const stays = from.map(({ tried }) => tried.stays);
    // One is let go before the next is put on: of the others only what stays is there while it is loaded.
    const pulls = from.map(() => ({ most: 1 }));
    const chosen = chooseAmong(moves, rooms, pulls, { loaded: stays, stays }, AT_ONCE);
    return { candidates: from, chosen, brought: chosen.before - chosen.error };
  };
  const firm = candidates.filter(({ gain, tried }) => tried.springBack <= mostHome(gain));
  const all = choose(firm.length > 0 ? firm : candidates);
  const gentle = choose(candidates.filter((each) => firm.includes(each) && each.tried.soundYields.length === 0));
  return gentle.brought >= ENOUGH * all.brought ? gentle : all;
}

/** A shell may be softer than its model: of what a point may move so much is used. */
const SURE = 0.75;

/** As much of a pull as no point that stands right passes its limit under. */
function asFarAs(candidate: Candidate, rooms: readonly KeptNode[]): Candidate {
  const { tried, gain } = candidate;
  const share = rooms.reduce((least, room) => {
    const taken = Math.max(
      ...[tried.loaded, tried.stays].map((moves) => takenOf(room, movedAt(moves, room.node)).share),
    );
    return taken > 0 ? Math.min(least, SURE / taken) : least;
  }, 1);
  if (share === 1) return candidate;
  const less = (moves: NodeVector): NodeVector => moves.map((value) => share * value);
  const { loaded, released, stays, springBack, force } = tried;
  return {
    ...{ ...candidate, gain: share * gain },
    // What comes home is a length of its own once it yields, and stays as long.
    tried: {
      ...{ ...tried, loaded: less(loaded), released: less(released), stays: less(stays), springBack },
      force: Math.max(share, HALF) * force,
    },
  };
}

/** Less than half of a pull takes about half of its force at least: metal gives only past its yield. */
const HALF = 0.5;
