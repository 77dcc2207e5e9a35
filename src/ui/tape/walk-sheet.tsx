'use client';

import { Printer } from 'lucide-react';
import type { Round } from '@/core/shell/job/entities';
import type { Tables } from '@/core/shell/job/job-rows';
import type { Target } from '@/core/walk/targets';
import { counted, WHY_WORD } from '@/core/report/vocabulary/words';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { targetText } from './target-text';

/** The walk on paper: a line to write on for each reading, typed back in the same order. */
export function WalkSheet({
  rows,
  round,
  targets,
}: {
  rows: Tables<'jobs' | 'points'>;
  round: Round;
  targets: readonly Target[];
}) {
  const format = useFormat();
  const nameOf = (code: string) => format.name(rows.points.find((point) => point.code === code)?.name ?? '');
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-xl">
          {rows.jobs[0]!.name}: the walk for round {round.number}, {round.name}
        </h1>
        <Button className="ml-auto print:hidden" onClick={() => window.print()}>
          <Printer size={18} aria-hidden /> Print the sheet
        </Button>
      </div>
      <p className="text-sm">
        {counted(targets.length, 'reading')} in the order of the walk, {format.unit}. Written on paper, they are typed
        back in this order: a number and Enter each. Read by ____________________ with ____________________ at ______{' '}
        {format.temperatureUnit}
      </p>
      {targets.length === 0 ? (
        <p>There is no chart to plan a walk from, and no dimension to read.</p>
      ) : (
        <table className="ruled text-sm print:text-[9pt]">
          <thead>
            <tr>
              <th className="num">No</th>
              <th>Between</th>
              <th>Where</th>
              <th>Why</th>
              <th>Read</th>
            </tr>
          </thead>
          <tbody>
            {targets.map((target, i) => (
              <tr key={`${target.key}${i}`} className="break-inside-avoid">
                <td className="num">{i + 1}</td>
                <td className="font-mono whitespace-nowrap">{targetText(target)}</td>
                <td className="text-soft">{target.codes.map(nameOf).join(' – ')}</td>
                <td className="text-soft">{WHY_WORD[target.why]}</td>
                <td className="w-40 border-b border-ink" aria-label="to be written">
                  &nbsp;
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
