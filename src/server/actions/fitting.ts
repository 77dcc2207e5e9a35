'use server';

import { randomUUID } from 'node:crypto';
import * as input from '@/formats/inputs/fitting';
import { holdingFaults, movesTo, rungOf } from '@/core/plan/panels/holding';
import { holdingFaultText } from '@/core/report/fitting-words';
import { HOLDING_RUNGS } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import { loadJob } from '@/db/jobs';
import { insert, put } from '@/db/table';
import type { Queryable } from '@/db/database';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { measuringCase, useCase } from '../use-case';

const elsewhere = failed('panel', 'what was sent belongs to another panel');

/** Names a panel that is fitted, with the seams along its edges and the places at which it can be set. */
export const addHungPanel = useCase(input.newHungPanel, async ({ item, panel, seams, settings }, { database }) => {
  if (item.id !== panel.id || item.kind !== 'hung') return failed('item', 'this is no panel that is fitted');
  if ([...seams, ...settings].some(({ hungId }) => hungId !== panel.id)) return elsewhere;
  await database.transaction(async (tx) => {
    await insert(tx, 'workItems', [item]);
    await insert(tx, 'hungPanels', [panel]);
    await insert(tx, 'panelSeams', seams);
    await insert(tx, 'panelSettings', settings);
  });
  return done(null);
});

/** Corrects a panel and the seams along its edges; how it was is kept. */
export const correctHungPanel = useCase(input.correctedHungPanel, async ({ item, panel, seams }, context) => {
  if (seams.some(({ hungId }) => hungId !== panel.id)) return elsewhere;
  return context.database.transaction(async (tx) => {
    const result = await edit(tx, 'hungPanels', panel, context);
    if (!result.ok) return overtaken(result.current);
    const called = await edit(tx, 'workItems', item, context);
    if (!called.ok) return overtaken(called.current);
    await tx.query('delete from panel_seam where hung_id = $1', [panel.id]);
    await insert(tx, 'panelSeams', seams);
    return done(null);
  });
});

/** Writes how a panel can be set and what trials did, in place of what was said before. */
export const setPanelSettings = useCase(input.panelSettings, async ({ hungId, settings, effects }, { database }) => {
  const own = new Set(settings.map(({ id }) => id));
  if (settings.some((each) => each.hungId !== hungId) || effects.some(({ settingId }) => !own.has(settingId)))
    return elsewhere;
  await database.transaction(async (tx) => {
    await tx.query('delete from setting_effect where setting_id in (select id from panel_setting where hung_id = $1)', [
      hungId,
    ]);
    await tx.query('delete from panel_setting where hung_id = $1', [hungId]);
    await insert(tx, 'panelSettings', settings);
    await insert(tx, 'settingEffects', effects);
  });
  return done(null);
});

/** Writes what was measured of a panel and its opening and which points are its corners, in place of what was said before. */
export const setPanelMeasures = measuringCase(input.panelMeasures, async (said, { database, signature }) => {
  const { hungId, measures, corners } = said;
  if ([...measures, ...corners].some((each) => each.hungId !== hungId)) return elsewhere;
  await database.transaction(async (tx) => {
    await tx.query('delete from panel_measure where hung_id = $1', [hungId]);
    await tx.query('delete from opening_corner where hung_id = $1', [hungId]);
    await insert(
      tx,
      'panelMeasures',
      measures.map((each) => ({ ...each, ...signature })),
    );
    await insert(tx, 'openingCorners', corners);
  });
  return done(null);
});

/** Writes where the body can be packed up and what trials did, in place of what was said before. */
export const setBodyPackers = useCase(input.bodyPackers, async ({ jobId, packers, effects }, { database }) => {
  const own = new Set(packers.map(({ id }) => id));
  if (packers.some((each) => each.jobId !== jobId) || effects.some(({ packerId }) => !own.has(packerId)))
    return failed('packers', 'what was sent belongs to another job');
  await database.transaction(async (tx) => {
    await tx.query('delete from packer_effect where packer_id in (select id from body_packer where job_id = $1)', [
      jobId,
    ]);
    await tx.query('delete from body_packer where job_id = $1', [jobId]);
    await insert(tx, 'bodyPackers', packers);
    await insert(tx, 'packerEffects', effects);
  });
  return done(null);
});

/** Writes which shims are on the shelf. */
export const setShims = useCase(input.shims, async ({ jobId, shims }, { database }) => {
  await database.transaction(async (tx) => {
    await tx.query('delete from shim where job_id = $1', [jobId]);
    await insert(tx, 'shims', shims);
  });
  return done(null);
});

/** Writes what is not fitted yet and what it will do to gaps. */
export const setAllowances = useCase(input.allowances, async ({ jobId, allowances }, { database }) => {
  await database.transaction(async (tx) => {
    await tx.query('delete from allowance where job_id = $1', [jobId]);
    await insert(tx, 'allowances', allowances);
  });
  return done(null);
});

/** Names a joint of a panel, or says where it runs and which joint of the cut plan it is. */
export const putPanelJoint = useCase(input.panelJoint, async (joint, { database }) => {
  await put(database, 'panelJoints', [joint]);
  return done(null);
});

/** Takes out a joint that nothing happened at; what was read or done at one stays in the record. */
export const removePanelJoint = useCase(input.panelJointKey, async ({ hungId, name }, { database }) =>
  database.transaction(async (tx) => {
    const [used] = await tx.query(
      `select from let_go where hung_id = $1 and place = $2
       union all select from fixing where hung_id = $1 and joint = $2
       union all select from work_event where item_id = $1 and key = $2 limit 1`,
      [hungId, name],
    );
    if (used) return failed('name', 'something was done at this joint: it stays in the record');
    await tx.query('delete from panel_joint where hung_id = $1 and name = $2', [hungId, name]);
    return done(null);
  }),
);

/** Notes how far a joint sprang with its clamp off; one that had no name before has one now. */
export const addLetGo = measuringCase(input.letGo, async (test, { database, signature }) => {
  await database.transaction(async (tx) => {
    const joint = { hungId: test.hungId, name: test.place, edge: null, jointId: null };
    await insert(tx, 'panelJoints', [joint], { skipExisting: true });
    await insert(tx, 'letGos', [{ ...test, ...signature }], { skipExisting: true });
  });
  return done(null);
});

/** Names what a panel goes back on, or what was put in for a while. */
export const addFixing = measuringCase(input.newFixing, async (fixing, { database }) => {
  await insert(database, 'fixings', [{ ...fixing, closedAt: null, closedBy: '' }], { skipExisting: true });
  return done(null);
});

/** Says that something put in for a while is welded or ground, or that it is not. */
export const closeFixing = measuringCase(input.closedFixing, async ({ id, open }, { database, actor, now }) => {
  await database.query('update fixing set closed_at = $2, closed_by = $3 where id = $1 and (closed_at is null) <> $4', [
    id,
    open ? null : now,
    open ? '' : actor.name,
    open,
  ]);
  return done(null);
});

/** Says what lies under what, and whether what is under it is done. */
export const putLap = useCase(input.lap, async (lap, { database }) => {
  if (lap.underId === null && lap.what === '') return failed('what', 'say what lies under it');
  if (lap.underId === lap.overId) return failed('underId', 'a panel does not lie under itself');
  await put(database, 'laps', [lap]);
  return done(null);
});

export const removeLap = useCase(input.rowId, async ({ id }, { database }) => {
  await database.query('delete from lap where id = $1', [id]);
  return done(null);
});

/** Adds what is read besides gap and flush; one that is there is left as it is. */
export const addFitChecks = useCase(input.fitChecks, async ({ jobId, checks }, { database }) => {
  if (checks.some((each) => each.jobId !== jobId))
    return failed('checks', 'a check of another job cannot be made here');
  await insert(database, 'fitChecks', checks, { skipExisting: true });
  return done(null);
});

/** Takes out a check that was never read; one that was read stays in the record. */
export const removeFitCheck = useCase(input.rowId, async ({ id }, { database }) => {
  const [read] = await database.query('select from fit_reading where check_id = $1 limit 1', [id]);
  if (read) return failed('check', 'it was read: what was read stays in the record');
  await database.query('delete from fit_check where id = $1', [id]);
  return done(null);
});

/** Notes what a check was read as; the last reading holds. */
export const readFitCheck = measuringCase(input.fitReading, async (reading, { database, signature }) => {
  await insert(database, 'fitReadings', [{ ...reading, ...signature }], { skipExisting: true });
  return done(null);
});

/** Says where an edge, hole or spot of a new panel is and where it must be, or that it is done. */
export const putTrim = useCase(input.trim, async (trim, { database }) => {
  await put(database, 'trims', [trim]);
  return done(null);
});

export const removeTrim = useCase(input.rowId, async ({ id }, { database }) => {
  await database.query('delete from panel_trim where id = $1', [id]);
  return done(null);
});

/** The board tells what a panel waits for in the units of whoever looks; this is for who goes past it. */
const inMm = { length: (mm: number) => `${mm.toFixed(1)} mm` };

/** A panel, or one joint of it, goes to a rung of the holding ladder: up where nothing speaks against it, back whenever it is wanted. */
export const holdPanel = measuringCase(
  input.heldAt,
  async ({ id, hungId, joint, to, reason }, { database, signature }) =>
    database.transaction(async (tx) => {
      const job = await jobOf(tx, hungId);
      const panel = job?.hungPanels.find((each) => each.id === hungId);
      if (!job || !panel) return failed('panel', 'this panel is not in the job any more');
      if (joint !== '' && !job.rows.panelJoints.some((each) => each.hungId === hungId && each.name === joint))
        return failed('joint', `this panel has no joint "${joint}" any more`);
      const parts = movesTo(job, panel, to, joint);
      if (parts.length === 0) return done(null);
      const faults = holdingFaults(job, panel, to, joint);
      if (faults.length > 0) return failed('to', faults.map((fault) => holdingFaultText(fault, inMm)).join(' '));
      const back = HOLDING_RUNGS.indexOf(to) < HOLDING_RUNGS.indexOf(rungOf(job, panel, parts[0]));
      if (back && reason === '') return failed('reason', 'say why it goes back');
      const event = { itemId: hungId, kind: to, reason, value: null, ...signature };
      await insert(
        tx,
        'workEvents',
        parts.map((key, i) => ({ ...event, key, id: i === 0 ? id : randomUUID() })),
      );
      return done(null);
    }),
);

async function jobOf(tx: Queryable, hungId: string): Promise<Job | undefined> {
  const [owner] = await tx.query<{ jobId: string }>('select job_id from hung_panel where id = $1', [hungId]);
  const rows = owner && (await loadJob(tx, owner.jobId));
  return rows && Job.of(rows);
}
