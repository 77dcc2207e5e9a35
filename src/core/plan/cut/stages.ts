import { braceState } from '../../findings/brace-pull';
import type { Brace, CodedBrace, Panel, Section } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { boxSection } from '../../structure/box-section';
import { barMass, GRAVITY, lineBetween, STEEL, type Strut } from '../../structure/shell-frame';
import type { Left, ShellModel } from '../../structure/shell-model';
import { inSeries, strutOf } from '../braces/candidates';

/** A stage of the cutting: what comes out in it, and what is left of the shell after it. */
export interface PlannedStage {
  /** Of its item of work; empty for what was said to go before anybody made stages. */
  readonly id: string;
  readonly name: string;
  readonly panels: readonly Panel[];
  /** Of the structure after it, everything before it out as well. */
  readonly left: Left;
  /** Points that left with metal, up to and with it. */
  readonly goneIds: ReadonlySet<string>;
}

/** What each end of a brace sits on, N/mm: on bare skin a pad is hundreds of times softer than the tube. */
export const END_STIFFNESS: Readonly<Record<Brace['fromEnd'], number>> = {
  doubled: 20_000,
  bolted: 12_000,
  flange: 5_000,
  skin: 100,
};

/** The stages as they are ordered; panels of no stage come out in a last one of their own. */
export function plannedStages(job: Job): PlannedStage[] {
  const ordered = job.stages.map(({ id }) => ({ id, name: job.item(id).name }));
  const homeless = job.panels.some(({ stageId }) => stageId === null);
  const stages = homeless ? [...ordered, { id: '', name: 'Metal out' }] : ordered;
  const left = new Map<string, number>();
  const gone = new Set<string>();
  return stages.map(({ id, name }) => {
    const panels = job.panels.filter(({ stageId }) => (stageId ?? '') === id);
    for (const panel of panels) {
      for (const { panelId, code, share } of job.rows.panelParts)
        if (panelId === panel.id) left.set(code, Math.max(0, (left.get(code) ?? 1) - share));
      for (const { panelId, pointId, fate } of job.rows.panelPoints)
        if (panelId === panel.id && fate === 'goes') gone.add(pointId);
    }
    return { id, name, panels, left: new Map(left), goneIds: new Set(gone) };
  });
}

/** A brace of the plan as the structure has it. */
export interface PlacedBrace {
  readonly brace: CodedBrace;
  /** What its two ends are called. */
  readonly codes: readonly [string, string];
  readonly from: number;
  readonly to: number;
  readonly length: number;
  readonly stiffness: number;
  readonly strut: Strut;
}

/** The tube a brace is taken for where its own is told in words alone. */
const UNTOLD: Pick<Section, 'width' | 'height' | 'wall'> = { width: 25, height: 25, wall: 2 };

export const sectionOf = (
  job: Job,
  { sectionId }: Pick<Brace, 'sectionId'>,
): Pick<Section, 'width' | 'height' | 'wall'> => job.rows.sections.find(({ id }) => id === sectionId) ?? UNTOLD;

/** The braces that stand between nodes of the structure; those that were taken out again are not there. */
export function placedBraces(job: Job, model: ShellModel): PlacedBrace[] {
  const nodeOf = new Map(model.nodes.flatMap(({ pointId }, i) => (pointId === null ? [] : [[pointId, i] as const])));
  return job.braces.flatMap((brace): PlacedBrace[] => {
    const [from, to] = [nodeOf.get(brace.fromPointId), nodeOf.get(brace.toPointId)];
    if (from === undefined || to === undefined || braceState(job, brace) === 'removed') return [];
    const nodes = model.nodes.map(({ code, at }) => ({ id: code, at }));
    const { length, along } = lineBetween({ nodes }, from, to);
    const { A } = boxSection(sectionOf(job, brace));
    const ends = [END_STIFFNESS[brace.fromEnd], END_STIFFNESS[brace.toEnd]];
    const stiffness = inSeries((STEEL.E * A) / length, ...ends);
    const weight = barMass(STEEL.density, A, length) * GRAVITY;
    const strut = strutOf({ from, to, length, along, stiffness, weight }, brace.id);
    const codes = [job.code(brace.fromPointId), job.code(brace.toPointId)] as const;
    return [{ brace, codes, from, to, length, stiffness, strut }];
  });
}

/** The braces that are in during a stage, by its place among the stages. */
export function bracesIn(
  placed: readonly PlacedBrace[],
  stages: readonly PlannedStage[],
  stage: number,
): PlacedBrace[] {
  const at = (id: string | null, none: number) => {
    const found = stages.findIndex((each) => each.id === id);
    return id === null || found < 0 ? none : found;
  };
  const gone = stages[stage]?.goneIds;
  return placed.filter(
    ({ brace }) =>
      at(brace.stageInId, 0) <= stage &&
      stage < at(brace.stageOutId, Number.POSITIVE_INFINITY) &&
      // What it stood on left with the metal.
      !gone?.has(brace.fromPointId) &&
      !gone?.has(brace.toPointId),
  );
}
