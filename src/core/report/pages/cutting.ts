import type { Position } from '../../maths/geometry/vector';
import { blastings, type Blasting } from '../../plan/cut/blasting';
import {
  adviseBraces,
  inTheWay,
  onMetalThatGoes,
  trappedBy,
  type BraceAdvice,
  type InTheWay,
} from '../../plan/cut/brace-advice';
import { withoutBraces, type OutOfBraces } from '../../plan/cut/braces-out';
import { judgedChecks, lengthBefore, type JudgedCheck } from '../../plan/cut/checks';
import { cutModel, type CutModel } from '../../plan/cut/cut-model';
import { gatesBefore, type Gate } from '../../plan/cut/gates';
import { barsFor, sawList, type SawnBrace } from '../../plan/cut/saw-list';
import { slackTable, type SlackTable } from '../../plan/cut/slack-table';
import { bracesIn, plannedStages, type StageState } from '../../plan/cut/stages';
import { latestRound } from '../../plan/cut/structure-of';
import { removalOrder, type RemovalOrder } from '../../plan/cut/removal-order';
import { tellingLengths } from '../../plan/cut/telling';
import { turnEffects } from '../../plan/cut/trim';
import { braceForces, type BraceForce } from '../../plan/cut/worked-stages';
import { declinedAdvice } from '../../plan/declined';
import type {
  AdviceTaken,
  CutLine,
  Joint,
  KeepOutRow,
  Panel,
  PanelPart,
  Section,
  Structure,
  Template,
  TemplatePoint,
  WorkItem,
} from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';
import { placedPosition } from '../../round/judge/judgement';
import type { StiffnessRange } from '../../structure/press-test';
import { nodeWord, type ModelNode } from '../../structure/shell-model';
import { cutFigure } from '../drawing/cut-figure';
import type { SheetFigure } from '../drawing/points';
import { cutPage, type CutPage } from './cut';

/** What the place for bracing and cutting shows. */
export interface CuttingPage {
  readonly jobId: string;
  readonly points: readonly { readonly id: string; readonly code: string; readonly name: string }[];
  readonly dimensions: readonly { readonly id: string; readonly code: string }[];
  readonly sections: readonly Section[];
  readonly latestRoundId: string | null;
  /** Codes of braces, those taken back too. */
  readonly usedCodes: readonly { readonly code: string }[];
  readonly braces: readonly SawnBrace[];
  /** What to bring from the rack: bars of each tube. */
  readonly bars: readonly { readonly section: string; readonly bars: number; readonly left: number }[];
  readonly panels: readonly PanelView[];
  readonly stages: readonly StageView[];
  /** Where points stand, by their identities, chart axes, mm: as the last round found them, else by the reference. */
  readonly places: Readonly<Record<string, Position<'chart'>>>;
  readonly keepOuts: readonly KeepOutView[];
  readonly templates: readonly TemplateView[];
  readonly blastings: readonly Blasting[];
  /** What dies with each panel and what is read of it first. */
  readonly before: CutPage;
  /** What is worked out of the structure; absent where there is none. */
  readonly worked?: Worked;
}

/** Room that must stay free, and the name of the panel whose way in it is. */
export type KeepOutView = KeepOutRow & { readonly panel?: string };

export interface TemplateView {
  readonly template: Template;
  readonly corners: readonly TemplatePoint[];
  /** Name of the panel it is for. */
  readonly panel?: string;
}

export interface PanelView {
  readonly panel: Panel;
  readonly item: WorkItem;
  readonly codes: readonly string[];
  readonly parts: readonly PanelPart[];
  readonly lines: readonly CutLine[];
  readonly joints: readonly { readonly joint: Joint; readonly code: string }[];
}

export interface StageView {
  /** Empty for panels that nobody gave a stage. */
  readonly id: string;
  readonly name: string;
  readonly ordinal: number;
  readonly version: number;
  readonly state: StageState;
  readonly panels: readonly string[];
}

/** A member or sheet of the structure, as its table and the form of a panel have it. */
export interface PartView {
  readonly code: string;
  readonly name: string;
  /** Where it stands, by what its nodes are called. */
  readonly between: string;
  readonly ends: readonly string[];
  readonly kind: 'member' | 'sheet';
  /** mm; a sheet has its thickness alone. */
  readonly width?: number;
  readonly height?: number;
  readonly wall: number;
  readonly condition: number;
}

export interface Worked {
  readonly figure: SheetFigure;
  readonly template: Structure['template'];
  readonly edition?: number;
  readonly parts: readonly PartView[];
  readonly nodes: readonly { readonly code: string; readonly at: readonly number[] }[];
  readonly standsFrom: 'setUp' | 'usual';
  readonly stands: readonly string[];
  readonly stiffness: StiffnessRange;
  readonly slack: SlackTable;
  /** The stage in hand, by its place. */
  readonly stage: number;
  /** Braces that are in after it, by their identities. */
  readonly bracesIn: readonly string[];
  /** Members and sheets that are out after it. */
  readonly out: readonly string[];
  readonly gates: readonly Gate[];
  readonly telling: readonly TellingView[];
  readonly inTheWay: readonly InTheWay[];
  /** Braces that a panel which comes in again would trap. */
  readonly trapped: readonly { readonly code: string; readonly of: string }[];
  /** Braces on metal that leaves. */
  readonly onGoing: readonly { readonly code: string; readonly at: string }[];
  /** What the hand brings into the braces that are in after it. */
  readonly forces: readonly BraceForce[];
  /** What lengths give when the braces are out, with new metal tacked and with it welded. */
  readonly withoutBraces: readonly OutOfBraces[];
  readonly declined: readonly AdviceTaken[];
  readonly turns: readonly TurnView[];
  readonly checks: readonly JudgedCheck[];
}

export interface TellingView {
  readonly code: string;
  readonly name: string;
  readonly fromPointId: string;
  readonly toPointId: string;
  /** By how much more it gives under the hand than before the stage, mm. */
  readonly more: number;
  readonly before?: number;
  readonly plusMinus?: number;
}

export interface TurnView {
  readonly code: string;
  readonly itemId: string;
  /** mm a quarter of a turn. */
  readonly quarter: number;
  /** Quarter turns made so far. */
  readonly turned: number;
  readonly moves: readonly {
    readonly lengthId: string;
    readonly code: string;
    readonly limit: number;
    readonly mm: number;
  }[];
}

/** A move of less than this is not told, mm. */
const TOLD = 0.005;

/** What is proposed for a stage: braces, and the order in which its panels come out where there are several. */
export interface CuttingAdvice {
  readonly braces?: BraceAdvice;
  readonly order?: RemovalOrder;
}

/** Works out what is proposed for a stage, by its place: it takes the longest. */
export function cuttingAdvice(
  job: Job,
  { stage, room }: { readonly stage: number; readonly room: 'brace' | 'cut' },
  progress?: (share: number) => void,
): CuttingAdvice {
  const cut = cutModel(job);
  if (!cut?.stages[stage]) return {};
  if (room === 'brace') return { braces: adviseBraces(job, cut, stage, declinedPairs(job), progress) };
  const order = removalOrder(job, cut, stage, progress);
  return order ? { order } : {};
}

const declinedPairs = (job: Job): (readonly [string, string])[] =>
  declinedAdvice(job.rows, 'brace').map(
    ({ key }) => key.split(' ').map((word) => job.pointCalled(word)?.id ?? '') as [string, string],
  );

/** @param at the stage in hand, by its place; the first whose metal is not out where it is not said */
export function cuttingPage(job: Job, { at }: { readonly at?: number } = {}): CuttingPage {
  const { rows } = job;
  const cut = cutModel(job);
  const braces = sawList(job, cut);
  const stages = plannedStages(job).map(({ id, name, panels, state }, ordinal): StageView => ({
    ...{ id, name, ordinal, panels: panels.map(({ part }) => part) },
    ...{ state, version: job.stages.find((each) => each.id === id)?.version ?? 1 },
  }));
  const open = stages.findIndex(({ state }) => state === 'planned');
  const stage = Math.min(at ?? (open < 0 ? stages.length - 1 : open), stages.length - 1);
  return {
    jobId: job.row.id,
    points: rows.points.map(({ id, code, name }) => ({ id, code, name })),
    dimensions: rows.dimensions.map(({ id, code }) => ({ id, code })),
    sections: rows.sections,
    latestRoundId: cut?.latest?.round.id ?? null,
    usedCodes: rows.workItems.filter(({ kind }) => kind === 'brace').map(({ code }) => ({ code })),
    braces,
    bars: rows.sections.flatMap(({ id, name, stock }) => {
      const pieces = braces.flatMap(({ brace, sawn }) => (brace.sectionId === id && sawn ? [sawn] : []));
      return stock && pieces.length > 0 ? [{ section: name, ...barsFor(pieces, stock) }] : [];
    }),
    panels: job.panels.map((panel): PanelView => {
      const own = <Row extends { readonly panelId: string }>(list: readonly Row[]) =>
        list.filter(({ panelId }) => panelId === panel.id);
      return {
        panel,
        item: job.item(panel.id),
        codes: own(rows.panelPoints).flatMap(({ pointId, fate }) => (fate === 'goes' ? [job.code(pointId)] : [])),
        parts: own(rows.panelParts),
        lines: own(rows.cutLines),
        joints: own(rows.joints).map((joint) => ({ joint, code: job.item(joint.id).code })),
      };
    }),
    stages,
    places: placesOf(job, cut),
    ...{ templates: templatesOf(job), blastings: blastings(job) },
    keepOuts: rows.keepOuts.map((room): KeepOutView => {
      const panel = job.panels.find(({ id }) => id === room.panelId)?.part;
      return { ...room, ...(panel ? { panel } : {}) };
    }),
    before: cutPage(job),
    ...(cut ? { worked: worked(job, cut, stage) } : {}),
  };
}

function worked(job: Job, cut: CutModel, stage: number): Worked {
  const { structure, stiffness, stands } = cut;
  const { model, template, edition } = structure;
  return {
    figure: cutFigure(job, cut),
    ...{ template, ...(edition === undefined ? {} : { edition }) },
    parts: partsOf(cut),
    nodes: model.nodes.map((node) => ({ code: node.code, at: node.at })),
    ...{ standsFrom: stands.from, stands: stands.supports.map(({ node }) => nodeWord(model.nodes[node]!)), stiffness },
    slack: slackTable(cut),
    stage,
    bracesIn: bracesIn(cut.braces, cut.stages, stage).map(({ brace }) => brace.id),
    out: stage < 0 ? [] : [...cut.stages[stage]!.left].flatMap(([part, left]) => (left <= 0 ? [part] : [])),
    gates: stage < 0 ? [] : gatesBefore(job, cut, stage),
    telling: stage < 0 ? [] : tellingViews(job, cut, stage),
    inTheWay: stage < 0 ? [] : inTheWay(job, cut, stage),
    trapped: stage < 0 ? [] : trappedBy(job, cut, stage),
    onGoing: stage < 0 ? [] : onMetalThatGoes(cut, stage),
    forces: stage < 0 ? [] : braceForces(cut, stage),
    withoutBraces: stage < 0 ? [] : withoutBraces(cut),
    declined: declinedAdvice(job.rows, 'brace'),
    turns: stage < 0 ? [] : turnViews(job, cut, stage),
    checks: judgedChecks(job, cut),
  };
}

function partsOf({ structure: { model } }: CutModel): PartView[] {
  const endsOf = (nodes: readonly number[]) => nodes.map((node) => model.nodes[node]!.code);
  // A part says which side it is on: its places need not.
  const placeOf = ({ pointId, code, name }: ModelNode) => (pointId === null && name ? name : code);
  const stands = (nodes: readonly number[]) => ({
    ends: endsOf(nodes),
    between: nodes.map((node) => placeOf(model.nodes[node]!)).join(' – '),
  });
  return [
    ...model.members.map(({ code, name, from, to, width, height, wall, condition }): PartView => ({
      ...{ code, name, ...stands([from, to]), kind: 'member', width, height, wall, condition },
    })),
    ...model.sheets.map(({ code, name, nodes, thickness, condition }): PartView => ({
      ...{ code, name, ...stands(nodes), kind: 'sheet', wall: thickness, condition },
    })),
  ];
}

function tellingViews(job: Job, cut: CutModel, stage: number): TellingView[] {
  const { nodes } = cut.structure.model;
  return tellingLengths(cut, stage).map(({ length, more }) => {
    const before = lengthBefore(job, cut, length);
    return {
      ...{ code: length.code, name: length.name, more },
      ...{ fromPointId: nodes[length.from]!.pointId!, toPointId: nodes[length.to]!.pointId! },
      ...(before ? { before: before.value, plusMinus: 2 * before.sd } : {}),
    };
  });
}

function turnViews(job: Job, cut: CutModel, stage: number): TurnView[] {
  return turnEffects(cut, stage).map(({ brace: { brace }, quarter, moves }) => ({
    ...{ code: brace.code, itemId: brace.id, quarter },
    turned: job.rows.workEvents.findLast(({ itemId, kind }) => itemId === brace.id && kind === 'turned')?.value ?? 0,
    moves: moves.flatMap((mm, d) => {
      const { id, code, limit } = cut.lengths[d]!;
      return Math.abs(mm) < TOLD ? [] : [{ lengthId: id, code, limit, mm }];
    }),
  }));
}

export const templatesOf = (job: Job): TemplateView[] =>
  job.rows.templates.map((template) => {
    const panel = job.panels.find(({ id }) => id === template.panelId)?.part;
    const corners = job.rows.templatePoints.filter(({ templateId }) => templateId === template.id);
    return { template, corners, ...(panel ? { panel } : {}) };
  });

function placesOf(job: Job, cut: CutModel | undefined): CuttingPage['places'] {
  const latest = cut?.latest ?? latestRound(job);
  return Object.fromEntries(
    job.rows.points.flatMap(({ id }) => {
      const at = (latest && placedPosition(latest, id)) ?? referencePosition(job.references, id);
      return at ? [[id, at] as const] : [];
    }),
  );
}
