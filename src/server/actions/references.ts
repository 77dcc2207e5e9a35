'use server';

import { Job } from '@/core/shell/job/job';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { chooseReferences } from '@/core/shell/references/chosen';
import { editionsOf } from '@/core/shell/references/editions';
import {
  fromEarlierRound,
  fromMirror,
  fromPlannedChange,
  fromSisterCars,
  type DraftResult,
  type ReferenceDraft,
} from '@/core/findings/references/derive';
import { loadJob } from '@/db/jobs';
import { insert } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';
import { readTypedFigures } from '@/formats/typed-figures';
import { runUseCase } from '../use-case';

/** What a new reference is made of. */
const makeOf = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('earlierRound'), roundId: z.uuid() }),
  z.strictObject({ kind: z.literal('mirroredSide'), roundId: z.uuid(), good: z.enum(['left', 'right']) }),
  z.strictObject({ kind: z.literal('sisterCar'), roundIds: z.array(z.uuid()), through: z.array(z.uuid()) }),
  z.strictObject({
    kind: z.literal('plannedChange'),
    pointIds: z.array(z.uuid()),
    offset: z.tuple([z.number(), z.number(), z.number()]),
  }),
  z.strictObject({
    kind: z.enum(['keptPart', 'chart']),
    figures: z.string().max(200_000),
    unit: z.enum(['mm', 'cm', 'm', 'in', 'ft']),
    trust: z.number().min(0).max(1000),
  }),
]);

const newReference = z.strictObject({
  jobId: z.uuid(),
  name: z.string().trim().min(1, 'the reference needs a name').max(200),
  source: z.string().trim().max(2000),
  of: makeOf,
});
type MakeOf = z.infer<typeof makeOf>;

/** Structural points of an older shell, where nothing else says how far off is accepted, mm. */
const USUAL_LIMIT = 3;

/** Makes a reference out of what was measured or typed, and ranks it: a planned change first, anything else last. */
export async function makeReference(input: unknown): Promise<Outcome<{ referenceId: string }>> {
  return runUseCase(newReference, input, async ({ jobId, name, source, of }, { database }) => {
    const rows = await loadJob(database, jobId);
    if (!rows) return failed('job', 'this job is not here any more');
    const made = draftOf(rows, of);
    if (!made.ok) return failed('of', made.reason);
    const referenceId = randomUUID();
    const ranks = rows.references.map(({ rank }) => rank);
    const first = of.kind === 'plannedChange';
    const rank = first ? 0 : Math.max(-1, ...ranks) + 1;
    const roundId = 'roundId' in of ? of.roundId : null;
    const reference: entity.Reference = {
      id: referenceId,
      jobId,
      kind: of.kind,
      name,
      rank,
      roundId,
      source: [source, made.draft.how].filter(Boolean).join('; '),
      trust: Math.round(made.draft.trust * 100) / 100,
      createdAt: new Date().toISOString(),
      edition: 1,
      editionOf: null,
      inUse: true,
    };
    await database.transaction(async (tx) => {
      if (first) await tx.query('update reference set rank = rank + 1 where job_id = $1', [jobId]);
      await insert(tx, 'references', [reference]);
      await insertFigures(tx, rows, referenceId, made.draft);
      const behind = 'roundIds' in of ? of.roundIds : roundId ? [roundId] : [];
      await insert(
        tx,
        'referenceRounds',
        behind.map((each) => ({ referenceId, roundId: each })),
      );
    });
    return done({ referenceId });
  });
}

function draftOf(rows: JobRows, of: MakeOf): DraftResult {
  const round = (id: string) => rows.rounds.find((each) => each.id === id);
  const missing = { ok: false, reason: 'the round is not here any more' } as const;
  switch (of.kind) {
    case 'earlierRound': {
      const earlier = round(of.roundId);
      return earlier ? fromEarlierRound(Job.of(rows), earlier) : missing;
    }
    case 'mirroredSide': {
      const measured = round(of.roundId);
      return measured ? fromMirror(Job.of(rows), measured, of.good) : missing;
    }
    case 'sisterCar':
      return fromSisterCars(
        Job.of(rows),
        of.roundIds.flatMap((id) => round(id) ?? []),
        new Set(of.through),
      );
    case 'plannedChange':
      return fromPlannedChange(Job.of(rows), of.pointIds, of.offset);
    default: {
      const { points, dimensions, faults } = readTypedFigures(of.figures, rows, of.unit);
      const [fault] = faults;
      if (fault) return { ok: false, reason: `line ${fault.line}: ${fault.message}` };
      if (points.length + dimensions.length === 0)
        return {
          ok: false,
          reason: 'type at least one figure: a point with length, width and height, or a dimension with its length',
        };
      const sd = of.trust;
      return {
        ok: true,
        draft: {
          points: points.map((each) => ({ ...each, sd })),
          dimensions: dimensions.map((each) => ({ ...each, sd })),
          trust: sd,
          how: 'typed by hand',
        },
      };
    }
  }
}

async function insertFigures(
  tx: Parameters<typeof insert>[0],
  rows: JobRows,
  referenceId: string,
  { points, dimensions }: ReferenceDraft,
): Promise<void> {
  const used = chooseReferences(rows);
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
}

/** Ranks the references of a job: the first is judged by first. */
export async function rankReferences(input: unknown): Promise<Outcome> {
  const schema = z.strictObject({ jobId: z.uuid(), ids: z.array(z.uuid()) });
  return runUseCase(schema, input, async ({ jobId, ids }, { database }) => {
    await database.transaction(async (tx) => {
      for (const [rank, id] of ids.entries())
        await tx.query(
          'update reference set rank = $3 where job_id = $1 and (id = $2 or edition_of = $2 or id = (select edition_of from reference where id = $2))',
          [jobId, id, rank],
        );
    });
    return done(null);
  });
}

/** Writes how far a reference is trusted; figures with a standard deviation of their own keep it. */
export async function trustReference(input: unknown): Promise<Outcome> {
  const schema = z.strictObject({ id: z.uuid(), trust: z.number('type a number').min(0).max(1000) });
  return runUseCase(schema, input, async ({ id, trust }, { database }) => {
    await database.query('update reference set trust = $2 where id = $1', [id, trust]);
    return done(null);
  });
}

/** Takes a reference into use or out of it; of several editions only one is in use. */
export async function putInUse(input: unknown): Promise<Outcome> {
  const schema = z.strictObject({ jobId: z.uuid(), id: z.uuid(), inUse: z.boolean() });
  return runUseCase(schema, input, async ({ jobId, id, inUse }, { database }) => {
    const rows = await loadJob(database, jobId);
    const reference = rows?.references.find((each) => each.id === id);
    if (!rows || !reference) return failed('reference', 'this reference is not here any more');
    await database.transaction(async (tx) => {
      const editions = editionsOf(rows, reference).map((each) => each.id);
      if (inUse) await tx.query('update reference set in_use = false where id = any($1::uuid[])', [editions]);
      await tx.query('update reference set in_use = $2 where id = $1', [id, inUse]);
    });
    return done(null);
  });
}

/** Notes by which reference one point or dimension is judged, against the ranks. */
export async function chooseReference(input: unknown): Promise<Outcome> {
  return runUseCase(entity.referenceChoice, input, async (choice, { database }) => {
    await insert(database, 'referenceChoices', [choice], { skipExisting: true });
    return done(null);
  });
}

/** Marks points as meant, or never meant, to mirror the point opposite. */
export async function setMirrored(input: unknown): Promise<Outcome> {
  const schema = z.strictObject({ pointIds: z.array(z.uuid()), mirrored: z.boolean() });
  return runUseCase(schema, input, async ({ pointIds, mirrored }, { database }) => {
    await database.query('update point set mirrored = $2, version = version + 1 where id = any($1::uuid[])', [
      pointIds,
      mirrored,
    ]);
    return done(null);
  });
}
