import {
  HOLDING_RUNGS,
  type CalledPanel,
  type HoldingEvent,
  type HoldingRung,
  type LetGo,
  type PanelEdge,
  type PanelJoint,
} from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** What speaks against a panel's, or a joint's, going up a rung: each with what would settle it. */
export type HoldingFault =
  | { readonly kind: 'standIn' }
  | { readonly kind: 'unfixed'; readonly wants: 'pin' | 'dowel'; readonly joint: string }
  | { readonly kind: 'notLetGo'; readonly joint: string }
  | { readonly kind: 'springs'; readonly place: string; readonly sprung: number; readonly most: number }
  | { readonly kind: 'gapsNotRead'; readonly seams: readonly string[] }
  | { readonly kind: 'lap'; readonly under: string; readonly at: HoldingRung }
  | { readonly kind: 'under'; readonly what: string }
  | { readonly kind: 'floats'; readonly until: string }
  | { readonly kind: 'trapped'; readonly over: string };

/** How a joint of a panel, or a panel that has none, is held, and what it waits for. */
interface Held {
  readonly rung: HoldingRung;
  readonly since?: HoldingEvent;
  /** What speaks against the next rung. */
  readonly waitsFor: readonly HoldingFault[];
  /** The seams it moves, whose gaps are read again at every rung. */
  readonly recheck: readonly string[];
}

export interface HeldJoint extends Held {
  readonly joint: PanelJoint;
  /** How it was last let go. */
  readonly letGo?: LetGo;
}

/** A panel is on the rung of that joint of it which is held least. */
export interface HeldPanel extends Held {
  readonly panel: CalledPanel;
  /** In the order in which they are clamped: that which fights hardest first, and what was not let go yet last. */
  readonly joints: readonly HeldJoint[];
  /** Came off and went back so many times. */
  readonly timesOff: number;
}

type Identified = Pick<CalledPanel, 'id'>;

const at = (rung: HoldingRung): number => HOLDING_RUNGS.indexOf(rung);

const jointsOf = (job: Job, { id }: Identified): readonly PanelJoint[] =>
  job.rows.panelJoints.filter(({ hungId }) => hungId === id);

/** What of a panel is held by itself: the joint meant, else every joint, else the panel as a whole (empty). */
function partsOf(job: Job, panel: Identified, joint: string): readonly string[] {
  if (joint !== '') return [joint];
  const names = jointsOf(job, panel).map(({ name }) => name);
  return names.length > 0 ? names : [''];
}

/** What last happened to a part of a panel: to itself, or to the panel as a whole before it had a name. */
const lastOf = (job: Job, { id }: Identified, part: string): HoldingEvent | undefined =>
  job.holdingEvents.findLast(({ hungId, joint }) => hungId === id && (joint === part || joint === ''));

const rungOfPart = (job: Job, panel: Identified, part: string): HoldingRung => lastOf(job, panel, part)?.kind ?? 'off';

/** The rung a joint of a panel is on; of none, that of whichever joint is held least; off where it never was on. */
export function rungOf(job: Job, panel: Identified, joint = ''): HoldingRung {
  const rungs = partsOf(job, panel, joint).map((part) => rungOfPart(job, panel, part));
  return HOLDING_RUNGS[Math.min(...rungs.map(at))]!;
}

/** Some of it is held so, or better. */
const holdsSomewhere = (job: Job, panel: Identified, rung: HoldingRung): boolean =>
  partsOf(job, panel, '').some((part) => at(rungOfPart(job, panel, part)) >= at(rung));

/**
 * The parts of a panel that must move for it, or for one joint of it, to be on a rung: those below it go up; where there
 * are none, those above come back. What is held better already stays.
 */
export function movesTo(job: Job, panel: Identified, to: HoldingRung, joint = ''): readonly string[] {
  const parts = partsOf(job, panel, joint);
  const below = parts.filter((part) => at(rungOfPart(job, panel, part)) < at(to));
  return below.length > 0 ? below : parts.filter((part) => at(rungOfPart(job, panel, part)) > at(to));
}

export function heldPanels(job: Job): HeldPanel[] {
  return job.hungPanels.map((panel) => {
    const joints = jointsOf(job, panel).map((joint): HeldJoint => {
      const letGo = job.rows.letGos.findLast(({ hungId, place }) => hungId === panel.id && place === joint.name);
      return { joint, ...heldAs(job, panel, joint.name), ...(letGo ? { letGo } : {}) };
    });
    const fights = ({ letGo }: HeldJoint) => (letGo ? Math.abs(letGo.sprung) : -1);
    return {
      ...{ panel, timesOff: timesOff(job, panel) },
      ...heldAs(job, panel, ''),
      joints: joints.toSorted((a, b) => fights(b) - fights(a)),
    };
  });
}

function heldAs(job: Job, panel: CalledPanel, joint: string): Held {
  const rung = rungOf(job, panel, joint);
  const since = partsOf(job, panel, joint)
    .flatMap((part) => lastOf(job, panel, part) ?? [])
    .toSorted((a, b) => a.at.localeCompare(b.at))
    .at(-1);
  const next = HOLDING_RUNGS[at(rung) + 1];
  return {
    rung,
    ...(since ? { since } : {}),
    waitsFor: next ? holdingFaults(job, panel, next, joint) : [],
    recheck: seamsMovedBy(job, panel, joint).map(({ code }) => code),
  };
}

/** How often the last of a panel that was held came off. */
function timesOff(job: Job, panel: Identified): number {
  const held = new Map(partsOf(job, panel, '').map((part) => [part, false]));
  let [times, on] = [0, false];
  for (const { hungId, joint, kind } of job.holdingEvents) {
    if (hungId !== panel.id) continue;
    for (const part of held.keys()) if (joint === '' || joint === part) held.set(part, kind !== 'off');
    const still = [...held.values()].some(Boolean);
    if (on && !still) times++;
    on = still;
  }
  return times;
}

const ACROSS: Readonly<Record<PanelEdge, PanelEdge>> = {
  ...{ front: 'rear', rear: 'front', top: 'bottom' },
  ...{ bottom: 'top', left: 'right', right: 'left' },
};

/** The seams a joint moves: those along its edge and round its corners, not that on the far side; of no joint, all. */
function seamsMovedBy(job: Job, panel: Identified, joint: string) {
  const edge = jointsOf(job, panel).find(({ name }) => name === joint)?.edge;
  const own = new Set(
    job.rows.panelSeams.flatMap((of) =>
      of.hungId === panel.id && !(edge && of.edge === ACROSS[edge]) ? [of.seamId] : [],
    ),
  );
  return job.seams.filter(({ id }) => own.has(id));
}

/**
 * What speaks against a panel's, or a joint's, going to a rung. Going back a step is always allowed. Pins and dowels are
 * named, so that it goes back where it was; before it is tacked it was let go and sprang no further than it may, its gaps
 * were read as it is held, it is no stand-in, and whatever lies under it is there and done; what floats until another is
 * set stays loose.
 */
export function holdingFaults(job: Job, panel: CalledPanel, to: HoldingRung, joint = ''): HoldingFault[] {
  const parts = partsOf(job, panel, joint).filter((part) => at(to) > at(rungOfPart(job, panel, part)));
  const faults = parts.flatMap((part) => faultsOfPart(job, panel, part, to));
  return [...new Map(faults.map((fault) => [JSON.stringify(fault), fault])).values()];
}

function faultsOfPart(job: Job, panel: CalledPanel, part: string, to: HoldingRung): HoldingFault[] {
  const faults: HoldingFault[] = [];
  const fixings = job.rows.fixings.filter(
    ({ hungId, closedAt, joint }) => hungId === panel.id && closedAt === null && (joint === null || joint === part),
  );
  const has = (...kinds: readonly string[]) => fixings.some(({ kind }) => kinds.includes(kind));
  if (to === 'pinned' && !has('pin', 'screw', 'dowel')) faults.push({ kind: 'unfixed', wants: 'pin', joint: part });
  if (to === 'dowelled' && !has('dowel')) faults.push({ kind: 'unfixed', wants: 'dowel', joint: part });
  const until = job.hungPanels.find(({ id }) => id === panel.floatsUntilId);
  if (until && at(to) >= at('dowelled') && at(rungOf(job, until)) < at('dowelled'))
    faults.push({ kind: 'floats', until: until.code });
  return at(to) < at('tacked') ? faults : [...faults, ...beforeTacks(job, panel, part, to)];
}

function beforeTacks(job: Job, panel: CalledPanel, part: string, to: HoldingRung): HoldingFault[] {
  const faults: HoldingFault[] = panel.standIn ? [{ kind: 'standIn' }] : [];
  const letGo = job.rows.letGos.findLast(({ hungId, place }) => hungId === panel.id && place === part);
  if (!letGo) faults.push({ kind: 'notLetGo', joint: part });
  else if (Math.abs(letGo.sprung) > letGo.most)
    faults.push({ kind: 'springs', place: letGo.place, sprung: letGo.sprung, most: letGo.most });
  const now = lastOf(job, panel, part);
  const read = new Set(
    job.rows.readings.flatMap(({ id, stationId, takenAt }) =>
      stationId && job.reading(id) && now && takenAt >= now.at ? [stationId] : [],
    ),
  );
  const unread = seamsMovedBy(job, panel, part).filter((seam) => !job.stations(seam).some(({ id }) => read.has(id)));
  if (unread.length > 0) faults.push({ kind: 'gapsNotRead', seams: unread.map(({ code }) => code) });
  return [...faults, ...lapFaults(job, panel, to)];
}

function lapFaults(job: Job, panel: CalledPanel, to: HoldingRung): HoldingFault[] {
  return job.rows.laps.flatMap(({ overId, underId, what, done }): HoldingFault[] => {
    if (overId === panel.id && underId === null) return done ? [] : [{ kind: 'under', what }];
    const [over, under] = [overId, underId].map((id) => job.hungPanels.find((each) => each.id === id));
    if (overId === panel.id && under) {
      const held = rungOf(job, under);
      return at(held) < at(to) ? [{ kind: 'lap', under: under.code, at: held }] : [];
    }
    // What goes under a panel that is tacked anywhere already cannot get there.
    const shut = underId === panel.id && over && holdsSomewhere(job, over, 'tacked');
    return shut ? [{ kind: 'trapped', over: over.code }] : [];
  });
}

/** What was put in for a while and is still there, by panel. */
export function closeOut(job: Job) {
  return job.hungPanels.flatMap((panel) => {
    const open = job.rows.fixings.filter(({ hungId, closedAt }) => hungId === panel.id && closedAt === null);
    return open.map((fixing) => ({ panel: panel.code, fixing }));
  });
}
