import { dot, norm, scale, subtract, add, type Vector } from '../../maths/geometry/vector';
import { once, onceFor } from '../../maths/once';
import { APART_FROM_METAL } from '../../shell/job/apart';
import { braceState } from '../../findings/brace-pull';
import type { WeldSeam } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';
import { frameOf, type ShellModel } from '../../structure/shell-model';
import { apart, pushingApart } from '../../structure/shell-frame';
import { stageStiffness, type StageStiffness } from '../../structure/slack';
import { drawnTogether } from '../../structure/shrinkage';
import { displaced } from '../../structure/stiffness';
import { leftAfter, stageState, strutsOf } from '../cut/stages';
import { supportsAfter, type CutModel } from '../cut/cut-model';
import { nearestNode } from '../cut/structure-of';
import type { SeamShrinkage, ShrinkFactor } from './shrinkage';

/** How far a length changes, from as little to as much as it may, mm. */
export interface Effect {
  readonly lengthId: string;
  readonly code: string;
  readonly name: string;
  readonly limit: number;
  readonly low: number;
  readonly usual: number;
  readonly high: number;
}

/** What a seam does to the shell that it is in. */
export interface SeamEffects {
  /** How much nearer its two ends come, mm, by the model alone. */
  readonly along: number;
  /** Members that it runs across, by their names. */
  readonly across: readonly string[];
  /** By how much of its limit the length changes, the most first. */
  readonly effects: readonly Effect[];
}

/** So near a place of the structure an end of a seam lies at it, mm. */
const AT_NODE = 250;
/** So far beside a member's skin a seam still runs through it, mm; and so squarely, as the cosine between them. */
const BESIDE = 80;
const SQUARELY = 0.7;

/** Where a seam lies in the structure. */
interface SeamInModel {
  readonly ends: readonly [number, number];
  /** Members that it runs across, and how much of their walls it goes round. */
  readonly crosses: readonly { readonly member: ShellModel['members'][number]; readonly share: number }[];
}

function inModel(job: Job, model: ShellModel, { firstPointId, lastPointId, long }: WeldSeam): SeamInModel | undefined {
  const [first, last] = [firstPointId, lastPointId].map((id) =>
    id === null ? undefined : referencePosition(job.references, id),
  );
  if (!first || !last) return undefined;
  const ends = [first, last].map((at) => nearestNode(model, at)) as [number, number];
  const off = [first, last].map((at, i) => norm(subtract(at, model.nodes[ends[i]!]!.at)));
  if (ends[0] === ends[1] || Math.max(...off) > AT_NODE) return undefined;
  const [middle, by] = [scale(add(first, last), 0.5), subtract(last, first)];
  const crosses = model.members.flatMap((member) => {
    const { from, to, width, height } = member;
    const [a, b] = [model.nodes[from]!.at, model.nodes[to]!.at];
    const reach = Math.max(width, height) / 2 + BESIDE;
    const squarely = Math.abs(dot(by, subtract(b, a))) < SQUARELY * norm(by) * norm(subtract(b, a));
    if (!squarely || offSegment(middle, a, b) > reach) return [];
    return [{ member, share: Math.min(1, long / (2 * (width + height))) }];
  });
  return { ends, crosses };
}

function offSegment(at: Vector, a: Vector, b: Vector): number {
  const by = subtract(b, a);
  const share = Math.min(1, Math.max(0, dot(subtract(at, a), by) / dot(by, by)));
  return norm(subtract(at, add(a, scale(by, share))));
}

/** Seams of one panel are welded into the same shell: each is factorised once. */
const framesOf = onceFor((_: CutModel) => new Map<string, StageStiffness | undefined>());

const shellAround = (job: Job, cut: CutModel, panelId: string, stiffness: number): StageStiffness | undefined =>
  once(framesOf(cut), `${panelId} ${stiffness}`, () =>
    frameWhileWelding(job.without(APART_FROM_METAL), cut, panelId, stiffness),
  );

/** The shell as a panel is welded into it: other metal that is out is out, and the braces that are in are in. */
function frameWhileWelding(job: Job, cut: CutModel, panelId: string, stiffness: number): StageStiffness | undefined {
  const out = job.panels.filter(
    ({ id, stageId }) => id !== panelId && stageId !== null && stageState(job, stageId) === 'out',
  );
  const { model } = cut.structure;
  const left = leftAfter(
    job,
    model,
    out.map((panel) => ({ panel })),
  );
  const struts = strutsOf(cut.braces.filter(({ brace }) => braceState(job, brace) === 'fitted'));
  const result = stageStiffness(frameOf(model, supportsAfter(cut, -1), left, stiffness), [], struts);
  return result.ok ? result.value : undefined;
}

/** What the model says of a seam at one stiffness: how much its ends near each other, and every length changes, mm. */
function movesOf({ frame, stands, stiffness }: StageStiffness, cut: CutModel, at: SeamInModel, by: SeamShrinkage) {
  const there = (...nodes: readonly number[]) => nodes.every((node) => stands[node]);
  if (!there(...at.ends)) return undefined;
  const pulls: { readonly from: number; readonly to: number; readonly force: number }[] = [];
  const [from, to] = at.ends;
  const give = apart(frame, from, to, displaced(stiffness, pushingApart(frame, from, to)));
  const drawn = drawnTogether(by.free, by.tendon, give);
  pulls.push({ from, to, force: drawn.force });
  for (const { member, share } of at.crosses) {
    const built = frame.members.find(({ id }) => id === member.code);
    if (!built) continue;
    const { A, E } = built;
    const long = norm(subtract(frame.nodes[member.to]!.at, frame.nodes[member.from]!.at));
    // A member that would be so much shorter by itself, as if it had cooled.
    pulls.push({ from: member.from, to: member.to, force: ((E * A) / long) * by.across * share });
  }
  const moved = pulls.map(({ force, ...ends }) => ({
    force,
    unit: displaced(stiffness, pushingApart(frame, ends.from, ends.to)),
  }));
  const lengths = cut.lengths.map((length) =>
    there(length.from, length.to)
      ? -moved.reduce((sum, { force, unit }) => sum + force * apart(frame, length.from, length.to, unit), 0)
      : 0,
  );
  return { along: drawn.by, lengths };
}

/** Less than this is not told, mm. */
const TOLD = 0.02;

/**
 * What a seam's shrinkage does to the lengths that tell, through the structure: its ends are drawn together, and what it runs
 * across gets shorter. First order and elastic; the range is that of the shrinkage and of the shell's stiffness together.
 *
 * @param share how much of the seam is meant, 0 … 1
 * @returns undefined where nobody said between which points it runs, or they are nowhere near the structure
 */
export function seamEffects(
  job: Job,
  cut: CutModel,
  { seam, panelId }: { readonly seam: WeldSeam; readonly panelId: string },
  { shrinkage, factor, share = 1 }: { shrinkage: SeamShrinkage; factor: ShrinkFactor; share?: number },
): SeamEffects | undefined {
  const at = inModel(job, cut.structure.model, seam);
  if (!at) return undefined;
  // The stiffest shell is moved least by the least shrinkage.
  const corners = (['low', 'usual', 'high'] as const).map((end, i) => {
    const stiffness = [cut.stiffness.high, cut.stiffness.usual, cut.stiffness.low][i]!;
    const stage = shellAround(job, cut, panelId, stiffness);
    const moves = stage && movesOf(stage, cut, at, shrinkage);
    return moves && { ...moves, times: share * factor[end] };
  });
  const [least, mean, most] = corners;
  if (!least || !mean || !most) return undefined;
  const effects = cut.lengths.map(({ id, code, name, limit }, d): Effect => {
    const told = [least, mean, most].map(({ lengths, times }) => times * lengths[d]!);
    return {
      ...{ lengthId: id, code, name, limit },
      ...{ low: Math.min(...told), usual: told[1]!, high: Math.max(...told) },
    };
  });
  return {
    along: mean.along,
    across: at.crosses.map(({ member }) => member.name),
    effects: effects
      .filter(({ low, high }) => Math.max(-low, high) > TOLD)
      .toSorted((a, b) => Math.abs(b.usual) / b.limit - Math.abs(a.usual) / a.limit),
  };
}
