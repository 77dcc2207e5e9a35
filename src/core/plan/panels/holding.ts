import {
  HOLDING_RUNGS,
  type CalledPanel,
  type HoldingEvent,
  type HoldingRung,
  type LetGo,
} from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** What speaks against a panel's going up a rung: each with what would settle it. */
export type HoldingFault =
  | { readonly kind: 'standIn' }
  | { readonly kind: 'unfixed'; readonly wants: 'pin' | 'dowel' }
  | { readonly kind: 'notLetGo' }
  | { readonly kind: 'springs'; readonly place: string; readonly sprung: number; readonly most: number }
  | { readonly kind: 'gapsNotRead'; readonly seams: readonly string[] }
  | { readonly kind: 'lap'; readonly under: string; readonly at: HoldingRung }
  | { readonly kind: 'under'; readonly what: string }
  | { readonly kind: 'floats'; readonly until: string }
  | { readonly kind: 'trapped'; readonly over: string };

/** How a panel is held, what it waits for, and what is checked next. */
export interface HeldPanel {
  readonly panel: CalledPanel;
  readonly rung: HoldingRung;
  readonly since?: HoldingEvent;
  /** What speaks against the next rung. */
  readonly waitsFor: readonly HoldingFault[];
  /** Its seams, whose gaps are read again at every rung. */
  readonly recheck: readonly string[];
  /** Came off and went back so many times. */
  readonly timesOff: number;
  /** Its joints as they were last let go, that which fights hardest first: so they are clamped. */
  readonly fights: readonly LetGo[];
}

const at = (rung: HoldingRung): number => HOLDING_RUNGS.indexOf(rung);

/** The rung a panel is on: the last it went to; off where it never was on. */
export const rungOf = (job: Job, { id }: Pick<CalledPanel, 'id'>): HoldingEvent | undefined =>
  job.holdingEvents.findLast(({ hungId }) => hungId === id);

export function heldPanels(job: Job): HeldPanel[] {
  return job.hungPanels.map((panel) => {
    const since = rungOf(job, panel);
    const rung = since?.kind ?? 'off';
    const next = HOLDING_RUNGS[at(rung) + 1];
    const own = job.holdingEvents.filter(({ hungId }) => hungId === panel.id);
    return {
      ...{ panel, rung },
      ...(since ? { since } : {}),
      waitsFor: next ? holdingFaults(job, panel, next) : [],
      recheck: seamsOf(job, panel).map(({ code }) => code),
      timesOff: own.filter(({ kind }) => kind === 'off').length,
      fights: lastLetGos(job, panel).toSorted((a, b) => Math.abs(b.sprung) - Math.abs(a.sprung)),
    };
  });
}

/** Of each joint of a panel how far it last sprang. */
function lastLetGos(job: Job, { id }: Pick<CalledPanel, 'id'>): readonly LetGo[] {
  const own = job.rows.letGos.filter(({ hungId }) => hungId === id);
  return [...new Map(own.map((each) => [each.place, each])).values()];
}

function seamsOf(job: Job, { id }: Pick<CalledPanel, 'id'>) {
  const own = new Set(job.rows.panelSeams.flatMap(({ hungId, seamId }) => (hungId === id ? [seamId] : [])));
  return job.seams.filter((seam) => own.has(seam.id));
}

/**
 * What speaks against a panel's going to a rung. Going back a step is always allowed. Pins and dowels are named, so that it
 * goes back where it was; before it is tacked every joint was let go and sprang no further than it may, its gaps were read
 * as it is held, it is no stand-in, and whatever lies under it is there and done; what floats until another is set stays loose.
 */
export function holdingFaults(job: Job, panel: CalledPanel, to: HoldingRung): HoldingFault[] {
  const now = rungOf(job, panel);
  if (at(to) <= at(now?.kind ?? 'off')) return [];
  const faults: HoldingFault[] = [];
  const fixings = job.rows.fixings.filter(({ hungId, closedAt }) => hungId === panel.id && closedAt === null);
  const has = (...kinds: readonly string[]) => fixings.some(({ kind }) => kinds.includes(kind));
  if (to === 'pinned' && !has('pin', 'screw', 'dowel')) faults.push({ kind: 'unfixed', wants: 'pin' });
  if (to === 'dowelled' && !has('dowel')) faults.push({ kind: 'unfixed', wants: 'dowel' });
  const until = job.hungPanels.find(({ id }) => id === panel.floatsUntilId);
  if (until && at(to) >= at('dowelled') && at(rungOf(job, until)?.kind ?? 'off') < at('dowelled'))
    faults.push({ kind: 'floats', until: until.code });
  if (at(to) < at('tacked')) return faults;
  return [...faults, ...beforeTacks(job, panel, to, now)];
}

function beforeTacks(job: Job, panel: CalledPanel, to: HoldingRung, now: HoldingEvent | undefined): HoldingFault[] {
  const faults: HoldingFault[] = panel.standIn ? [{ kind: 'standIn' }] : [];
  const joints = lastLetGos(job, panel);
  if (joints.length === 0) faults.push({ kind: 'notLetGo' });
  for (const { place, sprung, most } of joints)
    if (Math.abs(sprung) > most) faults.push({ kind: 'springs', place, sprung, most });
  const read = new Set(
    job.rows.readings.flatMap(({ id, stationId, takenAt }) =>
      stationId && job.reading(id) && now && takenAt >= now.at ? [stationId] : [],
    ),
  );
  const unread = seamsOf(job, panel).filter((seam) => !job.stations(seam).some(({ id }) => read.has(id)));
  if (unread.length > 0) faults.push({ kind: 'gapsNotRead', seams: unread.map(({ code }) => code) });
  for (const { overId, underId, what, done } of job.rows.laps) {
    const [over, under] = [overId, underId].map((id) => job.hungPanels.find((each) => each.id === id));
    if (overId === panel.id && underId === null && !done) faults.push({ kind: 'under', what });
    if (overId === panel.id && under) {
      const held = rungOf(job, under)?.kind ?? 'off';
      if (at(held) < at(to)) faults.push({ kind: 'lap', under: under.code, at: held });
    }
    // What goes under a panel that is tacked already cannot get there.
    if (underId === panel.id && over && at(rungOf(job, over)?.kind ?? 'off') >= at('tacked'))
      faults.push({ kind: 'trapped', over: over.code });
  }
  return faults;
}

/** What was put in for a while and is still there, by panel. */
export function closeOut(job: Job) {
  return job.hungPanels.flatMap((panel) => {
    const open = job.rows.fixings.filter(({ hungId, closedAt }) => hungId === panel.id && closedAt === null);
    return open.map((fixing) => ({ panel: panel.code, fixing }));
  });
}
