'use client';

import type { Reading } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Doubt } from '@/core/round/net/net';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { correctedText } from './corrected-text';
import { subjectText } from './tape';

/** The readings the rest of the round contradicts, each with what can be done about it. Nothing here is urgent. */
export function Doubts({
  rows,
  doubts,
  closed,
  onCorrect,
  onAgain,
  onKeep,
}: {
  rows: JobRows;
  doubts: readonly Doubt[];
  /** In a closed round they are shown as they stand. */
  closed?: boolean;
  /** Supersedes the reading by a corrected line, with the reason. */
  onCorrect: (reading: Reading, line: string, reason: string) => void;
  onAgain: (reading: Reading) => void;
  onKeep: (reading: Reading) => void;
}) {
  const format = useFormat();
  return (
    <ol aria-label="Doubtful readings" className="flex flex-col gap-2">
      {doubts.map((doubt) => {
        const reading = rows.readings.find(({ id }) => id === doubt.readingId);
        if (!reading) return null;
        const line =
          doubt.cause && !doubt.cause.ambiguous ? correctedText(rows, reading, doubt.cause.corrected) : undefined;
        return (
          <li key={doubt.readingId} data-doubt={subjectText(rows, reading)} className="border border-rule bg-sheet p-2">
            <p>
              <strong className="font-mono">
                {subjectText(rows, reading)}{' '}
                {doubt.quantity === 'distance' || doubt.quantity === 'plan' ? '' : doubt.quantity}{' '}
                {format.length(reading.value)}
              </strong>{' '}
              {doubtText(doubt)}
              {doubt.expected
                ? ` The others say ${format.length(doubt.expected.value)} ${format.plusMinus(2 * doubt.expected.sd)} ${format.unit}.`
                : ''}
            </p>
            {doubt.cause ? <p className="font-medium">Likely: {format.name(doubt.cause.text)}.</p> : null}
            {doubt.together.length > 0 && !doubt.cause ? (
              <p className="text-sm text-soft">
                Cannot be told apart from{' '}
                {doubt.together
                  .map((id) => rows.readings.find((each) => each.id === id))
                  .flatMap((each) => (each ? [`${subjectText(rows, each)} ${format.length(each.value)}`] : []))
                  .join(', ')}
                .
              </p>
            ) : null}
            {closed ? null : (
              <div className="mt-1 flex flex-wrap gap-1.5">
                {line ? (
                  <Button look="main" onClick={() => onCorrect(reading, line, doubt.cause!.text)}>
                    Correct it to {line}
                  </Button>
                ) : null}
                <Button onClick={() => onAgain(reading)}>Measure again</Button>
                <Button onClick={() => onKeep(reading)}>Keep it</Button>
              </div>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function doubtText({ kind, w }: Doubt): string {
  if (kind === 'repeatsDiffer') return 'differs from its repeat by more than the instrument can.';
  if (kind === 'farFromChart') return 'is far from what the chart lets expect; nothing else speaks of it yet.';
  return `does not fit the rest (${Math.abs(w).toFixed(1)} times its own spread); it is left out until this is settled.`;
}
