'use client';

import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { readingsBehind } from '@/core/round/judge/behind';
import { corrections, type Correction } from '@/core/round/observe/corrections';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { spreadOf } from '@/core/shell/instruments';
import type { ReactNode } from 'react';
import { QUANTITY_WORD } from '@/core/report/vocabulary/words';
import type { Reading } from '@/core/shell/job/entities';
import type { Formatter } from '@/formats/formatter';
import { useFormat } from '../shell/preferences-context';

const CORRECTION_WORD: Readonly<Record<Correction['kind'], string>> = {
  startMark: 'start mark',
  zeroOffset: 'zero offset',
  temperature: 'temperature',
};

/** Both ends of a length by code and name; a point with the axis that was read. */
function subjectOf(job: Job, reading: Reading, format: Formatter): ReactNode {
  const ends = [reading.pointId, reading.toPointId].flatMap((id) => job.pointOf(id) ?? []);
  const names = ends.map(({ name }) => format.name(name)).filter(Boolean);
  return (
    <>
      {ends.map(({ code }) => code).join(' – ')} {reading.toPointId ? '' : QUANTITY_WORD[reading.quantity]}
      {reading.measure === 'level' ? 'level' : ''}
      <span className="block text-soft">{names.join(' – ')}</span>
    </>
  );
}

/** The readings a figure rests on, each with its corrections, its weight and how the others check it. */
export function ReadingsBehind({
  judgement,
  rows,
  pointIds,
}: {
  judgement: RoundJudgement;
  rows: JobRows;
  pointIds: readonly string[];
}) {
  const format = useFormat();
  const job = Job.of(rows);
  const behind = readingsBehind(job, judgement, pointIds);
  if (behind.length === 0) return null;
  return (
    <details className="pt-2" open={behind.length <= 8}>
      <summary className="caps flex min-h-11 cursor-pointer items-center">Readings behind it ({behind.length})</summary>
      <table className="ruled text-sm">
        <thead>
          <tr>
            <th>Between</th>
            <th>As typed</th>
            <th>Corrections</th>
            <th className="num">± {format.unit}</th>
            <th className="num">Weight</th>
            <th className="num">Checked</th>
            <th className="num">Off, in sd</th>
            <th>Taken</th>
          </tr>
        </thead>
        <tbody>
          {behind.map(({ reading, weight, checked, w, leftOut }) => {
            const version = job.version(reading.instrumentVersionId);
            return (
              <tr key={reading.id} className={leftOut ? 'text-soft line-through' : ''}>
                <td>{subjectOf(job, reading, format)}</td>
                <td className="font-mono">{reading.raw}</td>
                <td>
                  {corrections(reading, version, judgement.round.temperature)
                    .map(({ kind, amount }) => `${format.difference(amount)} ${CORRECTION_WORD[kind]}`)
                    .join(', ')}
                </td>
                <td className="num">{format.uncertainty(2 * spreadOf(version, reading.value))}</td>
                <td className="num">{weight === undefined ? '' : `${Math.round(100 * weight)} %`}</td>
                <td className="num">{checked === undefined ? 'not in the net' : `${Math.round(100 * checked)} %`}</td>
                <td className="num">{w === undefined || w === null ? '' : w.toFixed(1)}</td>
                <td>
                  {job.instrument(version).name}, {reading.author}, {format.day(reading.takenAt)}{' '}
                  {format.time(reading.takenAt)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}
