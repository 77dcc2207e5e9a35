'use server';

import { randomUUID } from 'node:crypto';
import type { Reading } from '@/core/shell/job/entities';
import { loadJob } from '@/db/jobs';
import { insert } from '@/db/table';
import { sisterFile } from '@/formats/inputs/references';
import { done, failed } from '@/formats/outcome';
import { readSister, type SisterReading } from '@/formats/sister';
import { useCase } from '../use-case';

/** Brings a round of another shell in from a file: its readings under this shell's point names. */
export const importSister = useCase(
  sisterFile,
  async (
    { jobId, shell, instrumentVersionId, unit, file, mapping },
    { database, actor: { name: author, personId }, now: at, newId },
  ) => {
    const read = readSister(file.text, file.name, unit);
    if (!read.ok) return { ok: false, faults: read.faults.map((message) => ({ path: 'file', message })) };
    const roundId = newId();
    const state = { id: newId(), jobId, kind: 'asFound' as const, note: '', reachedAt: at };
    const support = {
      ...{ id: newId(), jobId, kind: 'stands' as const, suspension: 'onUnloaded' as const, note: shell },
    };
    const readings = read.readings.flatMap((reading, i) =>
      rowOf(reading, mapping, { roundId, sequence: i, instrumentVersionId, author, personId, at }),
    );
    if (readings.length === 0)
      return failed(
        'mapping',
        'no reading of the file is between points that are matched: match at least three points',
      );
    return database.transaction(async (tx) => {
      const rows = await loadJob(tx, jobId);
      if (!rows) return failed('job', 'this job is not here any more');
      const number = Math.max(0, ...rows.rounds.map((round) => round.number)) + 1;
      await insert(tx, 'shellStates', [state]);
      await insert(tx, 'supports', [support]);
      await insert(tx, 'rounds', [
        {
          ...{
            id: roundId,
            jobId,
            number,
            name: `Sister car: ${shell}`.slice(0, 200),
            instrumentVersionId,
            author,
            personId,
            shell,
          },
          ...{
            stateId: state.id,
            supportId: support.id,
            temperature: null,
            startedAt: at,
            closedAt: null,
            setUpId: null,
            version: 1,
          },
        },
      ]);
      await insert(tx, 'readings', readings);
      return done({ roundId, readings: readings.length });
    });
  },
);

function rowOf(
  { quantity, codes, value, measure, pointers }: SisterReading,
  mapping: Readonly<Record<string, string>>,
  {
    at,
    ...row
  }: Pick<Reading, 'roundId' | 'sequence' | 'instrumentVersionId' | 'author' | 'personId'> & { at: string },
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
      raw: `${codes.join(' ')} ${quantity === 'distance' ? '' : `${quantity} `}${value}`.slice(0, 200),
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
      partHoleId: null,
      toward: null,
    },
  ];
}
