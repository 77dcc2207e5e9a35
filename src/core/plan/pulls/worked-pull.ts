import { aimVector, NEAR_AIM } from '../../findings/strokes';
import { dot, norm, type Vector } from '../../maths/geometry/vector';
import type { CodedPull } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { NodeVector } from '../../structure/shell-frame';
import { displaced } from '../../structure/stiffness';
import { apart } from '../../structure/shell-frame';
import { mainAxis, movedAt } from './moves';
import type { PullModel } from './pull-model';
import { roomOf, takenOf } from './room';
import { pullAt } from './pull-at';
import { rigForces, type RigForces } from './rig';
import { tooFarGone, type TooFarGone } from './too-far-gone';
import { along, loadOf, tryPull, type PullAt, type TriedPull } from './try-pull';

/** A reading to take while a pull is on, and how far it may go. */
export interface WatchedReading {
  readonly pointId: string;
  /** Along this axis, 0 length, 1 sideways, 2 height, it moves so far under load, and so much of it stays, mm. */
  readonly axis: number;
  readonly loaded: number;
  readonly stays: number;
  /** It is to move, or it must not. */
  readonly wanted: boolean;
  /** Past this from where it stood one stops, mm, the way it moves. */
  readonly stop: number;
}

/** A length between two places that a pull changes. */
export interface ChangedLength {
  readonly code: string;
  readonly name: string;
  readonly loaded: number;
  readonly stays: number;
}

/** What the model says of one pull as it is planned, from where its place rests now. */
export interface WorkedPull {
  readonly at: PullAt;
  /** Movement of each node once it is let go, three a node, mm. */
  readonly stays: readonly number[];
  /** Absent where the model finds no force that leaves its place moved. */
  readonly tried?: Pick<TriedPull, 'springBack' | 'soundYields' | 'force'> & {
    /** How far its place goes along the pull under load, mm. */
    readonly reach: number;
  };
  /** Movement of each node for each newton along length, width and height at its place, three a node, mm: what a drag is shown with. */
  readonly influence: readonly (readonly number[])[];
  readonly rig: RigForces;
  readonly watch: readonly WatchedReading[];
  /** How much of the coordinate its own point is watched by a millimetre along the aim makes. */
  readonly shown: number;
  readonly lengths: readonly ChangedLength[];
  readonly gone?: TooFarGone;
  /** The place itself is held, the way it is pulled. */
  readonly isHeld: boolean;
  /** The model needs more than what the rig or a hold is rated for. */
  readonly pastRating: boolean;
}

/** So many readings that move, besides the pulled one, and so many that must not change are watched at once; what moves less than this share of its room is not. */
const WATCHED = 4;
const NOTICED = 0.15;
/** Points that come along by so much are told, mm. */
const COMES_ALONG = 0.5;
/** What must not change is stopped at this share of what it may: it is read with noise, and the pump runs on for a moment. */
const BEFORE_LIMIT = 0.7;
/** What is to move is stopped so far past where it is expected under load, mm. */
const PAST = 1.5;
/** A length that changes by less is not told, mm; and no more of them than these. */
const CHANGED = 0.2;
const LENGTHS = 6;
/** A direction goes along its aim at least so far: across it nothing is gained. */
const LEAST_ALONG = 0.2;
const WHOLLY_HELD = 0.9;

/** Rotations left out, to the hundredth. */
const shapeOf = (moves: NodeVector, digits = 2): number[] =>
  Array.from({ length: moves.length / 2 }, (_, i) => {
    const value = moves[6 * Math.floor(i / 3) + (i % 3)]!;
    return Number(value.toFixed(digits));
  });

/**
 * @param rested how far along its aim the place has come already, mm
 * @returns undefined where its point is no place of the model
 */
export function workPull(job: Job, model: PullModel, pull: CodedPull, rested: number): WorkedPull | undefined {
  const { nodes } = model.cut.structure.model;
  const at = pullAt(job, pull, new Map(nodes.map(({ pointId }, i) => [pointId, i])));
  if (!at) return undefined;
  const { node, direction } = at;
  const aim = aimVector(pull);
  const towards = norm(aim) > 0 ? aim : direction;
  const left = norm(aim) - rested;
  const gain = norm(aim) > 0 ? left * Math.max(LEAST_ALONG, dot(direction, aim) / norm(aim)) : 0;
  const tried = gain > NEAR_AIM ? tryPull(model, at, gain) : undefined;
  const still = new Float64Array(6 * model.frame.nodes.length);
  const rig = rigForces(model, { ...at, rated: pull.rated, ramArea: pull.ramArea });
  const gone = tooFarGone(job, model.cut, { pointId: pull.pointId, node });
  return {
    at,
    stays: shapeOf(tried?.stays ?? still),
    ...(tried
      ? {
          tried: {
            ...{ springBack: tried.springBack, soundYields: tried.soundYields, force: tried.force },
            reach: along(tried.loaded, at),
          },
        }
      : {}),
    influence: (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as const
    ).map((axis) => shapeOf(displaced(model.stiffness, loadOf(model, { ...at, direction: axis })), 9)),
    rig,
    watch: tried ? watchOf(model, pull.pointId, mainAxis(towards), tried) : [],
    shown: towards[mainAxis(towards)]! / norm(towards),
    lengths: tried ? lengthsOf(model, tried) : [],
    ...(gone ? { gone } : {}),
    isHeld: model.holds.some(
      (held) =>
        held.node === node &&
        heldAlong(
          held.fix.flatMap((each) => AXES.indexOf(each)),
          direction,
        ),
    ),
    pastRating: tried !== undefined && rig.never !== undefined && tried.force > rig.never.newtons,
  };
}

const AXES: readonly string[] = ['x', 'y', 'z'];
const heldAlong = (axes: readonly number[], direction: Vector): boolean =>
  Math.hypot(...[0, 1, 2].map((k) => (axes.includes(k) ? direction[k]! : 0))) > WHOLLY_HELD;

/** What is read in one stroke, and the lengths it changes. */
export type WatchedStroke = Pick<WorkedPull, 'watch' | 'lengths'>;

/**
 * The same for the next stroke alone: less of a pull is taken to move proportionally less.
 *
 * @param next   what the stroke goes to under load and rests at, along the aim, mm
 * @param rested where its place rests now, mm
 */
export function watchedIn(
  { watch, lengths, tried, shown, at }: WorkedPull,
  next: { readonly target: number; readonly rest: number } | undefined,
  rested: number,
): WatchedStroke {
  if (!tried || !next) return { watch, lengths };
  const whole = tried.reach - tried.springBack;
  const on = share(next.target - rested, tried.reach);
  const off = share(next.rest - rested, whole);
  return {
    watch: watch.map((each, i) => {
      // Its own point, which comes first, goes to the mark.
      const isOwn = i === 0 && at.against === undefined;
      const loaded = isOwn ? shown * (next.target - rested) : on * each.loaded;
      const stays = isOwn ? shown * (next.rest - rested) : off * each.stays;
      const stop = each.wanted ? loaded + Math.sign(loaded) * PAST : each.stop;
      return { ...each, loaded, stays, stop };
    }),
    lengths: lengths.map((each) => ({ ...each, loaded: on * each.loaded, stays: off * each.stays })),
  };
}

const share = (part: number, of: number): number => (of > 0 ? Math.min(1, Math.max(0, part / of)) : 1);

/** The pulled point and those that come along first; then those that must not move, nearest to their limits first. */
export function watchOf(
  { wanted, kept }: Pick<PullModel, 'wanted' | 'kept'>,
  pulled: string,
  aimed: number,
  { loaded, released: stays }: TriedPull,
): WatchedReading[] {
  const movers = wanted.flatMap(({ pointId, node }): WatchedReading[] => {
    const [on, off] = [movedAt(loaded, node), movedAt(stays, node)];
    const axis = pointId === pulled ? aimed : mainAxis(on);
    if (pointId !== pulled && Math.abs(off[axis]!) < COMES_ALONG) return [];
    const stop = on[axis]! + Math.sign(on[axis]!) * PAST;
    return [{ pointId, axis, loaded: on[axis]!, stays: off[axis]!, wanted: true, stop }];
  });
  const first = (each: WatchedReading) => (each.pointId === pulled ? 0 : 1);
  const still = kept.flatMap((point): (WatchedReading & { readonly share: number })[] => {
    const { axis, by, of, share } = takenOf(roomOf(point), movedAt(loaded, point.node));
    if (share < NOTICED) return [];
    const moves = { loaded: by, stays: movedAt(stays, point.node)[axis]! };
    return [{ pointId: point.pointId, axis, ...moves, wanted: false, stop: Math.sign(by) * BEFORE_LIMIT * of, share }];
  });
  return [
    ...movers.toSorted((a, b) => first(a) - first(b) || Math.abs(b.stays) - Math.abs(a.stays)).slice(0, 1 + WATCHED),
    ...still
      .toSorted((a, b) => b.share - a.share)
      .slice(0, WATCHED)
      .map(({ share: _, ...each }) => each),
  ];
}

function lengthsOf(model: PullModel, { loaded, released: stays }: TriedPull): ChangedLength[] {
  return model.cut.lengths
    .flatMap(({ code, name, from, to }) => {
      const [on, off] = [loaded, stays].map((moves) => apart(model.frame, from, to, moves)) as [number, number];
      return Math.max(Math.abs(on), Math.abs(off)) < CHANGED ? [] : [{ code, name, loaded: on, stays: off }];
    })
    .toSorted((a, b) => Math.abs(b.loaded) - Math.abs(a.loaded))
    .slice(0, LENGTHS);
}
