import { onceFor } from '../../maths/once';
import { APART_FROM_METAL } from '../../shell/job/apart';
import type { Stiffener } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { RoundJudgement } from '../../round/judge/judgement';
import { stiffnessRange, type Pressed, type StiffnessRange } from '../../structure/press-test';
import type { FrameSupport, ShellFrame } from '../../structure/shell-frame';
import { frameOf, WHOLE, type Left } from '../../structure/shell-model';
import { stiffenedBy } from '../../structure/stiffened';
import { apart, pushingApart } from '../../structure/shell-frame';
import { stageStiffness } from '../../structure/slack';
import { displaced } from '../../structure/stiffness';
import { criticalLengths, type NamedLength } from './lengths';
import { leftWithNewMetal, placedBraces, plannedStages, type PlacedBrace, type PlannedStage } from './stages';
import { knownPoints, latestRound, structureOf, type JobStructure } from './structure-of';
import { supportsOf, type ModelSupports } from './supports';

/** Everything that cutting and bracing of a job are worked out from. */
export interface CutModel {
  readonly structure: JobStructure;
  readonly stands: ModelSupports;
  readonly lengths: readonly NamedLength[];
  readonly stages: readonly PlannedStage[];
  /** What is left of the structure once new metal is in everywhere: tacked, and welded. */
  readonly newMetal: { readonly tacked: Left; readonly welded: Left };
  readonly braces: readonly PlacedBrace[];
  readonly stiffness: StiffnessRange;
  readonly latest?: RoundJudgement;
}

/**
 * Made once for as long as nothing changes that it hangs on.
 *
 * @returns undefined where there is too little to make a structure of
 */
export const cutModel = (job: Job): CutModel | undefined => modelOnce(job.without(APART_FROM_METAL));

const modelOnce = onceFor(cutModelAnew);

function cutModelAnew(job: Job): CutModel | undefined {
  const latest = latestRound(job);
  const bare = structureOf(job, knownPoints(job, latest));
  if (!bare) return undefined;
  const structure = {
    ...bare,
    model: stiffenedBy(
      bare.model,
      job.stiffeners.filter((each) => isOn(job, each)),
    ),
  };
  const stands = supportsOf(job, structure.model);
  return {
    structure,
    stands,
    lengths: criticalLengths(job, structure),
    stages: plannedStages(job, structure.model),
    newMetal: {
      tacked: leftWithNewMetal(job, structure.model, 'tacked'),
      welded: leftWithNewMetal(job, structure.model, 'in'),
    },
    braces: placedBraces(job, structure.model),
    stiffness: stiffnessRange(pressed(job, structure, stands.supports)),
    ...(latest ? { latest } : {}),
  };
}

/** Welded on, and not taken off since. */
export const isOn = (job: Job, { id }: Pick<Stiffener, 'id'>): boolean =>
  job.rows.workEvents.findLast(({ itemId, key }) => itemId === id && key === '')?.kind === 'welded';

/** What the model says of each press test, beside what was read. */
function pressed(job: Job, { model }: JobStructure, supports: readonly FrameSupport[]): Pressed[] {
  const nodeOf = new Map(model.nodes.flatMap(({ pointId }, i) => (pointId === null ? [] : [[pointId, i] as const])));
  const { pressTests } = job.rows;
  const stage = pressTests.length > 0 ? stageStiffness(frameOf(model, supports), []) : undefined;
  if (!stage?.ok) return [];
  const { frame, stiffness } = stage.value;
  return pressTests.map(({ fromPointId, toPointId, force, opened, sd }) => {
    const [from, to] = [nodeOf.get(fromPointId), nodeOf.get(toPointId)];
    if (from === undefined || to === undefined) return { opened, sd, modelled: 0 };
    const unit = displaced(stiffness, pushingApart(frame, from, to));
    return { opened, sd, modelled: force * apart(frame, from, to, unit) };
  });
}

/** The frame after a stage, by its place among the stages; −1 is the shell before anything is cut. */
export const frameAfter = (cut: CutModel, stage: number, stiffness: number): ShellFrame =>
  frameOf(cut.structure.model, supportsAfter(cut, stage), cut.stages[stage]?.left ?? WHOLE, stiffness);

/** What still holds the shell after a stage: a mount on metal that left holds nothing. */
export function supportsAfter({ structure, stands, stages }: CutModel, stage: number): readonly FrameSupport[] {
  const gone = stages[stage]?.goneIds;
  if (!gone) return stands.supports;
  return stands.supports.filter(({ node }) => !gone.has(structure.model.nodes[node]!.pointId ?? ''));
}
