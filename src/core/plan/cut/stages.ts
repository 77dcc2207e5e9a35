import { braceState } from '../../findings/brace-pull';
import type { Brace, CodedBrace, Panel, Section } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { boxSection } from '../../structure/box-section';
import { barMass, GRAVITY, lineBetween, STEEL, type Strut } from '../../structure/shell-frame';
import { JOINT_ROWS, memberThrough, sheetThrough, type JointHold } from '../../structure/joint-spring';
import type { Left, ShellModel } from '../../structure/shell-model';
import { inSeries, strutOf } from '../braces/candidates';

/** A stage of the cutting: what comes out in it, and what is left of the shell after it. */
export interface PlannedStage {
  /** Of its item of work; empty for what was said to go before anybody made stages. */
  readonly id: string;
  readonly name: string;
  /** In the order in which they come out. */
  readonly panels: readonly Panel[];
  readonly state: StageState;
  /** What is out before it, and what new metal is in. */
  readonly before: readonly PanelMetal[];
  /** Of the structure after it: everything before it is out as well, but where new metal is in again. */
  readonly left: Left;
  /** Points that left with metal, up to and with it, and are not back with new metal. */
  readonly goneIds: ReadonlySet<string>;
}

/** How far a stage is: planned, its metal out, new metal tacked in, welded in. */
export type StageState = 'planned' | 'out' | 'tacked' | 'in';

/** What each end of a brace sits on, N/mm: on bare skin a pad is hundreds of times softer than the tube. */
export const END_STIFFNESS: Readonly<Record<Brace['fromEnd'], number>> = {
  doubled: 20_000,
  bolted: 12_000,
  flange: 5_000,
  skin: 100,
};

/** What happened to the metal of a stage last. */
export function stageState(job: Job, stageId: string): StageState {
  const last = job.rows.workEvents.findLast(
    ({ id, itemId, key }) => itemId === stageId && key === '' && !job.withdrawal(id),
  )?.kind;
  return last === 'removed' ? 'out' : last === 'tacked' ? 'tacked' : last === 'fitted' ? 'in' : 'planned';
}

/**
 * The stages as they are ordered; panels of no stage come out in a last one of their own.
 *
 * @param model what new metal is welded into; without it new metal is as what it replaced was
 */
export function plannedStages(job: Job, model?: ShellModel): PlannedStage[] {
  const ordered = job.stages.map(({ id }) => ({ id, name: job.item(id).name }));
  const homeless = job.panels.some(({ stageId }) => stageId === null);
  const stages = homeless ? [...ordered, { id: '', name: 'Metal out' }] : ordered;
  const planned = stages.map(({ id, name }) => ({
    ...{ id, name, state: id === '' ? ('planned' as const) : stageState(job, id) },
    panels: job.panels.filter(({ stageId }) => (stageId ?? '') === id),
  }));
  return planned.map((stage, k) => {
    const before = planned
      .slice(0, k)
      .flatMap(({ panels, state }) => panels.map((panel) => metalOf(job, panel, state)));
    const metal = [...before, ...stage.panels.map((panel) => ({ panel }))];
    return { ...stage, before, left: leftAfter(job, model, metal), goneIds: goneWith(job, metal) };
  });
}

/** A panel of a stage that is to come out counts as out. */
const metalOf = (job: Job, panel: Panel, state: StageState): PanelMetal => {
  if (state === 'in') return { panel, hold: holdOf(job, panel) };
  return state === 'tacked' ? { panel, hold: 'tacked' } : { panel };
};

/** A panel that is out, or whose new metal is held so. */
export interface PanelMetal {
  readonly panel: Panel;
  readonly hold?: JointHold;
}

/**
 * What is left of the structure where some panels are out and new metal is in for others: a panel of a share s of a part whose
 * condition is c leaves c·(1 − s) of it, and its new metal, which is sound, brings back s by as much as its joints let through.
 */
export function leftAfter(job: Job, model: ShellModel | undefined, metal: readonly PanelMetal[]): Left {
  const left = new Map<string, number>();
  const member = new Map(model?.members.map((each) => [each.code, each]) ?? []);
  const sheet = new Map(model?.sheets.map((each) => [each.code, each]) ?? []);
  for (const { panel, hold } of metal)
    for (const { panelId, code, share } of job.rows.panelParts) {
      if (panelId !== panel.id) continue;
      const was = left.get(code) ?? 1;
      const [inMember, inSheet] = [member.get(code), sheet.get(code)];
      const through = (row: (typeof JOINT_ROWS)[JointHold]) =>
        inMember ? memberThrough(model!, inMember, row) : inSheet ? sheetThrough(model!, inSheet, row) : 1;
      const condition = (inMember ?? inSheet)?.condition ?? 1;
      const back = hold ? (share * through(JOINT_ROWS[hold])) / Math.max(condition, LEAST_CONDITION) : 0;
      left.set(code, Math.max(0, was - share) + back);
    }
  return left;
}

/** A part of which rust left less is reckoned as if it left this. */
const LEAST_CONDITION = 0.05;

/** How the weakest joint of a panel holds once it is welded; by plugs where none is told. */
const holdOf = (job: Job, panel: Pick<Panel, 'id'>): JointHold => {
  const kinds = job.rows.joints.flatMap(({ panelId, kind }) => (panelId === panel.id ? [kind] : []));
  const strength = (kind: JointHold) => JOINT_ROWS[kind].stiffness / JOINT_ROWS[kind].pitch;
  return kinds.reduce<JointHold>(
    (weakest, kind) => (strength(kind) < strength(weakest) ? kind : weakest),
    kinds[0] ?? 'plugs',
  );
};

/** Points that left with panels; those of new metal are back once it is welded. */
export const goneWith = (job: Job, metal: readonly PanelMetal[]): ReadonlySet<string> => {
  const out = new Set(metal.flatMap(({ panel, hold }) => (hold === undefined || hold === 'tacked' ? [panel.id] : [])));
  return new Set(
    job.rows.panelPoints.flatMap(({ panelId, pointId, fate }) =>
      fate === 'goes' && out.has(panelId) ? [pointId] : [],
    ),
  );
};

/** What is left of the structure once new metal is in everywhere: tacked, or welded as its joints say. */
export const leftWithNewMetal = (job: Job, model: ShellModel, state: 'tacked' | 'in'): Left =>
  leftAfter(
    job,
    model,
    job.panels.map((panel) => metalOf(job, panel, state)),
  );

/** What is left of the structure as the shell stands now. */
export const leftNow = (job: Job, model: ShellModel): Left =>
  leftAfter(
    job,
    model,
    job.panels.flatMap((panel) => {
      const state = panel.stageId === null ? 'planned' : stageState(job, panel.stageId);
      return state === 'planned' ? [] : [metalOf(job, panel, state)];
    }),
  );

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

/**
 * What a part that stays holds between two of its places, N/mm, where nobody said: a door of tacked sheet along its diagonal, a seat
 * frame between its bolts.
 */
export const PART_STIFFNESS = 4000;

/** The braces that stand between nodes of the structure; those that were taken out again, or are loosened, are not there. */
export function placedBraces(job: Job, model: ShellModel): PlacedBrace[] {
  const nodeOf = new Map(model.nodes.flatMap(({ pointId }, i) => (pointId === null ? [] : [[pointId, i] as const])));
  return job.braces.flatMap((brace): PlacedBrace[] => {
    const [from, to] = [nodeOf.get(brace.fromPointId), nodeOf.get(brace.toPointId)];
    const state = braceState(job, brace);
    if (from === undefined || to === undefined || state === 'removed' || state === 'loosened') return [];
    const nodes = model.nodes.map(({ code, at }) => ({ id: code, at }));
    const { length, along } = lineBetween({ nodes }, from, to);
    const { A } = boxSection(sectionOf(job, brace));
    const ends = [END_STIFFNESS[brace.fromEnd], END_STIFFNESS[brace.toEnd]];
    const isPart = brace.kind === 'part';
    const stiffness = isPart ? (brace.stiffness ?? PART_STIFFNESS) : inSeries((STEEL.E * A) / length, ...ends);
    const weight = isPart ? 0 : barMass(STEEL.density, A, length) * GRAVITY;
    const strut = strutOf({ from, to, length, along, stiffness, weight }, brace.id);
    const codes = [job.code(brace.fromPointId), job.code(brace.toPointId)] as const;
    return [{ brace, codes, from, to, length, stiffness, strut }];
  });
}

/** Those of some braces that hold whichever way they are loaded: a prop lets go when it is pulled. */
export const strutsOf = (braces: readonly PlacedBrace[]): Strut[] =>
  braces.flatMap(({ brace, strut }) => (brace.kind === 'prop' ? [] : [strut]));

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
