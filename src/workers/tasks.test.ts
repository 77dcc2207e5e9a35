import { describe, expect, it } from 'vitest';
import { demoRows } from '../../tests/support/demo-rows';
import { seeded } from '@/core/maths/random/seeded';
import { Job } from '@/core/shell/job/job';
import { isShopTable, JOB_TABLE_NAMES, JOB_TABLES, type JobRows, type JobTable } from '@/core/shell/job/job-rows';
import { recordDocument } from '@/core/shell/record-document';
import { TASKS } from './tasks';

/** The table whose rows a field names, where it names any. */
const NAMES: Readonly<Record<string, JobTable>> = {
  pointId: 'points',
  toPointId: 'points',
  fromPointId: 'points',
  substituteForId: 'points',
  dimensionId: 'dimensions',
  stationId: 'seamStations',
  seamId: 'seams',
  roundId: 'rounds',
  morningCheckId: 'morningChecks',
  readingId: 'readings',
  stateId: 'shellStates',
  supportId: 'supports',
  referenceId: 'references',
  editionOf: 'references',
  pullId: 'pulls',
  braceId: 'braces',
  stepId: 'steps',
  needsId: 'steps',
  personId: 'people',
  jointId: 'joints',
  entryId: 'logEntries',
  supersedes: 'logEntries',
  instrumentVersionId: 'instrumentVersions',
  itemId: 'workItems',
  benchVersionId: 'benchVersions',
  setUpId: 'setUps',
  mountId: 'mounts',
  headId: 'shelfItems',
  shelfItemId: 'shelfItems',
  sectionId: 'sections',
  stageId: 'stages',
  stageInId: 'stages',
  stageOutId: 'stages',
  panelId: 'panels',
  checkId: 'removalChecks',
  templateId: 'templates',
  hungId: 'hungPanels',
  floatsUntilId: 'hungPanels',
  settingId: 'panelSettings',
  packerId: 'bodyPackers',
  overId: 'hungPanels',
  underId: 'hungPanels',
  inTurnWithId: 'weldSeams',
};
/** Each row of these belongs to one of another table and no two to the same: their owners stay. */
const ONE_EACH = ['findingDetails', 'decisionDetails', 'readingStrikes', 'readingKeeps'];

/**
 * A job as the schema allows it, however unlikely: rows name any rows of the kind they may name, or none where they
 * need not, lists are thinned out or emptied, figures go to their limits, rounds are of other shells, open or closed.
 */
function loosened(name: 'solbris' | 'lodd' | 'kvist', seed: number): JobRows {
  const random = seeded(seed);
  const chance = (share: number) => random.next() < share;
  const one = <T>(list: readonly T[]): T => list[Math.floor(random.next() * list.length)]!;
  const rows = demoRows(name);
  const thinned = Object.fromEntries(
    JOB_TABLE_NAMES.map((table) => {
      const share = table === 'jobs' || isShopTable(table) ? 1 : one([1, 1, 1, 0.7, 0]);
      const needed = ['rounds', 'points', 'shellStates', 'supports'].includes(table);
      return [table, needed ? rows[table] : (rows[table] as readonly object[]).filter(() => random.next() < share)];
    }),
  ) as unknown as Record<JobTable, Record<string, unknown>[]>;
  const made = { ...thinned };
  for (const table of JOB_TABLE_NAMES) {
    const { shape } = JOB_TABLES[table] as {
      shape: Record<string, { safeParse(value: unknown): { success: boolean } }>;
    };
    made[table] = thinned[table].flatMap((row) => {
      const next = { ...row };
      for (const [field, schema] of Object.entries(shape)) {
        const named = NAMES[field];
        const free = schema.safeParse(null).success;
        if (named && !(ONE_EACH.includes(table) && field === 'entryId')) {
          const list = made[named];
          const own = list.some(({ id }) => id === row[field]);
          if (free && chance(0.15)) next[field] = row[field] === null && list.length > 0 ? one(list).id : null;
          else if (row[field] !== null && (!own || chance(0.15))) {
            if (list.length === 0 && !free) return [];
            next[field] = list.length === 0 ? null : one(list).id;
          }
        } else if (typeof row[field] === 'number' && chance(0.03)) {
          const extreme = one([0, 1, -1, 1e-9, 99_999, -99_999, 1000]);
          if (schema.safeParse(extreme).success && field !== 'number' && field !== 'version') next[field] = extreme;
        }
      }
      return isHeld(table, next) ? [next] : [];
    });
  }
  const shell = () => (chance(0.3) ? 'Another' : '');
  made.rounds = made.rounds.map((round) => ({
    ...round,
    shell: shell(),
    closedAt: chance(0.5) ? null : round.startedAt,
  }));
  return { ...(made as unknown as JobRows), ...held(made as unknown as JobRows) };
}

/** What the database's own checks of a row demand besides. */
function isHeld(table: JobTable, row: Record<string, unknown>): boolean {
  if ('fromPointId' in row && row.fromPointId === row.toPointId) return false;
  if (table === 'panelSettings')
    return (row.most as number) >= (row.least as number) && (row.kind !== 'hold' || row.way !== null);
  if (table === 'bodyPackers') return (row.most as number) >= (row.least as number);
  if (table === 'stepNeeds') return row.stepId !== row.needsId;
  if (table === 'people')
    return (row.starts as number) <= (row.ends as number) && (row.noiseStarts as number) <= (row.noiseEnds as number);
  if (table === 'laps') return row.overId !== row.underId;
  if (table === 'hungPanels') return row.floatsUntilId !== row.id;
  if (table === 'weldSeams') return row.inTurnWithId !== row.id;
  if (table === 'axleReadings') return (row.leftDiagonal === null) === (row.rightDiagonal === null);
  if (table === 'stiffeners')
    return (
      (row.kind === 'gusset') === (row.otherPart !== '') &&
      (row.kind === 'gusset') === (row.width === null) &&
      (row.kind === 'rib') === (row.height !== null)
    );
  if (table === 'points') return row.substituteForId !== row.id;
  if (table === 'mounts')
    return (row.pointId !== null || row.x !== null) && (row.headId === null) === (row.lift === null);
  if (table === 'referenceChoices') return (row.pointId === null) !== (row.dimensionId === null);
  if (table === 'logSubjects')
    return (
      (row.pointId === null) !== (row.dimensionId === null) &&
      (row.acceptedDeviation === null) === (row.referenceId === null)
    );
  if (table !== 'readings') return true;
  const { quantity, pointId, toPointId, stationId, pullId, phase, pointerFrom, pointerTo, measure, fit } = row;
  return (
    (pointId === null) !== (stationId === null) &&
    (quantity === 'gap' || quantity === 'flush') === (stationId !== null) &&
    (quantity === 'distance') === (toPointId !== null) &&
    (quantity === 'distance') === (measure !== null) &&
    toPointId !== pointId &&
    (pullId !== null || phase === 'none') &&
    (pointerFrom === null) === (pointerTo === null) &&
    (quantity === 'fixture') === (fit !== null)
  );
}

/** And of rows together: one a subject, where it says so. */
function held(rows: JobRows): Partial<JobRows> {
  const once = <Row>(list: readonly Row[], key: (row: Row) => string) => [
    ...new Map(list.map((row) => [key(row), row])).values(),
  ];
  const entries = new Set(rows.logEntries.map(({ id }) => id));
  const items = new Set(rows.workItems.map(({ id }) => id));
  return {
    seamStations: once(rows.seamStations, ({ seamId, number }) => `${seamId} ${number}`),
    roundControls: once(rows.roundControls, ({ roundId, pointId }) => `${roundId} ${pointId}`),
    referencePoints: once(rows.referencePoints, ({ referenceId, pointId }) => `${referenceId} ${pointId}`),
    referenceDimensions: once(rows.referenceDimensions, (row) => `${row.referenceId} ${row.dimensionId}`),
    referenceStations: once(rows.referenceStations, (row) => `${row.referenceId} ${row.stationId} ${row.quantity}`),
    referenceRounds: once(rows.referenceRounds, ({ referenceId, roundId }) => `${referenceId} ${roundId}`),
    // The identity of an item of work is its details' own; a structure's parts are whole.
    braces: rows.braces.filter(({ id }) => items.has(id)),
    panels: rows.panels.filter(({ id }) => items.has(id)),
    stages: rows.stages.filter(({ id }) => items.has(id)),
    joints: rows.joints.filter(({ id, panelId }) => items.has(id) && items.has(panelId)),
    setUps: rows.setUps.filter(({ id }) => items.has(id)),
    panelPoints: once(rows.panelPoints, ({ panelId, pointId }) => `${panelId} ${pointId}`),
    panelParts: once(rows.panelParts, ({ panelId, code }) => `${panelId} ${code}`),
    ...wholeStructures(rows),
    braceDimensions: once(rows.braceDimensions, ({ braceId, dimensionId }) => `${braceId} ${dimensionId}`),
    hungPanels: rows.hungPanels.filter(({ id }) => items.has(id)),
    stepNeeds: once(rows.stepNeeds, ({ stepId, needsId }) => `${stepId} ${needsId}`),
    stepPeople: once(rows.stepPeople, ({ stepId, personId }) => `${stepId} ${personId}`),
    closedDays: once(rows.closedDays, ({ day, kind }) => `${day} ${kind}`),
    panelJoints: once(rows.panelJoints, ({ hungId, name }) => `${hungId} ${name}`),
    panelSeams: once(rows.panelSeams, ({ hungId, seamId }) => `${hungId} ${seamId}`),
    settingEffects: once(rows.settingEffects, ({ settingId, stationId }) => `${settingId} ${stationId}`),
    weldSeams: rows.weldSeams.filter(({ id }) => rows.joints.some((joint) => joint.id === id)),
    packerEffects: once(rows.packerEffects, ({ packerId, stationId }) => `${packerId} ${stationId}`),
    openingCorners: once(rows.openingCorners, ({ hungId, corner }) => `${hungId} ${corner}`),
    panelMeasures: once(rows.panelMeasures, ({ hungId, thing, what }) => `${hungId} ${thing} ${what}`),
    pulls: rows.pulls.filter(({ id }) => items.has(id)),
    cracks: rows.cracks.filter(({ id }) => items.has(id)),
    stiffeners: rows.stiffeners.filter(({ id }) => items.has(id)),
    holds: once(rows.holds, ({ itemId, pointId }) => `${itemId} ${pointId}`),
    readingStrikes: once(rows.readingStrikes, ({ readingId }) => readingId),
    readingKeeps: once(rows.readingKeeps, ({ readingId }) => readingId),
    findingDetails: rows.findingDetails.filter(({ entryId }) => entries.has(entryId)),
    decisionDetails: rows.decisionDetails.filter(({ entryId }) => entries.has(entryId)),
  };
}

/** Parts of a structure stand between nodes that are there. */
function wholeStructures(rows: JobRows): Pick<JobRows, 'members' | 'shearPanels'> {
  const nodes = new Set(rows.nodes.map(({ id }) => id));
  return {
    members: rows.members.filter(({ fromNodeId, toNodeId }) => nodes.has(fromNodeId) && nodes.has(toNodeId)),
    shearPanels: rows.shearPanels.filter(({ aNodeId, bNodeId, cNodeId, dNodeId }) =>
      [aNodeId, bNodeId, cNodeId, dNodeId].every((id) => nodes.has(id)),
    ),
  };
}

const run = { progress: () => undefined };

/** Every task that makes a page of a job, on each of its rounds; what it came to where it came to nothing. */
async function failures(rows: JobRows): Promise<string[]> {
  const job = Job.of(rows);
  const failed: string[] = [];
  const attempt = async (name: string, work: () => unknown) => {
    try {
      await work();
    } catch (error) {
      failed.push(`${name}: ${(error as Error).stack!.split('\n').slice(0, 3).join(' ')}`);
    }
  };
  for (const name of ['day', 'time', 'rounds', 'pulling', 'gaps', 'fitting'] as const)
    await attempt(name, () => TASKS[name](job));
  await attempt('set-up', () => TASKS.setUp(job, {}));
  await attempt('pulls', () => TASKS.advisePulls(job, undefined, run));
  await attempt('cut', () => TASKS.cutting(job, {}));
  for (const room of ['brace', 'cut'] as const)
    await attempt(`advise ${room}`, () => TASKS.adviseCutting(job, { stage: 0, room }, { progress: () => undefined }));
  await attempt('record', () => recordDocument.parse(TASKS.record(job, { madeAt: '2026-11-24T12:00:00.000Z' })));
  const hands = { constant: 0.8, perMetre: 0.3, height: 0.7 };
  for (const { id: roundId } of rows.rounds) {
    await attempt('analyse', () => TASKS.analyse(job, { roundId, agree: { mm: 3 } }, run));
    await attempt('sides', () => TASKS.sides(job, { roundId }));
    await attempt('first figures', () => TASKS.firstFigures(job, { roundId }));
    await attempt('walk', () => TASKS.walk(job, { roundId, hands, people: 'two' as never }));
    await attempt('ghosts', () => TASKS.ghosts(job, { roundId }));
  }
  const [earlier, later] = rows.rounds;
  if (later) await attempt('compare', () => TASKS.compare(job, { earlierId: earlier!.id, laterId: later.id }, run));
  return failed;
}

describe('whatever the schema allows', () => {
  it('a pull in the round of another shell is told in the record', () => {
    const rows = demoRows('solbris');
    const [first] = rows.rounds;
    const rounds = rows.rounds.map((round) => (round.id === first!.id ? { ...round, shell: 'The sister' } : round));
    const pulls = rows.pulls.map((pull) => ({ ...pull, roundId: first!.id }));
    const record = TASKS.record(Job.of({ ...rows, rounds, pulls }), { madeAt: '2026-11-24T12:00:00.000Z' });
    expect(record.pulls).toHaveLength(rows.pulls.length);
  });

  it.each(
    (['solbris', 'lodd', 'kvist'] as const).flatMap((name) =>
      Array.from({ length: 8 }, (_, seed) => [name, seed] as const),
    ),
  )('every page of %s can be made (%i)', async (name, seed) => {
    expect(await failures(loosened(name, 100 + seed))).toEqual([]);
  });
});
