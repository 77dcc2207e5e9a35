import { once, onceFor } from '../../maths/once';
import { APART_FROM_METAL } from '../../shell/job/apart';
import type { Hold, Panel } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { judgeRound } from '../../round/judge/judge-round';
import type { PointJudgement } from '../../round/judge/judgement';
import { scale, type Vector } from '../../maths/geometry/vector';
import { hingesAt, SOUND, type ModelHinge, type Weakness } from '../../structure/model-hinges';
import type { FrameSupport, Freedom, ShellFrame } from '../../structure/shell-frame';
import { frameOf, type ShellModel } from '../../structure/shell-model';
import { standing, type StandingFrame } from '../../structure/slack';
import { factorise, type Stiffness } from '../../structure/stiffness';
import { HardeningFrame } from '../../structure/hardening';
import { standsNow, type Standing } from './room';
import { cutModel, supportsAfter, type CutModel } from '../cut/cut-model';
import { bracesIn, leftNow, stageState, strutsOf } from '../cut/stages';
import { supportsOf } from '../cut/supports';

/** A point that is out, and how it should move. Chart axes, mm. */
export interface WantedPoint {
  readonly pointId: string;
  readonly node: number;
  readonly move: Vector;
  /** As the reference says, and as it is weighed: what is known badly weighs little. */
  readonly limit: number;
  readonly weighedLimit: number;
  readonly isOut: boolean;
  /** The panel it is to leave with. */
  readonly leavesWith?: Panel;
}

/** A point that stands right. */
export interface KeptPoint extends Standing {
  readonly pointId: string;
  readonly node: number;
}

/** A place that is held while the shell is pulled. */
export interface HeldPlace {
  readonly node: number;
  /** Of the set-up's mounts, or of a pull's own holds. */
  readonly hold?: Hold;
  readonly fix: readonly Freedom[];
}

/** Everything that pulls of a job are worked out from. */
export interface PullModel {
  readonly cut: CutModel;
  readonly frame: ShellFrame;
  readonly stands: readonly boolean[];
  readonly stiffness: Stiffness;
  readonly holds: readonly HeldPlace[];
  readonly wanted: readonly WantedPoint[];
  readonly kept: readonly KeptPoint[];
  /** The shell with hinges where it may yield: everywhere in the metal round the points that are out. */
  readonly yielding: HardeningFrame;
  /** The same once the holds are off that are there for the pull alone: what only stays while it is held does not stay. */
  readonly resting: HardeningFrame;
  readonly hinges: readonly ModelHinge[];
}

export type PullModelResult =
  | { readonly ok: true; readonly model: PullModel }
  /** No structure; no round judged; nothing that is out for certain; nothing to pull against, with the nodes that are loose. */
  | { readonly ok: false; readonly why: 'noStructure' | 'noRound' | 'nothingOut' | 'allUndecided' }
  | { readonly ok: false; readonly why: 'noHold'; readonly nodes: readonly string[] };

/** What is undecided weighs a ninth of what is out for certain. */
const UNDECIDED = 3;

/** Whether a hold lets its point go nowhere, or only carries it. */
export const fixedBy = (kind: Hold['kind']): readonly Freedom[] => (kind === 'stand' ? ['z'] : ['x', 'y', 'z']);

/**
 * @param holds what holds the shell besides what it stands on
 */
export function pullModel(job: Job, holds: readonly Hold[]): PullModelResult {
  const metal = job.without(APART_FROM_METAL);
  return once(modelsOf(metal), keyOf(holds), () => pullModelAnew(metal, holds));
}

/** What is held where, how and by what it is rated for; which pull it is for makes no model. */
const keyOf = (holds: readonly Hold[]): string =>
  holds
    .map(({ pointId, kind, rating }) => `${pointId} ${kind} ${rating}`)
    .toSorted()
    .join();

/** Several pulls are held by the same, and the next page shows them too. */
const modelsOf = onceFor((_: Job) => new Map<string, PullModelResult>());

function pullModelAnew(job: Job, holds: readonly Hold[]): PullModelResult {
  const cut = cutModel(job);
  if (!cut) return { ok: false, why: 'noStructure' };
  const { model } = cut.structure;
  const judged = lastJudged(job);
  if (judged.length === 0) return { ok: false, why: 'noRound' };
  const stage = cut.stages.findLastIndex(({ id }) => id !== '' && stageState(job, id) === 'out');
  const gone = cut.stages[stage]?.goneIds ?? new Set<string>();
  const nodeOf = new Map(model.nodes.map(({ pointId }, i) => [pointId, i]));
  const there = judged.filter(({ point: { id } }) => nodeOf.has(id) && !gone.has(id));
  const held = heldPlaces(job, cut, stage, holds);
  const bent = bentSheets(model, outNodes(there, nodeOf));
  const struts = strutsOf(bracesIn(cut.braces, cut.stages, stage));
  const heldAt = (places: readonly HeldPlace[]) =>
    standing({ ...frameOf(bent, places.map(toSupport), leftNow(job, model), cut.stiffness.usual), struts });
  const { frame, stands } = heldAt(held);
  if (!stands.includes(true)) return { ok: false, why: 'noHold', nodes: frame.nodes.map(({ id }) => id) };
  const result = factorise(frame);
  if (!result.ok) return { ok: false, why: 'noHold', nodes: result.loose };
  const wanted = there.flatMap((each) => wantedOf(job, each, nodeOf.get(each.point.id)!) ?? []);
  if (!wanted.some(({ isOut }) => isOut)) return { ok: false, why: wanted.length > 0 ? 'allUndecided' : 'nothingOut' };
  const hinges = hingesAt(model, frame, weakness(cut, wanted));
  const yielding = new HardeningFrame(result.stiffness, hinges);
  const stays = holds.length === 0 ? undefined : heldAt(heldPlaces(job, cut, stage, []));
  return {
    ok: true,
    model: {
      ...{ cut, frame, stands, stiffness: result.stiffness, holds: held, wanted, hinges, yielding },
      kept: there.flatMap((each) => keptOf(job, each, nodeOf.get(each.point.id)!) ?? []),
      resting: (stays && restingAs(stays, stands, hinges)) ?? yielding,
    },
  };
}

/** The shell without the holds of a pull; undefined where it would not stand as much of it as with them. */
function restingAs(
  without: StandingFrame,
  stands: readonly boolean[],
  hinges: readonly ModelHinge[],
): HardeningFrame | undefined {
  if (stands.some((there, node) => there !== without.stands[node])) return undefined;
  const result = factorise(without.frame);
  return result.ok ? new HardeningFrame(result.stiffness, hinges) : undefined;
}

/** Every point as the newest round of this shell that judged it found it. */
function lastJudged(job: Job): PointJudgement[] {
  const last = new Map<string, PointJudgement>();
  for (const round of job.ownRounds)
    for (const each of judgeRound(job, round).points) if (each.judged) last.set(each.point.id, each);
  return [...last.values()];
}

function wantedOf(job: Job, { point, judged }: PointJudgement, node: number): WantedPoint | undefined {
  if (!judged || judged.verdict === 'inside') return undefined;
  const isOut = judged.verdict === 'outside';
  const coarse = Math.max(judged.limit, 2 * Math.max(...judged.sd));
  const leaving = job.rows.panelPoints.find(({ pointId, fate }) => pointId === point.id && fate === 'goes');
  const leavesWith = job.panels.find(({ id }) => id === leaving?.panelId);
  return {
    ...{ pointId: point.id, node, isOut, limit: judged.limit },
    move: scale(judged.deviation.by, -1),
    weighedLimit: isOut ? coarse : UNDECIDED * coarse,
    ...(leavesWith ? { leavesWith } : {}),
  };
}

/** A point that stands right, known from every round that judged it: one noisy reading makes no room that is not there. */
function keptOf(job: Job, { point, judged }: PointJudgement, node: number): KeptPoint | undefined {
  if (judged?.verdict !== 'inside') return undefined;
  const known = job.ownRounds.reduce<Standing | undefined>((before, round) => {
    const of = judgeRound(job, round).points.find((each) => each.point.id === point.id)?.judged;
    return of ? standsNow(before, { off: of.deviation.by, sd: of.sd, limit: of.limit }) : before;
  }, undefined);
  return known && { pointId: point.id, node, ...known };
}

/** What it stands on now, as far as that is still there, and what holds it besides. */
function heldPlaces(job: Job, cut: CutModel, stage: number, holds: readonly Hold[]): HeldPlace[] {
  const { model } = cut.structure;
  const stands = supportsOf(job, model, job.setUpNow);
  const own = holds.flatMap((hold): HeldPlace[] => {
    const node = model.nodes.findIndex(({ pointId }) => pointId === hold.pointId);
    return node < 0 ? [] : [{ node, hold, fix: fixedBy(hold.kind) }];
  });
  const standing = supportsAfter({ ...cut, stands }, stage)
    .filter(({ node }) => !own.some((each) => each.node === node))
    .map(({ node, fix }): HeldPlace => ({ node, fix }));
  return [...standing, ...own];
}

/** Where the points stand that are out for certain. */
const outNodes = (judged: readonly PointJudgement[], nodeOf: ReadonlyMap<string | null, number>): Set<number> =>
  new Set(judged.flatMap(({ point, judged: of }) => (of?.verdict === 'outside' ? [nodeOf.get(point.id)!] : [])));

/** Sheet that was bent has buckled: it folds where flat sheet would shear. */
const BUCKLED = 0.05;
const bentSheets = (model: ShellModel, out: ReadonlySet<number>): ShellModel => ({
  ...model,
  sheets: model.sheets.map((sheet) =>
    sheet.nodes.some((node) => out.has(node)) ? { ...sheet, condition: sheet.condition * BUCKLED } : sheet,
  ),
});

const toSupport = ({ node, fix }: HeldPlace): FrameSupport => ({ node, fix });

/** The metal round the points that are out was bent already: it yields sooner; what lies one member further may yield too. */
function weakness({ structure: { model } }: CutModel, wanted: readonly WantedPoint[]): Weakness {
  const out = new Set(wanted.flatMap(({ node, isOut }) => (isOut ? [node] : [])));
  const at = (member: { from: number; to: number }, nodes: ReadonlySet<number>) =>
    nodes.has(member.from) || nodes.has(member.to);
  const bent = model.members.filter((member) => at(member, out));
  const beside = new Set(bent.flatMap(({ from, to }) => [from, to]));
  const share = new Map<string, number>();
  for (const member of model.members) if (at(member, beside)) share.set(member.code, SOUND);
  for (const { code } of bent) share.set(code, BENT);
  return (code) => share.get(code);
}

/** What is left of the moment that metal carries which was bent out of shape before. */
const BENT = 0.4;
