'use client';

import { Undo2 } from 'lucide-react';
import type { PullGoing, PullView } from '@/core/report/pages/pulling';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button } from '../kit/button';
import { usePreferences } from '../shell/preferences-context';
import { strikeEntry } from '../tape/tape-entries';
import type { TapeLine, useTape } from '../tape/use-tape';

interface ListProps {
  readonly going: PullGoing;
  readonly rows: JobRows;
  readonly view: PullView;
  readonly marks: PullView['marks'];
  readonly lines: readonly TapeLine[];
  readonly put: ReturnType<typeof useTape>['put'];
}

/** The strokes so far, each with its mark, and what takes a mistyped reading back. */
export function StrokeList({ going, rows, view, marks, lines, put }: ListProps) {
  const { format, preferences } = usePreferences();
  const { strokes } = going.course;
  const round = rows.rounds.find(({ id }) => id === view.pull.roundId)!;
  const last = lines.findLast(({ strike, state }) => !strike && state !== 'refused');
  const undo = () => {
    if (!last) return;
    const writer = { roundId: round.id, author: preferences.person || round.author };
    put(strikeEntry(writer, { lineId: last.lineId, reason: 'mistyped at the pump' }));
  };
  const refused = lines.filter(({ state }) => state === 'refused');
  return (
    <section aria-label="Strokes" className="flex flex-col gap-2">
      {strokes.length > 0 ? (
        <table className="ruled max-w-3xl">
          <thead>
            <tr>
              <th>Stroke</th>
              <th className="num">Mark {format.unit}</th>
              <th className="num">Under load</th>
              <th className="num">Came home</th>
              <th className="num">Rests at</th>
              <th className="num">Expected</th>
              <th className="num">Gained</th>
            </tr>
          </thead>
          <tbody>
            {strokes.map((stroke, i) => {
              const mark = marks.find(({ ordinal }) => ordinal === i);
              return (
                <tr key={stroke.at} data-stroke={i + 1}>
                  <td>
                    {i + 1}
                    {going.contradicts.includes(i) ? <strong> contradicts itself</strong> : null}
                  </td>
                  <td className="num">{mark ? format.length(mark.target) : '–'}</td>
                  <td className="num">{format.length(stroke.loaded)}</td>
                  <td className="num font-medium">{format.length(stroke.springBack)}</td>
                  <td className="num">{format.length(stroke.rested)}</td>
                  <td className="num text-soft">
                    {mark ? `${format.length(mark.rest)} ${format.plusMinus(mark.plusMinus)}` : '–'}
                  </td>
                  <td className="num">{format.difference(stroke.gained)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      ) : (
        <p className="text-soft">No stroke yet.</p>
      )}
      {last ? (
        <span>
          <Button look="quiet" onClick={undo}>
            <Undo2 size={18} aria-hidden /> Undo “{last.readings[0]!.raw}”
          </Button>
        </span>
      ) : null}
      {refused.map(({ lineId, message }) => (
        <p key={lineId} role="alert" className="text-minus">
          {message}
        </p>
      ))}
    </section>
  );
}
