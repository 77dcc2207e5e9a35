'use server';

import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { Reading } from '@/core/shell/job/entities';
import { readSister, type SisterReading } from '@/formats/sister';
import { insert } from '@/db/table';
import { loadJob } from '@/db/jobs';
import { done, failed, type Outcome } from '@/formats/outcome';
import { runUseCase } from '../use-case';

const sisterFile = z.strictObject({
  jobId: z.uuid(),
  shell: z.string().trim().min(1, 'say which car it is').max(200),
  author: z.string().trim().min(1).max(80),
  instrumentVersionId: z.uuid(),
  unit: z.enum(['mm', 'cm', 'm', 'in', 'ft']),
  file: z.strictObject({ name: z.string(), text: z.string().max(20_000_000) }),
  /** Which point of this shell each point of the other is; points not named are left out. */
  mapping: z.record(z.string(), z.uuid()),
});

/** Brings a round of another shell in from a file: its readings under this shell's point names. */
export async function importSister(input: unknown): Promise<Outcome<{ roundId: string; readings: number }>> {
  return runUseCase(
    sisterFile,
    input,
    async ({ jobId, shell, author, instrumentVersionId, unit, file, mapping }, { database }) => {
      const rows = await loadJob(database, jobId);
      if (!rows) return failed('job', 'this job is not here any more');
      const read = readSister(file.text, file.name, unit);
      if (!read.ok) return { ok: false, faults: read.faults.map((message) => ({ path: 'file', message })) };
      const at = new Date().toISOString();
      const roundId = randomUUID();
      const state = { id: randomUUID(), jobId, kind: 'asFound' as const, note: '', reachedAt: at };
      const support = {
        id: randomUUID(),
        jobId,
        kind: 'stands' as const,
        suspension: 'onUnloaded' as const,
        note: shell,
      };
      const readings = read.readings.flatMap((reading, i) =>
        rowOf(reading, mapping, { roundId, sequence: i, instrumentVersionId, author, at }),
      );
      if (readings.length === 0)
        return failed(
          'mapping',
          'no reading of the file is between points that are matched: match at least three points',
        );
      const number = Math.max(0, ...rows.rounds.map((round) => round.number)) + 1;
      await database.transaction(async (tx) => {
        await insert(tx, 'shellStates', [state]);
        await insert(tx, 'supports', [support]);
        await insert(tx, 'rounds', [
          {
            id: roundId,
            jobId,
            number,
            name: `Sister car: ${shell}`,
            stateId: state.id,
            supportId: support.id,
            instrumentVersionId,
            temperature: null,
            author,
            startedAt: at,
            closedAt: null,
            shell,
            version: 1,
          },
        ]);
        await insert(tx, 'readings', readings);
      });
      return done({ roundId, readings: readings.length });
    },
  );
}

function rowOf(
  { quantity, codes, value, measure, pointers }: SisterReading,
  mapping: Readonly<Record<string, string>>,
  { at, ...row }: Pick<Reading, 'roundId' | 'sequence' | 'instrumentVersionId' | 'author'> & { at: string },
): Reading[] {
  const [pointId, toPointId] = codes.map((code) => mapping[code]);
  if (!pointId || (codes.length > 1 && (!toPointId || toPointId === pointId))) return [];
  const id = randomUUID();
  return [
    {
      id,
      lineId: id,
      ...row,
      takenAt: at,
      receivedAt: at,
      raw: `${codes.join(' ')} ${quantity === 'distance' ? '' : `${quantity} `}${value}`,
      quantity,
      value,
      phase: 'none',
      measure,
      pointId,
      toPointId: toPointId ?? null,
      stationId: null,
      pullId: null,
      pointerFrom: pointers?.[0] ?? null,
      pointerTo: pointers?.[1] ?? null,
      fit: null,
    },
  ];
}
