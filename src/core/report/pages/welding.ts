import { stepsAround, type AroundStep } from '../../plan/weld-order/around';
import { layOut, type WeldLayout } from '../../plan/weld-order/layout';
import { heatAt, schoolsOf, WARM, weldBy, weldTask, type PlaceOn, type WeldPlan } from '../../plan/weld-order/schools';
import type { WeldTask } from '../../plan/weld-order/order';
import { add, distance, scale, subtract, type Position } from '../../maths/geometry/vector';
import { rungOf } from '../../plan/panels/holding';
import type { HoldingRung, Joint, WeldSeam, WeldStretch, WorkEvent } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';

/** How a joint is welded again: marked out, in the order of every school, and what of it is laid. */
export interface SeamPlan {
  readonly seam: WeldSeam;
  readonly stretches: readonly WeldStretch[];
  readonly layout: WeldLayout;
  readonly task: WeldTask;
  /** By every school its process goes by; none where nothing is melted. */
  readonly plans: readonly WeldPlan[];
  /** Places that are ticked, by what their tick is kept under, with when. */
  readonly done: readonly { readonly key: string; readonly at: string }[];
  /** What is done before and after it. */
  readonly around: readonly AroundStep[];
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
  readonly points: readonly { readonly id: string; readonly code: string }[];
}

/** What a place's tick is kept under: where it is, so that it is another one when the seam is marked out anew. */
export const placeKey = (along: number): string => along.toFixed(1);

export function weldingPage(job: Job): WeldingPage {
  return {
    joints: job.rows.joints
      .map((joint) => ({
        ...{ joint, code: job.item(joint.id).code, panel: job.item(joint.panelId).name },
        steps: job.rows.steps.filter(({ itemId }) => itemId === joint.id).length,
        ...planOf(job, joint),
        ...heldAt(job, joint),
      }))
      .toSorted((a, b) => a.panel.localeCompare(b.panel) || a.code.localeCompare(b.code, 'en', { numeric: true })),
    points: job.rows.points.map(({ id, code }) => ({ id, code })),
  };
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
  const task = weldTask(seam, joint, layout, placeOn(job, seam));
  const schools = layout.places.length > 0 ? schoolsOf(seam) : [];
  return {
    plan: {
      ...{ seam, stretches, layout, task, done: doneOf(job.rows.workEvents, seam.id) },
      around: stepsAround(seam, layout),
      plans: schools.map((school) => weldBy(school, task, seam.freeEnd)),
    },
  };
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
