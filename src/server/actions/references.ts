'use server';

import { randomUUID } from 'node:crypto';
import type { DraftResult, ReferenceDraft } from '@/core/findings/references/derive';
import type { Reference } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { stationKey } from '@/core/shell/references/chosen';
import { editionsOf } from '@/core/shell/references/editions';
import { loadJob } from '@/db/jobs';
import { insert } from '@/db/table';
import * as input from '@/formats/inputs/references';
import type { MakeOf } from '@/formats/inputs/references';
import { done, failed } from '@/formats/outcome';
import { readTypedFigures } from '@/formats/typed-figures';
import { rowsWithin } from '../rows-at';
import { runTask } from '../tasks';
import { useCase } from '../use-case';

/** Structural points of an older shell, where nothing else says how far off is accepted, mm. */
const USUAL_LIMIT = 3;
/** And of a gap, mm. */
const USUAL_GAP_LIMIT = 1;

/** Makes a reference out of what was measured or typed, and ranks it: a planned change first, anything else last. */
export const makeReference = useCase(input.newReference, ({ jobId, name, source, of }, { database, now, newId }) =>
  database.transaction(async (tx) => {
    const rows = await rowsWithin(tx, jobId);
    if (!rows) return failed('job', 'this job is not here any more');
    const made = await draftOf(rows, of);
    if (!made.ok) return failed('of', made.reason);
    const referenceId = newId();
    const first = of.kind === 'plannedChange';
    const roundId = 'roundId' in of ? of.roundId : null;
    const reference: Reference = {
      id: referenceId,
      jobId,
      kind: of.kind === 'removedPart' ? 'keptPart' : of.kind,
      name,
      rank: first ? 0 : Math.max(-1, ...rows.references.map(({ rank }) => rank)) + 1,
      roundId,
      source: [source, made.draft.how].filter(Boolean).join('; '),
      trust: Math.round(made.draft.trust * 100) / 100,
      createdAt: now,
      edition: 1,
      editionOf: null,
      inUse: true,
    };
    if (first) await tx.query('update reference set rank = rank + 1 where job_id = $1', [jobId]);
    await insert(tx, 'references', [reference]);
    await insertFigures(tx, rows, referenceId, made.draft);
    const behind = 'roundIds' in of ? of.roundIds : roundId ? [roundId] : [];
    await insert(
      tx,
      'referenceRounds',
      behind.map((each) => ({ referenceId, roundId: each })),
    );
    return done({ referenceId });
  }),
);

/** What a new reference will say: computed away from here, or read from what was typed. */
async function draftOf(rows: JobRows, of: MakeOf): Promise<DraftResult> {
  switch (of.kind) {
    case 'earlierRound':
      return runTask('derive', rows, { kind: of.kind, roundIds: [of.roundId] });
    case 'mirroredSide':
      return runTask('derive', rows, { kind: of.kind, roundIds: [of.roundId], good: of.good });
    case 'sisterCar':
      return runTask('derive', rows, { kind: of.kind, roundIds: of.roundIds, pointIds: of.through });
    case 'removedPart':
      return runTask('derive', rows, { kind: 'keptPart', roundIds: [of.roundId], pointIds: of.through });
    case 'plannedChange':
      return runTask('derive', rows, { kind: of.kind, roundIds: [], pointIds: of.pointIds, offset: of.offset });
    default:
      return typedDraft(rows, of);
  }
}

function typedDraft(
  rows: JobRows,
  { figures, unit, trust: sd }: Extract<MakeOf, { readonly figures: string }>,
): DraftResult {
  const { points, dimensions, faults } = readTypedFigures(figures, rows, unit);
  const [fault] = faults;
  if (fault) return { ok: false, reason: `line ${fault.line}: ${fault.message}` };
  if (points.length + dimensions.length === 0)
    return {
      ok: false,
      reason: 'type at least one figure: a point with length, width and height, or a dimension with its length',
    };
  return {
    ok: true,
    draft: {
      points: points.map((each) => ({ ...each, sd })),
      dimensions: dimensions.map((each) => ({ ...each, sd })),
      stations: [],
      trust: sd,
      how: 'typed by hand',
    },
  };
}

async function insertFigures(
  tx: Parameters<typeof insert>[0],
  rows: JobRows,
  referenceId: string,
  { points, dimensions, stations }: ReferenceDraft,
): Promise<void> {
  const used = Job.of(rows).references;
  const hundredth = (value: number) => Math.round(value * 100) / 100;
  await insert(
    tx,
    'referencePoints',
    points.map(({ pointId, at: [x, y, z], sd }) => ({
      id: randomUUID(),
      referenceId,
      pointId,
      x: hundredth(x),
      y: hundredth(y),
      z: hundredth(z),
      sd: hundredth(sd),
      version: 1,
      tolerance: used.points.get(pointId)?.row.tolerance ?? USUAL_LIMIT,
    })),
  );
  await insert(
    tx,
    'referenceDimensions',
    dimensions.map(({ dimensionId, value, sd }) => ({
      id: randomUUID(),
      referenceId,
      dimensionId,
      value: hundredth(value),
      sd: hundredth(sd),
      version: 1,
      tolerance: used.dimensions.get(dimensionId)?.row.tolerance ?? USUAL_LIMIT,
    })),
  );
  await insert(
    tx,
    'referenceStations',
    stations.map(({ stationId, quantity, value, sd }) => ({
      ...{ id: randomUUID(), referenceId, stationId, quantity, version: 1 },
      value: hundredth(value),
      sd: hundredth(sd),
      tolerance: used.stations.get(stationKey(stationId, quantity))?.row.tolerance ?? USUAL_GAP_LIMIT,
    })),
  );
}

/** Ranks the references of a job: the first is judged by first. */
export const rankReferences = useCase(input.ranks, async ({ jobId, ids }, { database }) => {
  await database.transaction(async (tx) => {
    for (const [rank, id] of ids.entries())
      await tx.query(
        'update reference set rank = $3 where job_id = $1 and (id = $2 or edition_of = $2 or id = (select edition_of from reference where id = $2))',
        [jobId, id, rank],
      );
  });
  return done(null);
});

/** Writes how far a reference is trusted; figures with a standard deviation of their own keep it. */
export const trustReference = useCase(input.trust, async ({ id, trust }, { database }) => {
  await database.query('update reference set trust = $2 where id = $1', [id, trust]);
  return done(null);
});

/** Takes a reference into use or out of it; of several editions only one is in use. */
export const putInUse = useCase(input.use, ({ jobId, id, inUse }, { database }) =>
  database.transaction(async (tx) => {
    const rows = await loadJob(tx, jobId);
    const reference = rows?.references.find((each) => each.id === id);
    if (!rows || !reference) return failed('reference', 'this reference is not here any more');
    const editions = editionsOf(rows, reference).map((each) => each.id);
    if (inUse) await tx.query('update reference set in_use = false where id = any($1::uuid[])', [editions]);
    await tx.query('update reference set in_use = $2 where id = $1', [id, inUse]);
    return done(null);
  }),
);

/** Notes by which reference one point or dimension is judged, against the ranks. */
export const chooseReference = useCase(input.choice, async (choice, { database, signature }) => {
  await insert(database, 'referenceChoices', [{ ...choice, ...signature }], { skipExisting: true });
  return done(null);
});

/** Marks points as meant, or never meant, to mirror the point opposite. */
export const setMirrored = useCase(input.mirroring, async ({ pointIds, mirrored }, { database }) => {
  await database.query('update point set mirrored = $2, version = version + 1 where id = any($1::uuid[])', [
    pointIds,
    mirrored,
  ]);
  return done(null);
});
