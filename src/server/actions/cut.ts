'use server';

import { knownPoints, latestRound, structureFromBody, structureOf } from '@/core/plan/cut/structure-of';
import type { Structure } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { ModelMember, ShellModel } from '@/core/structure/shell-model';
import type { Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { insert, put } from '@/db/table';
import * as input from '@/formats/inputs/cut';
import { done, failed, type Failure } from '@/formats/outcome';
import { modelFromFile } from '@/formats/structure-file';
import { edit, overtaken, type Editor } from '../edit';
import { measuringCase, useCase } from '../use-case';

type Stage = (typeof input.savedStage)['_output'];

/** Writes a stage: a new one, or one that is called or ordered otherwise. */
async function writeStage(tx: Queryable, { item, stage }: Stage, editor: Editor): Promise<Failure | undefined> {
  const [there] = await tx.query('select from stage where id = $1', [stage.id]);
  if (!there) {
    await insert(tx, 'workItems', [item]);
    await insert(tx, 'stages', [stage]);
    return undefined;
  }
  const called = await edit(tx, 'workItems', item, editor);
  if (!called.ok) return overtaken(called.current);
  const ordered = await edit(tx, 'stages', stage, editor);
  return ordered.ok ? undefined : overtaken(ordered.current);
}

const isStage = ({ item, stage }: Stage) => item.id === stage.id && item.kind === 'stage';

export const saveStage = useCase(input.savedStage, async (saved, context) => {
  if (!isStage(saved)) return failed('item', 'this is no stage');
  return context.database.transaction(async (tx) => (await writeStage(tx, saved, context)) ?? done(null));
});

/** Writes a panel to be replaced, whole: what it carries, how it is joined, where it is cut. */
export const savePanel = useCase(input.savedPanel, async (saved, context) => {
  const { item, panel, points, parts, lines, joints, stage } = saved;
  const own = [...points, ...parts, ...lines, ...joints.map(({ joint }) => joint)];
  if (item.id !== panel.id || item.kind !== 'panel' || own.some(({ panelId }) => panelId !== panel.id))
    return failed('panel', 'a point of another panel cannot be put here');
  if (joints.some((each) => each.item.id !== each.joint.id || each.item.kind !== 'joint'))
    return failed('joints', 'a joint is an item of work of its own');
  if (stage && !isStage(stage)) return failed('stage', 'this is no stage');
  return context.database.transaction(async (tx) => {
    const gone = await goneJoints(
      tx,
      panel.id,
      joints.map(({ joint }) => joint.id),
    );
    const begun = gone.find((each) => each.begun);
    if (begun) return failed('joints', `the joint at ${begun.beside} is begun to be welded: it stays`);
    const refused = stage ? await writeStage(tx, stage, context) : undefined;
    if (refused) return refused;
    const [there] = await tx.query('select from panel where id = $1', [panel.id]);
    if (there) {
      const called = await edit(tx, 'workItems', item, context);
      if (!called.ok) return overtaken(called.current);
      const result = await edit(tx, 'panels', panel, context);
      if (!result.ok) return overtaken(result.current);
    } else {
      await insert(tx, 'workItems', [item]);
      await insert(tx, 'panels', [panel]);
    }
    await tx.query('delete from panel_point where panel_id = $1', [panel.id]);
    await tx.query('delete from panel_part where panel_id = $1', [panel.id]);
    await tx.query('delete from cut_line where panel_id = $1', [panel.id]);
    await insert(tx, 'panelPoints', points);
    await insert(tx, 'panelParts', parts);
    await insert(tx, 'cutLines', lines);
    await writeJoints(tx, panel.id, joints);
    return done(null);
  });
});

/** Orders the panels of a stage: the first is the first that comes out. */
export const orderPanels = useCase(input.orderedPanels, ({ jobId, panels }, context) =>
  context.database.transaction(async (tx) => {
    const known = (await loadJob(tx, jobId))?.panels ?? [];
    for (const [ordinal, { id, version }] of panels.entries()) {
      const row = known.find((each) => each.id === id);
      if (!row) return failed('panels', 'one of these panels is not here any more');
      if (row.ordinal === ordinal) continue;
      const result = await edit(tx, 'panels', { ...row, version, ordinal }, context);
      if (!result.ok) return overtaken(result.current);
    }
    return done(null);
  }),
);

/** Says what is to be blasted; what happens to it are events of it. */
export const planBlasting = useCase(input.newBlasting, async (item, { database }) => {
  if (item.kind !== 'blasting') return failed('name', 'this is no blasting');
  await database.transaction((tx) => insert(tx, 'workItems', [{ ...item, version: 1 }]));
  return done(null);
});

/** Makes punch marks of points that were only drawn. */
export const punchPoints = useCase(input.punchedPoints, ({ jobId, pointIds }, context) =>
  context.database.transaction(async (tx) => {
    const rows = await loadJob(tx, jobId);
    if (!rows) return failed('jobId', 'this job is not here any more');
    const punched = new Set(pointIds);
    for (const point of rows.points)
      if (punched.has(point.id) && point.kind === 'drawn') {
        const result = await edit(tx, 'points', { ...point, kind: 'punch' }, context);
        if (!result.ok) return overtaken(result.current);
      }
    return done(null);
  }),
);

async function writeJoints(tx: Queryable, panelId: string, joints: (typeof input.savedPanel)['_output']['joints']) {
  const kept = joints.map(({ joint }) => joint.id);
  const gone = (await goneJoints(tx, panelId, kept)).map(({ id }) => id);
  await tx.query('update weld_seam set in_turn_with_id = null where in_turn_with_id = any($1::uuid[])', [gone]);
  for (const table of ['weld_stretch', 'weld_seam', 'joint', 'work_item'])
    await tx.query(`delete from ${table} where ${table === 'weld_stretch' ? 'seam_id' : 'id'} = any($1::uuid[])`, [
      gone,
    ]);
  await put(
    tx,
    'workItems',
    joints.map(({ item }) => item),
  );
  await put(
    tx,
    'joints',
    joints.map(({ joint }) => joint),
  );
}

/** The joints of a panel that are not among those that stay. */
const goneJoints = (tx: Queryable, panelId: string, kept: readonly string[]) =>
  tx.query<{ id: string; beside: string; begun: boolean }>(
    `select id, beside, exists (select from work_event where item_id = joint.id)
       or exists (select from weld_mark where seam_id = joint.id) as begun
     from joint where panel_id = $1 and not (id = any($2::uuid[]))`,
    [panelId, kept],
  );

const ALMOST_NOTHING = 'there is too little to make a structure of: say which body it is and type its three measures';

/** Writes a new edition of the structure: the one there is, or a body's picture, with some parts otherwise. */
export const keepStructure = useCase(input.keptStructure, async (kept, context) =>
  context.database.transaction(async (tx) => {
    const rows = await loadJob(tx, kept.jobId);
    if (!rows) return failed('jobId', 'this job is not here any more');
    const job = Job.of(rows);
    const known = knownPoints(job, latestRound(job));
    const from = kept.body ? structureFromBody(job, known, kept.body) : structureOf(job, known);
    if (!from) return failed('body', ALMOST_NOTHING);
    const changed = withChanges(from.model, kept);
    if ('fault' in changed) return changed.fault;
    await writeEdition(tx, { ...kept, template: from.template }, rows.structures.at(-1), changed.model, context);
    return done(null);
  }),
);

/** Takes in a structure as a file has it, as the next edition. */
export const importStructure = useCase(input.importedStructure, async ({ id, jobId, document }, context) =>
  context.database.transaction(async (tx) => {
    const rows = await loadJob(tx, jobId);
    if (!rows) return failed('jobId', 'this job is not here any more');
    const read = modelFromFile(document, rows.points);
    if (!read.ok) return { ok: false as const, faults: read.faults };
    await writeEdition(tx, { id, jobId, template: 'file' }, rows.structures.at(-1), read.value, context);
    return done(null);
  }),
);

function withChanges(
  model: ShellModel,
  kept: (typeof input.keptStructure)['_output'],
): { readonly model: ShellModel } | { readonly fault: Failure } {
  const { members, sheets, without, added } = kept;
  const gone = new Set(without);
  const member = new Map(members.map((each) => [each.code, each]));
  const sheet = new Map(sheets.map((each) => [each.code, each]));
  const at = new Map(model.nodes.map(({ code }, i) => [code.toLowerCase(), i]));
  const more: ModelMember[] = [];
  for (const [i, { from, to, ...rest }] of added.entries()) {
    const [a, b] = [at.get(from.trim().toLowerCase()), at.get(to.trim().toLowerCase())];
    if (a === undefined || b === undefined || a === b) {
      const message = a === b && a !== undefined ? 'a member has two ends' : `no node “${a === undefined ? from : to}”`;
      return { fault: failed(a === undefined ? `added.${i}.from` : `added.${i}.to`, message) };
    }
    more.push({ ...rest, code: `${model.nodes[a]!.code}-${model.nodes[b]!.code}`, from: a, to: b });
  }
  const next = {
    nodes: model.nodes,
    members: [
      ...model.members.flatMap((each) => (gone.has(each.code) ? [] : [{ ...each, ...member.get(each.code) }])),
      ...more,
    ],
    sheets: model.sheets.flatMap((each) => (gone.has(each.code) ? [] : [{ ...each, ...sheet.get(each.code) }])),
  };
  return { model: next };
}

async function writeEdition(
  tx: Queryable,
  { id, jobId, template }: Pick<Structure, 'id' | 'jobId' | 'template'>,
  last: Structure | undefined,
  model: ShellModel,
  { signature, newId }: Editor,
): Promise<void> {
  await insert(tx, 'structures', [{ id, jobId, template, edition: (last?.edition ?? 0) + 1, ...signature }]);
  const ids = model.nodes.map(() => newId());
  await insert(
    tx,
    'nodes',
    model.nodes.map(({ code, name, at: [x, y, z], pointId }, i) => ({
      ...{ id: ids[i]!, structureId: id, code, name, x, y, z, pointId },
    })),
  );
  await insert(
    tx,
    'members',
    model.members.map(({ code, name, from, to, width, height, wall, condition }) => ({
      ...{ id: newId(), structureId: id, code, name, width, height, wall, condition },
      ...{ fromNodeId: ids[from]!, toNodeId: ids[to]! },
    })),
  );
  await insert(
    tx,
    'shearPanels',
    model.sheets.map(({ code, name, nodes: [a, b, c, d], thickness, condition }) => ({
      ...{ id: newId(), structureId: id, code, name, thickness, condition },
      ...{ aNodeId: ids[a]!, bNodeId: ids[b]!, cNodeId: ids[c]!, dNodeId: ids[d]! },
    })),
  );
}

/** Writes a template, whole. */
export const saveTemplate = useCase(input.savedTemplate, async ({ template, corners }, context) => {
  if (corners.some(({ templateId }) => templateId !== template.id))
    return failed('corners', 'a corner of another template cannot be put here');
  return context.database.transaction(async (tx) => {
    const [there] = await tx.query('select from template where id = $1', [template.id]);
    if (there) {
      const result = await edit(tx, 'templates', template, context);
      if (!result.ok) return overtaken(result.current);
      await tx.query('delete from template_point where template_id = $1', [template.id]);
    } else await insert(tx, 'templates', [template]);
    await insert(tx, 'templatePoints', corners);
    return done(null);
  });
});

export const addPressTest = measuringCase(input.newPressTest, async (test, { database, signature }) => {
  await insert(database, 'pressTests', [{ ...test, ...signature }], { skipExisting: true });
  return done(null);
});

export const addSection = useCase(input.newSection, async (section, { database }) => {
  await insert(database, 'sections', [section], { skipExisting: true });
  return done(null);
});

export const saveKeepOut = useCase(input.savedKeepOut, async (row, { database }) => {
  await put(database, 'keepOuts', [row]);
  return done(null);
});

export const removeKeepOut = useCase(input.removedKeepOut, async ({ id }, { database }) => {
  await database.query('delete from keep_out where id = $1', [id]);
  return done(null);
});

/** Keeps what somebody said to a proposal, with what it rested on. */
export const decideAdvice = useCase(input.decidedAdvice, async (row, { database, signature }) => {
  await insert(database, 'adviceTaken', [{ ...row, ...signature }], { skipExisting: true });
  return done(null);
});

/** Writes what was read in a minute after metal came out. */
export const addCheck = measuringCase(input.newCheck, async ({ check, readings }, { database, signature }) => {
  if (readings.some(({ checkId }) => checkId !== check.id))
    return failed('readings', 'a reading of another check cannot be put here');
  await database.transaction(async (tx) => {
    await insert(tx, 'removalChecks', [{ ...check, ...signature }]);
    await insert(tx, 'removalReadings', readings);
  });
  return done(null);
});
