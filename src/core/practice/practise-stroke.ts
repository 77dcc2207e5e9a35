import { aimVector, courseOf, directionOf, shareOf, shownBefore, shownBy } from '../findings/strokes';
import { norm, scale, type Axis, type Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { pullModel } from '../plan/pulls/pull-model';
import { pullAt } from '../plan/pulls/pull-at';
import { along } from '../plan/pulls/try-pull';
import { judgeRound } from '../round/judge/judge-round';
import { AXIS_OF } from '../round/observe/measured';
import { referencePosition } from '../shell/references/chosen';
import type { CodedPull } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { strokeTo, yieldingShell, type Turned, type YieldingShell } from './yielding-shell';

/** What the readings of a stroke would be on the hidden shell of a job. */
export interface PractisedStroke {
  /** mm, as an instrument reads them, of the quantity the pull is read by. */
  readonly loaded: number;
  readonly released: number;
}

/** Noise of the readings, one standard deviation, mm. */
const NOISE = 0.4;

/**
 * One stroke on a made-up shell that yields, the same each time for a job: all strokes read before are made on it again first.
 *
 * @param target along the aim of the pull, from where its place stood before the first stroke, mm
 * @returns undefined where there is no shell to pull on, or nobody read where its point stood
 */
export function practiseStroke(job: Job, pullId: string, target: number): PractisedStroke | undefined {
  const pull = job.pulls.find(({ id }) => id === pullId);
  const hidden = pull && hiddenShell(job, pull);
  if (!hidden) return undefined;
  const { shell, seed, nodeOf } = hidden;
  const turned = replayed(job, hidden);
  const at = pullAt(job, pull, nodeOf);
  const round = job.round(pull.roundId);
  const subject = shownBy(pull);
  const judgement = round && judgeRound(job, round);
  const before =
    courseOf(job, pull, judgement).before ?? shownBefore(pull, judgement) ?? chartedAt(job, pull.pointId, subject);
  if (!at || before === undefined) return undefined;
  const { loaded, rested } = strokeTo(shell, turned, at, target, readAlong(job, pull));
  const random = seeded(seed + job.pullReadings(pull).length);
  const axis = AXIS_OF[subject.quantity];
  const read = (moves: Float64Array) => {
    const moved = axis
      ? along(moves, { node: at.node, direction: UNIT[axis] })
      : shareOf(job, pull, subject) * along(moves, { ...at, direction: unitAim(pull) });
    return before + moved + NOISE * random.normal();
  };
  return { loaded: read(loaded), released: read(rested) };
}

/** Where a point belongs, along the axis of a quantity: where nobody measured it, it stands there for practising. */
function chartedAt(job: Job, pointId: string, { quantity }: ReturnType<typeof shownBy>): number | undefined {
  const axis = AXIS_OF[quantity];
  return axis && referencePosition(job.references, pointId)?.[AXES.indexOf(axis)];
}

const AXES: readonly Axis[] = ['x', 'y', 'z'];
const UNIT: Readonly<Record<Axis, Vector>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

interface Hidden {
  readonly shell: YieldingShell;
  readonly seed: number;
  readonly nodeOf: ReadonlyMap<string | null, number>;
}

function hiddenShell(job: Job, { id }: CodedPull): Hidden | undefined {
  const result = pullModel(
    job,
    job.rows.holds.filter(({ itemId }) => itemId === id),
  );
  if (!result.ok) return undefined;
  const { cut, frame, wanted } = result.model;
  const { model } = cut.structure;
  const seed = [...job.row.id].reduce((sum, letter) => (31 * sum + letter.charCodeAt(0)) >>> 0, 7);
  const bent = new Set(wanted.flatMap(({ node, isOut }) => (isOut ? [node] : [])));
  const supports = frame.supports.filter(({ node }) => node < model.nodes.length);
  const shell = yieldingShell(model, supports, bent, seeded(seed));
  return shell && { shell, seed, nodeOf: new Map(model.nodes.map(({ pointId }, i) => [pointId, i])) };
}

/** What the hinges have turned by all strokes that were read. */
function replayed(job: Job, { shell, nodeOf }: Hidden): Turned {
  const judgements = job.ownRounds.map((round) => judgeRound(job, round));
  const made = job.pulls
    .flatMap((pull) => {
      const judgement = judgements.find(({ round }) => round.id === pull.roundId);
      return courseOf(job, pull, judgement).strokes.map(({ loaded, at }) => ({ pull, loaded, at }));
    })
    .toSorted((a, b) => a.at.localeCompare(b.at));
  let turned: Turned;
  for (const { pull, loaded } of made) {
    const at = pullAt(job, pull, nodeOf);
    if (at) ({ turned } = strokeTo(shell, turned, at, loaded, readAlong(job, pull)));
  }
  return turned;
}

/** What of a movement counts along the aim as the pull is read: its own coordinate alone, by how much of the aim that shows. */
function readAlong(job: Job, pull: CodedPull): Vector {
  const subject = shownBy(pull);
  const axis = AXIS_OF[subject.quantity];
  const share = shareOf(job, pull, subject);
  return axis && share !== 0 ? scale(UNIT[axis], 1 / share) : unitAim(pull);
}

const unitAim = (pull: CodedPull): Vector => {
  const aim = aimVector(pull);
  return norm(aim) > 0 ? scale(aim, 1 / norm(aim)) : directionOf(pull);
};
