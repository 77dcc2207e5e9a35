import { useMemo, useRef, useState } from 'react';
import type { Levelled } from '@/core/report/pages/levelling';
import type { JobRows } from '@/core/shell/job/job-rows';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { TextField } from '../kit/field';
import { usePreferences } from '../shell/preferences-context';
import { useInstrumentsInHand } from '../tape/instruments-in-hand';
import type { TapeEntry } from '../tape/outbox';
import { lineReader, subjectsOf } from '../tape/reading-lines';
import { readingsEntry } from '../tape/tape-entries';

interface HeightsProps {
  readonly rows: JobRows;
  readonly levelling: Levelled;
  readonly put: (entry: TapeEntry) => void;
  /** Lines on their way to the server. */
  readonly waiting: number;
}

/** One field for the height of the point that is next; Enter takes it and moves on to the one after. */
export function Heights({ rows, levelling: { roundId, points }, put, waiting }: HeightsProps) {
  const { preferences, format } = usePreferences();
  const round = rows.rounds.find(({ id }) => id === roundId)!;
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const unit = typedUnit(preferences);
  const subjects = useMemo(() => subjectsOf(rows), [rows]);
  const [chosen, choose] = useState<string>();
  const [typed, type] = useState('');
  const [fault, setFault] = useState<string>();
  const field = useRef<HTMLInputElement>(null);
  const next = points.find(({ id }) => id === chosen) ?? points.find(({ height }) => height === undefined) ?? points[0];
  if (!next) return <p>No point of the chart is known here: heights need something to be compared with.</p>;
  const take = () => {
    const line = `${next.code} h ${typed}`;
    const parsed = lineReader(subjects, unit, undefined)(line);
    if (!parsed.ok) return setFault(parsed.reason);
    const writer = { roundId, author: preferences.person || round.author };
    put(readingsEntry(writer, line, parsed.readings, { pullId: null, phase: 'none' }, instruments.versionFor));
    type('');
    setFault(undefined);
    const after = points.slice(points.findIndex(({ id }) => id === next.id) + 1);
    choose(after.find(({ height }) => height === undefined)?.id);
    field.current?.focus();
  };
  return (
    <form
      aria-label="Read heights"
      className="flex flex-wrap items-end gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <div className="w-48">
        <TextField
          label={`Height of ${next.code}, ${format.unit}`}
          inputMode="decimal"
          ref={field}
          value={typed}
          error={fault}
          onChange={(event) => type(event.target.value)}
        />
      </div>
      <Button type="submit" look="main">
        Take
      </Button>
      <span role="status" className="text-soft">
        {waiting > 0 ? `${waiting} on the way` : ''}
      </span>
      <ul className="flex w-full flex-wrap gap-2">
        {points.map((point) => (
          <li key={point.id}>
            <Button aria-pressed={point.id === next.id} onClick={() => choose(point.id)}>
              <strong>{point.code}</strong>
              <span className="num">{point.height === undefined ? '–' : format.length(point.height)}</span>
            </Button>
          </li>
        ))}
      </ul>
    </form>
  );
}
