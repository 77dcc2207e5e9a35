import { stepsAround, type AroundStep } from '../../plan/weld-order/around';
import { betweenSteps, minutesBetween, type BetweenStep } from '../../plan/weld-order/between';
import { layOut, type WeldLayout } from '../../plan/weld-order/layout';
import { seamEffects, type SeamEffects } from '../../plan/weld-order/shrink-effect';
import {
  loggedAcross,
  loggedElsewhere,
  loggedOf,
  seamShrinkage,
  shrinkFactor,
  type LoggedJoint,
  type SeamShrinkage,
  type ShrinkFactor,
  type WeldedElsewhere,
} from '../../plan/weld-order/shrinkage';
import { cutModel, type CutModel } from '../../plan/cut/cut-model';
import {
  heatAt,
  inTurnWith,
  schoolsOf,
  WARM,
  weldBy,
  weldTask,
  type PlaceOn,
  type WeldPlan,
} from '../../plan/weld-order/schools';
import type { WeldTask } from '../../plan/weld-order/order';
import { add, distance, scale, subtract, type Position } from '../../maths/geometry/vector';
import { rungOf } from '../../plan/panels/holding';
import type { HoldingRung, Joint, WeldMark, WeldSeam, WeldStretch, WorkEvent } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { cutFigure } from '../drawing/cut-figure';
import type { SheetFigure } from '../drawing/points';
import { stiffeningOf, type StiffeningPage } from './stiffening';
import { referencePosition } from '../../shell/references/chosen';

/** How a joint is welded again: marked out, in the order of every school, and what of it is laid. */
export interface SeamPlan {
  readonly seam: WeldSeam;
  /** The seam it is laid in turn with. */
  readonly inTurnWith?: { readonly id: string; readonly beside: string };
  readonly stretches: readonly WeldStretch[];
  readonly layout: WeldLayout;
  readonly task: WeldTask;
  /** Its places are where they are on the shell; otherwise along a line of its own. */
  readonly placed: boolean;
  /** By every school its process goes by; none where nothing is melted, and none yet where that takes long. */
  readonly plans: readonly WeldPlan[];
  /** Its orders are still to be worked out: there are so many places. */
  readonly isLong: boolean;
  /** Places that are ticked, by what their tick is kept under, with when. */
  readonly done: readonly { readonly key: string; readonly at: string }[];
  /** What is done before and after it. */
  readonly around: readonly AroundStep[];
  /** What is done between its places, and what of it is ticked, by its key. */
  readonly between: readonly BetweenStep[];
  readonly betweenDone: readonly string[];
  /** What it does by itself as it cools, by the model alone; nothing where nothing is melted. */
  readonly shrinkage?: SeamShrinkage;
  /** What that does to the shell; nothing where nobody knows where it lies. */
  readonly effects?: SeamEffects;
  readonly marks: readonly WeldMark[];
}

export interface JointView {
  readonly joint: Joint;
  readonly code: string;
  readonly panel: string;
  readonly plan?: SeamPlan;
  /** How the panel that goes in is held there; undefined where no joint of a panel that is fitted is said to be this one. */
  /** Steps of the ladder that are about it. */
  readonly steps: number;
  readonly held?: { readonly panel: string; readonly rung: HoldingRung };
}

export interface WeldingPage {
  readonly joints: readonly JointView[];
  /** How much more this shop's seams shrink than the model. */
  readonly factor: ShrinkFactor;
  readonly points: readonly { readonly id: string; readonly code: string }[];
  readonly stiffening: StiffeningPage;
  /** The shell to draw them on; absent where there is no structure. */
  readonly figure?: SheetFigure;
}

/** What a place's tick is kept under: where it is, so that it is another one when the seam is marked out anew. */
export const placeKey = (along: number): string => along.toFixed(1);

/**
 * @param elsewhere joints of the shop's other jobs of which somebody read what they shrank
 */
export function weldingPage(job: Job, elsewhere: readonly WeldedElsewhere[] = []): WeldingPage {
  const { cut, planned, factor } = seamsOf(job, elsewhere);
  return {
    factor,
    joints: inTurn(planned)
      .map(({ joint, plan }) => ({
        ...{ joint, code: job.item(joint.id).code, panel: job.item(joint.panelId).name },
        steps: job.rows.steps.filter(({ itemId }) => itemId === joint.id).length,
        ...(plan ? { plan: { ...plan, ...effectsOf(job, cut, joint, plan, factor) } } : {}),
        ...heldAt(job, joint),
      }))
      .toSorted((a, b) => a.panel.localeCompare(b.panel) || a.code.localeCompare(b.code, 'en', { numeric: true })),
    points: job.rows.points.map(({ id, code }) => ({ id, code })),
    stiffening: stiffeningOf(job, cut),
    ...(cut ? { figure: cutFigure(job, cut) } : {}),
  };
}

export interface PlannedJoint {
  readonly joint: Joint;
  readonly plan?: SeamPlan;
}

/** One joint as it is marked out. */
export const plannedJoint = (job: Job, joint: Joint): PlannedJoint => ({ joint, ...planOf(job, joint) });

/** The joints of a job as they are marked out, what they are welded into, and how much more they shrink than the model. */
export function seamsOf(job: Job, elsewhere: readonly WeldedElsewhere[]) {
  const cut = cutModel(job);
  const planned = job.rows.joints.map((joint) => plannedJoint(job, joint));
  return { cut, planned, factor: shrinkFactor([...loggedElsewhere(elsewhere), ...loggedHere(job, cut, planned)]) };
}

function effectsOf(
  job: Job,
  cut: CutModel | undefined,
  { panelId }: Joint,
  { seam, shrinkage }: SeamPlan,
  factor: ShrinkFactor,
): Pick<SeamPlan, 'effects'> {
  const effects = cut && shrinkage && seamEffects(job, cut, { seam, panelId }, { shrinkage, factor });
  return effects ? { effects } : {};
}

/** What the marks of this job's seams said; of those along a seam where the model says what was to be expected. */
function loggedHere(job: Job, cut: CutModel | undefined, planned: readonly PlannedJoint[]): LoggedJoint[] {
  return planned.flatMap(({ joint, plan }) => {
    const { marks, shrinkage } = plan ?? { marks: [] };
    if (marks.length === 0 || !plan || !shrinkage) return [];
    const along = marks.filter(({ runs }) => runs === 'along');
    const by = along.length > 0 && effectsOf(job, cut, joint, plan, shrinkFactor([])).effects?.along;
    return [...loggedAcross(marks, shrinkage), ...(by ? along.map((mark) => loggedOf(mark, by)) : [])];
  });
}

/** Seams that are laid in turn have one order over both. */
function inTurn(planned: readonly PlannedJoint[]): PlannedJoint[] {
  const turned = new Map<string, SeamPlan>();
  const besideOf = new Map(planned.map(({ joint }) => [joint.id, joint.beside]));
  for (const { plan } of planned) {
    const other = planned.find(({ joint }) => joint.id === plan?.seam.inTurnWithId)?.plan;
    const isOffered = ({ seam, task }: SeamPlan) => task.plugs.length > 0 && schoolsOf(seam).includes('inTurn');
    if (!plan || !other || turned.has(plan.seam.id) || turned.has(other.seam.id)) continue;
    if (!isOffered(plan) || !isOffered(other)) continue;
    const free = [plan.seam.freeEnd, other.seam.freeEnd] as const;
    const orders = inTurnWith([plan.task, other.task], free, plan.placed && other.placed);
    [plan, other].forEach((each, i) => {
      const id = [other, plan][i]!.seam.id;
      turned.set(each.seam.id, {
        ...each,
        isLong: false,
        plans: [orders[i]!],
        inTurnWith: { id, beside: besideOf.get(id)! },
      });
    });
  }
  return planned.map((each) => {
    const plan = turned.get(each.joint.id) ?? each.plan;
    return plan ? { joint: each.joint, plan } : each;
  });
}

function heldAt(job: Job, { id }: Joint): Pick<JointView, 'held'> {
  const of = job.rows.panelJoints.find(({ jointId }) => jointId === id);
  const panel = of && job.hungPanels.find((each) => each.id === of.hungId);
  return panel ? { held: { panel: panel.code, rung: rungOf(job, panel, of.name) } } : {};
}

function planOf(job: Job, joint: Joint): { readonly plan?: SeamPlan } {
  const seam = job.rows.weldSeams.find(({ id }) => id === joint.id);
  if (!seam) return {};
  const stretches = job.rows.weldStretches.filter(({ seamId }) => seamId === seam.id);
  const layout = layOut(seam, joint, stretches);
  const lies = placeOn(job, seam);
  const task = weldTask(seam, joint, layout, lies);
  const schools = layout.places.length > 0 ? schoolsOf(seam) : [];
  const isLong = layout.places.length > AT_ONCE;
  const ticked = doneOf(job.rows.workEvents, seam.id);
  const between = betweenSteps(seam, layout);
  const shrinkage = seamShrinkage(seam, joint, layout);
  return {
    plan: {
      ...{ seam, stretches, layout, task, placed: lies !== undefined },
      done: ticked.filter(({ key }) => Number.isFinite(Number(key))),
      betweenDone: ticked.flatMap(({ key }) => (Number.isFinite(Number(key)) ? [] : [key])),
      marks: job.rows.weldMarks.filter(({ seamId }) => seamId === seam.id),
      ...{ between, around: stepsAround(seam, layout, minutesBetween(between)) },
      ...(shrinkage ? { shrinkage } : {}),
      ...{ isLong, plans: isLong ? [] : schools.map((school) => weldBy(school, task, seam.freeEnd)) },
    },
  };
}

/** With more places than this the orders of a seam are worked out when somebody asks. */
const AT_ONCE = 60;

/**
 * A seam by every school its process goes by, or by the one that is chosen.
 *
 * @returns undefined where the job has no such seam
 */
export function ordersOf(
  job: Job,
  { jointId, chosen }: { readonly jointId: string; readonly chosen?: boolean },
  progress: (share: number) => void = () => undefined,
): readonly WeldPlan[] | undefined {
  const joint = job.rows.joints.find(({ id }) => id === jointId);
  const { plan } = joint ? plannedJoint(job, joint) : {};
  if (!plan) return undefined;
  const { seam, task } = plan;
  const offered = task.plugs.length > 0 ? schoolsOf(seam) : [];
  const own = offered.includes(seam.school) ? [seam.school] : offered.slice(0, 1);
  const schools = chosen ? own : offered;
  return schools.map((school, i) => {
    progress(i / schools.length);
    return weldBy(school, task, seam.freeEnd);
  });
}

/** Along the chart's line between its ends where both are known, else along a line of its own. */
function placeOn(job: Job, { firstPointId, lastPointId, long }: WeldSeam): PlaceOn | undefined {
  const at = (id: string | null): Position<'chart'> | undefined =>
    id === null ? undefined : referencePosition(job.references, id);
  const [first, last] = [at(firstPointId), at(lastPointId)];
  if (!first || !last || distance(first, last) < 1) return undefined;
  return (along) => add(first, scale(subtract(last, first), along / long));
}

/** Ticked and not unticked since. */
function doneOf(events: readonly WorkEvent[], itemId: string): SeamPlan['done'] {
  const last = new Map(events.flatMap((event) => (event.itemId === itemId ? [[event.key, event] as const] : [])));
  return [...last.values()].flatMap(({ key, kind, at }) => (kind === 'ticked' ? [{ key, at }] : []));
}

export const isLaid = ({ done }: Pick<SeamPlan, 'done'>, along: number): boolean =>
  done.some(({ key }) => key === placeKey(along));

/**
 * How warm the warmest place of a seam still is over its surroundings, K, by when its places were ticked.
 *
 * @param now ms since 1970
 */
export function stillWarm({ layout, task, done }: SeamPlan, now: number): number {
  const order = done.flatMap(({ key, at }) => {
    const plug = layout.places.findIndex(({ along }) => placeKey(along) === key);
    const ago = (now - Date.parse(at)) / 1000;
    // Ticked when it is laid: it was begun as long before as it takes.
    return plug < 0 || ago < 0 ? [] : [{ plug, begun: -ago - task.plugs[plug]!.seconds, rise: 0 }];
  });
  return order.length === 0 ? 0 : Math.max(...heatAt(task, order, 0));
}

/** Joints of the same panel that are too warm to weld beside, with how warm. */
export const tooWarmBeside = (page: readonly JointView[], view: JointView, now: number) =>
  page.flatMap((other) => {
    const same = other.plan && other.joint.panelId === view.joint.panelId && other.joint.id !== view.joint.id;
    const rise = same ? stillWarm(other.plan, now) : 0;
    return rise > WARM ? [{ beside: other.joint.beside, rise }] : [];
  });
