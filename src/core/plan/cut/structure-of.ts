import { norm, subtract, type Vector } from '../../maths/geometry/vector';
import { judgeRound } from '../../round/judge/judge-round';
import { placedPosition, type RoundJudgement } from '../../round/judge/judgement';
import { BODIES } from '../../shell/bodies';
import type { BodyPicture } from '../../shell/bodies/body';
import { morphed } from '../../shell/bodies/body';
import { BODY_TYPES, type BodyType, type Structure } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';
import { modelFromBody, modelFromLines, withPointsOn } from '../../structure/from-body';
import { morphOnto, type KnownPoint, type Morph } from '../../structure/morph';
import type { ShellModel } from '../../structure/shell-model';

/** A job's shell as a structure, and what it was taken from. */
export interface JobStructure {
  readonly model: ShellModel;
  readonly template: Structure['template'];
  /** The edition it is; absent where it was not kept yet but follows the picture. */
  readonly edition?: number;
  /** The body's picture brought onto the shell, where there is one: what is drawn of the car besides. */
  readonly body?: { readonly type: BodyType; readonly morph: Morph };
}

/** The round what is planned rests on: the last one in which something was located. */
export function latestRound(job: Job): RoundJudgement | undefined {
  for (const round of job.ownRounds.toReversed()) {
    const judgement = judgeRound(job, round);
    if (judgement.measured.points.size > 0) return judgement;
  }
  return undefined;
}

/** Where points stand, chart axes, mm: by their reference, else as the round found them. */
export function knownPoints(job: Job, latest: RoundJudgement | undefined): KnownPoint[] {
  return job.rows.points.flatMap((point): KnownPoint[] => {
    const at =
      referencePosition(job.references, point.id) ??
      (latest &&
        (placedPosition(latest, point.id) ??
          (latest.alignment.ok ? undefined : latest.located.get(point.id)?.position)));
    return at ? [{ id: point.id, code: point.code, side: point.side, place: point.place, at }] : [];
  });
}

/** A picture fits a shell where so large a share of its places and of the points have one another, and no other does better. */
const FITS = 0.3;

/**
 * The structure of a job: its last edition, else the picture of its body brought onto the points that are known, else of the
 * picture that most points fall in with, else the lines of its chart.
 *
 * @returns undefined where there is too little to make one of: a body type and three measures are enough
 */
export function structureOf(job: Job, known: readonly KnownPoint[]): JobStructure | undefined {
  const { rows } = job;
  const saved = rows.structures.at(-1);
  const body = bodyOf(job, known);
  const kept = saved && modelOfEdition(job, saved);
  if (saved && kept && kept.members.length > 0)
    return {
      model: kept,
      template: saved.template,
      edition: saved.edition,
      ...(body ? { body } : {}),
    };
  if (body) return { model: modelOn(job, known, BODIES[body.type], body.morph), template: body.type, body };
  const points = known.map((point) => ({ ...point, name: job.point(point.id).name }));
  const lines = modelFromLines(
    points,
    rows.memberLines.map(({ fromPointId, toPointId }) => [fromPointId, toPointId] as const),
  );
  return lines.members.length > 5 ? { model: lines, template: 'lines' } : undefined;
}

/** The structure that a body's picture gives of a job's shell. */
export function structureFromBody(job: Job, known: readonly KnownPoint[], type: BodyType): JobStructure {
  const morph = morphOf(job, known, BODIES[type]);
  return { model: modelOn(job, known, BODIES[type], morph), template: type, body: { type, morph } };
}

function modelOn(job: Job, known: readonly KnownPoint[], picture: BodyPicture, morph: Morph): ShellModel {
  const points = known.map((point) => ({ ...point, name: job.point(point.id).name }));
  // With nothing but a tape a shell is braced before all of it is measured: what was chosen stands where the picture has it.
  const chosen = new Map(
    job.rows.points.flatMap(({ id, code, place }) => (place === '' ? [] : [[place, { id, code }]])),
  );
  return withPointsOn(modelFromBody(picture, morph, chosen), points);
}

function bodyOf(job: Job, known: readonly KnownPoint[]): JobStructure['body'] {
  const { body } = job.row;
  const saved = job.rows.structures.at(-1)?.template;
  const named = saved && saved in BODIES ? (saved as BodyType) : body;
  if (named) return { type: named, morph: morphOf(job, known, BODIES[named]) };
  if (known.length < 8 || saved) return undefined;
  const tried = BODY_TYPES.map((type) => {
    const morph = morphOf(job, known, BODIES[type]);
    return { type, morph, share: (2 * morph.ties.size) / (BODIES[type].places.length + known.length) };
  });
  const best = tried.reduce((kept, each) => (each.share > kept.share ? each : kept));
  return best.share >= FITS ? { type: best.type, morph: best.morph } : undefined;
}

function morphOf(job: Job, known: readonly KnownPoint[], picture: BodyPicture): Morph {
  const { wheelbase, track, height } = job.row;
  const rough = morphed(picture, { wheelbase, track, height });
  const [first] = picture.places;
  const ratio = (k: 0 | 1 | 2) => {
    const place = picture.places.find(({ at }) => Math.abs(at[k]) > 100) ?? first!;
    return rough.get(place.code)![k] / place.at[k];
  };
  const ratios = [ratio(0), ratio(1), ratio(2)] as const;
  return morphOnto(picture, known, (at) => [at[0] * ratios[0], at[1] * ratios[1], at[2] * ratios[2]]);
}

function modelOfEdition(job: Job, { id }: Structure): ShellModel {
  const own = <Row extends { readonly structureId: string; readonly code: string }>(rows: readonly Row[]) =>
    rows.filter(({ structureId }) => structureId === id).toSorted((a, b) => a.code.localeCompare(b.code));
  const nodes = own(job.rows.nodes);
  const number = new Map(nodes.map((node, i) => [node.id, i]));
  const at = (nodeId: string) => number.get(nodeId)!;
  return {
    nodes: nodes.map(({ code, name, x, y, z, pointId }) => ({ code, name, at: [x, y, z], pointId })),
    members: own(job.rows.members).map(({ code, name, fromNodeId, toNodeId, width, height, wall, condition }) => ({
      ...{ code, name, width, height, wall, condition },
      ...{ from: at(fromNodeId), to: at(toNodeId) },
    })),
    sheets: own(job.rows.shearPanels).map(({ code, name, thickness, condition, ...corners }) => ({
      ...{ code, name, thickness, condition },
      nodes: [at(corners.aNodeId), at(corners.bNodeId), at(corners.cNodeId), at(corners.dNodeId)],
    })),
  };
}

/** Where a set-up's clamp without a point stands, chart axes. */
export const nearestNode = ({ nodes }: ShellModel, to: Vector): number =>
  nodes.reduce((best, { at }, i) => (norm(subtract(at, to)) < norm(subtract(nodes[best]!.at, to)) ? i : best), 0);
