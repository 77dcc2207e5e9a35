import { aimOf, pullDistance, pullProgress, type PullProgress } from '../../findings/brace-pull';
import { courseOf, isRegion, learnSpringBack, nextMark, regionOf } from '../../findings/strokes';
import type { NextMark, PullCourse, ReadStroke, SpringBack } from '../../findings/strokes';
import { norm, subtract, type Displacement, type Vector } from '../../maths/geometry/vector';
import { structureOf, knownPoints, latestRound, type JobStructure } from '../../plan/cut/structure-of';
import { declinedAdvice } from '../../plan/declined';
import { pullModel, type PullModel, type PullModelResult, type WantedPoint } from '../../plan/pulls/pull-model';
import { pullKey } from '../../plan/pulls/candidates';
import { advisePulls, type PullProposal } from '../../plan/pulls/plan-pulls';
import type { PullAdvice } from '../../plan/pulls/plan-pulls';
import { contradicts } from '../../plan/pulls/came-home';
import { expectedSpringBack } from '../../plan/pulls/try-pull';
import { workPull, type WorkedPull } from '../../plan/pulls/worked-pull';
import { judgeRound } from '../../round/judge/judge-round';
import type { RoundJudgement } from '../../round/judge/judgement';
import type { AdviceTaken, CodedPull, Hold } from '../../shell/job/entities';
import type { Plate, Point, PullEvent, Stroke, WorkItem } from '../../shell/job/entities';
import { byCode } from '../../shell/by-code';
import type { Job } from '../../shell/job/job';
import type { SheetFigure } from '../drawing/points';
import { sheetFigure } from '../drawing/points';
import { shellDrawing } from '../drawing/shell';

/** How a pull goes: its strokes as read, what its region springs back by, and where to pull to next. */
export interface PullGoing {
  readonly course: PullCourse;
  readonly spring: SpringBack;
  /** Strokes of those it was learned from that were pulled on the car before, of the same model. */
  readonly onTheCarBefore: number;
  /** Absent where its place is where it should be. */
  readonly next?: NextMark;
  /** Strokes read further after release than under load, by their places: one of the two is mistyped. */
  readonly contradicts: readonly number[];
}

/** A pull as its place shows it. */
export interface PullView extends PullGoing {
  readonly pull: CodedPull;
  readonly item: WorkItem;
  readonly point: string;
  readonly against?: string;
  /** Wanted movement of its point, mm. */
  readonly distance: number;
  readonly lastEvent?: PullEvent;
  /** Nobody finished it or gave it up. */
  readonly isOpen: boolean;
  readonly progress: readonly PullProgress[];
  readonly holds: readonly { readonly hold: Hold; readonly code: string }[];
  readonly plates: readonly { readonly plate: Plate; readonly code: string }[];
  /** Points that an older note speaks of and that could be made holds: offered, never read silently. */
  readonly offered: readonly Pick<Point, 'id' | 'code'>[];
  readonly marks: readonly Stroke[];
  /** What was expected to come home before anything was tried, mm. */
  readonly expected: Pick<SpringBack, 'by' | 'sd'>;
  readonly worked?: WorkedPull;
  /** Why the model says nothing of it. */
  readonly why?: WhyNot;
}

/** A point that deviates, and the movement that would bring it back. */
export interface Pullable {
  readonly pointId: string;
  readonly code: string;
  readonly aim: Displacement<'chart'>;
}

export type WhyNot = Exclude<PullModelResult, { ok: true }>;

/** What the place for pulling shows. */
export interface PullingPage {
  readonly jobId: string;
  readonly points: readonly Pick<Point, 'id' | 'code' | 'name'>[];
  readonly pulls: readonly PullView[];
  /** Codes of pulls, those taken back too. */
  readonly usedCodes: readonly { readonly code: string }[];
  readonly pullable: readonly Pullable[];
  readonly roundId: string | null;
  readonly declined: readonly AdviceTaken[];
  readonly picture?: PullPicture;
  readonly why?: WhyNot;
}

/** The shell the pulls are drawn on. */
export interface PullPicture {
  readonly figure: SheetFigure;
  /** Nodes of the structure, chart axes, mm, what they are called, and their points. */
  readonly nodes: readonly { readonly at: Vector; readonly code: string; readonly pointId: string | null }[];
  /** How far each node stands from where it belongs, three a node, chart axes, mm: as read at points, between them by nearness. */
  readonly now: readonly number[];
  /** Members, by the places of their two nodes. */
  readonly members: readonly (readonly [number, number])[];
  readonly wanted: readonly WantedPoint[];
  /** Nothing was planned that the shell stands on: it is taken to stand at the usual four places of its sills. */
  readonly standsAsUsual: boolean;
}

export function pullingPage(job: Job): PullingPage {
  const { rows } = job;
  const judgements = rows.rounds.map((round) => judgeRound(job, round));
  const latest = judgements.findLast(({ round, points }) => round.shell === '' && points.some(({ judged }) => judged));
  const pulls = job.pulls.map((pull) => viewOf(job, pull, judgements));
  const open = pullModel(job, openHolds(job));
  return {
    jobId: job.row.id,
    points: rows.points.map(({ id, code, name }) => ({ id, code, name })),
    pulls,
    usedCodes: rows.workItems.filter(({ kind }) => kind === 'pull').map(({ code }) => ({ code })),
    pullable: pullableIn(judgements),
    roundId: latest?.round.id ?? null,
    declined: declinedAdvice(rows, 'pull'),
    ...(open.ok ? {} : { why: open }),
    ...pictureOf(job, latest, open),
  };
}

/** Every point with a deviation, as the newest round of this shell that judged it found it. */
function pullableIn(judgements: readonly RoundJudgement[]): Pullable[] {
  const found = new Map<string, Pullable>();
  for (const judgement of judgements)
    for (const { point, judged } of judgement.round.shell === '' ? judgement.points : [])
      if (judged) found.set(point.id, { pointId: point.id, code: point.code, aim: aimOf(judgement, point.id)! });
  return [...found.values()].toSorted((a, b) => byCode(a.code, b.code));
}

const isOpen = (event: PullEvent | undefined): boolean => event?.kind !== 'done' && event?.kind !== 'abandoned';
const lastOf = (job: Job, { id }: CodedPull): PullEvent | undefined =>
  job.pullEvents.findLast(({ pullId }) => pullId === id);

/** What holds the shell for the pulls that are not over: one hold a point. */
export function openHolds(job: Job): Hold[] {
  const open = new Set(job.pulls.flatMap((pull) => (isOpen(lastOf(job, pull)) ? [pull.id] : [])));
  return [
    ...new Map(
      job.rows.holds.flatMap((hold) => (open.has(hold.itemId) ? [[hold.pointId, hold] as const] : [])),
    ).values(),
  ];
}

function viewOf(job: Job, pull: CodedPull, judgements: readonly RoundJudgement[]): PullView {
  const judgement = judgements.find((each) => each.round.id === pull.roundId);
  const lastEvent = lastOf(job, pull);
  const holds = job.rows.holds.filter(({ itemId }) => itemId === pull.id);
  const result = pullModel(job, holds);
  const course = courseOf(job, pull, judgement);
  const worked = result.ok ? workPull(job, result.model, pull, course.rested) : undefined;
  const expected = expectedSpringBack(worked?.tried);
  return {
    ...goingOf(job, pull, judgements, expected),
    ...{ pull, item: job.item(pull.id), point: job.code(pull.pointId), distance: pullDistance(pull), expected },
    ...(pull.againstPointId === null ? {} : { against: job.code(pull.againstPointId) }),
    ...(lastEvent ? { lastEvent } : {}),
    isOpen: isOpen(lastEvent),
    progress: judgement ? pullProgress(job, pull, judgement) : [],
    holds: holds.map((hold) => ({ hold, code: job.code(hold.pointId) })),
    plates: job.platesOf(pull).map((plate) => ({ plate, code: job.code(plate.pointId) })),
    offered: holds.length > 0 ? [] : pointsNamedIn(job, pull.heldAt),
    marks: job.rows.strokes.filter(({ pullId }) => pullId === pull.id).toSorted((a, b) => a.ordinal - b.ordinal),
    ...(worked ? { worked } : {}),
    ...(result.ok ? {} : { why: result }),
  };
}

/**
 * @param expected what was expected to come home before anything was tried, mm
 */
export function goingOf(
  job: Job,
  pull: CodedPull,
  judgements: readonly RoundJudgement[],
  expected: Pick<SpringBack, 'by' | 'sd'>,
): PullGoing {
  const courseFor = (of: CodedPull) =>
    courseOf(
      job,
      of,
      judgements.find(({ round }) => round.id === of.roundId),
    );
  const course = courseFor(pull);
  const region = regionOf(job, pull);
  const alike = job.pulls.filter((other) => other.id === pull.id || isRegion(regionOf(job, other), region));
  const strokes = alike
    .flatMap((other): readonly ReadStroke[] => (other.id === pull.id ? course : courseFor(other)).strokes)
    .filter((stroke) => !contradicts(stroke))
    .toSorted((a, b) => a.at.localeCompare(b.at));
  // What the car before came home by was learned before anything of this one.
  const before = job.rows.springBacks.filter((each) => isRegion(region, each));
  const learned = [...before.map(({ by, gained }) => ({ springBack: by, gained })), ...strokes];
  const spring = learnSpringBack(expected, learned, sigmaOf(job, pull));
  const next = nextMark(pullDistance(pull), course, spring);
  return {
    ...{ course, spring, onTheCarBefore: before.length, ...(next ? { next } : {}) },
    contradicts: course.strokes.flatMap((stroke, i) => (contradicts(stroke) ? [i] : [])),
  };
}

/** One standard deviation of a reading where nothing says which instrument takes it, mm. */
const USUAL_SIGMA = 0.5;

/** Of the instrument the pull was last read with. */
function sigmaOf(job: Job, pull: CodedPull): number {
  const last = job.pullReadings(pull).at(-1);
  const version = last && job.rows.instrumentVersions.find(({ id }) => id === last.instrumentVersionId);
  return version && version.sdConstant > 0 ? version.sdConstant : USUAL_SIGMA;
}

function pictureOf(
  job: Job,
  latest: RoundJudgement | undefined,
  result: PullModelResult,
): { readonly picture?: PullPicture } {
  const structure: JobStructure | undefined = result.ok
    ? result.model.cut.structure
    : structureOf(job, knownPoints(job, latestRound(job)));
  if (!structure) return {};
  const { model } = structure;
  const judged = latest ? sheetFigure(job, latest) : { points: [], lines: [] };
  return {
    picture: {
      figure: { ...judged, lines: [], shell: shellDrawing(structure) },
      nodes: model.nodes.map(({ at, code, pointId }) => ({ at, code, pointId })),
      now: deviationsAt(model.nodes, judged.points),
      members: model.members.map(({ from, to }) => [from, to] as const),
      wanted: result.ok ? result.model.wanted : [],
      standsAsUsual: job.setUpNow === undefined,
    },
  };
}

/** Nearer points count more: by this power of the distance, mm, which counts as no less than this. */
const NEARNESS = 4;
const NEAREST = 30;

/** Deviations of nodes: of those that are judged points as they were read, of the others by nearness to all of them. */
function deviationsAt(nodes: JobStructure['model']['nodes'], points: SheetFigure['points']): number[] {
  const read = points.flatMap(({ id, position, movement }) => (movement ? [{ id, position, movement }] : []));
  return nodes.flatMap(({ at, pointId }) => {
    const own = read.find(({ id }) => id === pointId)?.movement;
    if (own) return rounded(own);
    const weights = read.map(({ position }) => Math.max(NEAREST, norm(subtract(position, at))) ** -NEARNESS);
    const all = weights.reduce((sum, weight) => sum + weight, 0);
    const mean = ([0, 1, 2] as const).map(
      (k) => read.reduce((sum, { movement }, i) => sum + weights[i]! * movement[k], 0) / (all || 1),
    );
    return rounded(mean);
  });
}

const rounded = (by: readonly number[]): number[] => by.map((value) => Number(value.toFixed(2)));

/** What the model would say of a pull that is planned, were its force to go another way; undefined where it says nothing. */
export function pullTried(job: Job, pullId: string, direction: Vector): WorkedPull | undefined {
  const pull = job.pulls.find(({ id }) => id === pullId);
  if (!pull) return undefined;
  const result = pullModel(
    job,
    job.rows.holds.filter(({ itemId }) => itemId === pullId),
  );
  const round = job.round(pull.roundId);
  const { rested } = courseOf(job, pull, round && judgeRound(job, round));
  const [dirX, dirY, dirZ] = direction;
  return result.ok ? workPull(job, result.model, { ...pull, dirX, dirY, dirZ }, rested) : undefined;
}

/** Points whose codes stand in a note as words of their own. */
export function pointsNamedIn(job: Job, note: string): Pick<Point, 'id' | 'code'>[] {
  const words = new Set(note.split(/[^\p{L}\p{N}]+/u).map((word) => word.toLowerCase()));
  return job.rows.points.filter(({ code }) => words.has(code.toLowerCase())).map(({ id, code }) => ({ id, code }));
}

/** What the program proposes to pull, on the shell as it is held for the pulls that are open. */
export interface PullingAdvice extends Omit<PullAdvice, 'proposals' | 'stays'> {
  readonly proposals: readonly (PullProposal & { readonly key: string })[];
  /** Movement of each node once all is let go, three a node, mm. */
  readonly stays: readonly number[];
}

export type AdviceResult = { readonly ok: true; readonly advice: PullingAdvice } | WhyNot;

export function pullingAdvice(job: Job, ask: (share: number) => void): AdviceResult {
  const result = pullModel(job, openHolds(job));
  if (!result.ok) return result;
  const declined = new Set(declinedAdvice(job.rows, 'pull').map(({ key }) => key));
  const { proposals, stays, ...advice } = advisePulls(job, afterPlanned(job, result.model), { declined, ask });
  return {
    ok: true,
    advice: {
      ...advice,
      proposals: proposals.map((proposal) => ({ ...proposal, key: pullKey(job, proposal.what) })),
      stays: threeANode(stays),
    },
  };
}

/** What is left to be done once the pulls that are planned are made. */
function afterPlanned(job: Job, model: PullModel): PullModel {
  const judgements = job.ownRounds.map((round) => judgeRound(job, round));
  const open = job.pulls.flatMap((pull) => {
    const view = isOpen(lastOf(job, pull)) ? viewOf(job, pull, judgements) : undefined;
    return view?.worked ? [view.worked.stays] : [];
  });
  const wanted = model.wanted.map((each) => {
    const move = ([0, 1, 2] as const).map((k) =>
      open.reduce((left, stays) => left - (stays[3 * each.node + k] ?? 0), each.move[k]),
    ) as unknown as Vector;
    return { ...each, move, isOut: each.isOut && Math.max(...move.map(Math.abs)) > each.limit };
  });
  return { ...model, wanted };
}

const threeANode = (moves: readonly number[]): number[] =>
  moves.flatMap((value, i) => (i % 6 < 3 ? [Number(value.toFixed(2))] : []));
