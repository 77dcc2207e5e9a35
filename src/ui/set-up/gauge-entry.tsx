import { useMemo, useState } from 'react';
import type { GaugesPage } from '@/core/report/pages/gauges';
import { TOWARDS } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { SelectField, TextField } from '../kit/field';
import { usePreferences } from '../shell/preferences-context';
import { useInstrumentsInHand } from '../tape/instruments-in-hand';
import { lineReader, subjectsOf } from '../tape/reading-lines';
import { readingsEntry } from '../tape/tape-entries';
import { useTape } from '../tape/use-tape';

const HOWS = [
  ['centred', 'goes in'],
  ['beside', 'point lies beside it'],
  ['no', 'will not go in'],
] as const;
const HEAD_HOWS = [
  ['free', 'enters freely'],
  ['tight', 'enters tight'],
  ['no', 'will not go in'],
] as const;
const HEAD = 'head';

/** One head or hole at a time: which point it is at, and how it fits. It becomes a line of the round's tape. */
export function GaugeEntry({ rows, gauges, roundId }: { rows: JobRows; gauges: GaugesPage; roundId: string }) {
  const { preferences, format } = usePreferences();
  const { lines, put } = useTape(rows, roundId);
  const round = rows.rounds.find(({ id }) => id === roundId)!;
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const unit = typedUnit(preferences);
  const subjects = useMemo(() => subjectsOf(rows), [rows]);
  const holes = gauges.parts.flatMap(({ part, holes: own }) => own.map(({ code }) => `${part.code}.${code}`));
  const [typed, setTyped] = useState({
    point: gauges.points[0]?.code ?? '',
    gauge: holes[0] ?? HEAD,
    how: '',
    by: '',
    toward: 'rear',
  });
  const [fault, setFault] = useState<string>();
  const hows: readonly (readonly [string, string])[] = typed.gauge === HEAD ? HEAD_HOWS : HOWS;
  const how = hows.some(([value]) => value === typed.how) ? typed.how : hows[0]![0];
  const field = (name: keyof typeof typed) => ({
    value: name === 'how' ? how : typed[name],
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLSelectElement>) =>
      setTyped({ ...typed, [name]: event.target.value }),
  });
  const take = () => {
    const said = how === 'beside' ? `${typed.by} ${typed.toward}` : how;
    const line = `${typed.point} ${typed.gauge} ${said}`;
    const parsed = lineReader(subjects, unit, undefined)(line);
    if (!parsed.ok) return setFault(parsed.reason);
    const writer = { roundId, author: preferences.person || round.author };
    put(readingsEntry(writer, line, parsed.readings, { pullId: null, phase: 'none' }, instruments.versionFor));
    setFault(undefined);
    setTyped({ ...typed, by: '' });
  };
  const waiting = lines.filter(({ state }) => state === 'waiting').length;
  return (
    <form
      aria-label="Read a gauge"
      className="flex flex-wrap items-end gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <SelectField label="Point" options={gauges.points.map(({ code }) => [code, code])} {...field('point')} />
      <SelectField
        label="Gauge"
        options={[[HEAD, 'head'], ...holes.map((hole) => [hole, hole] as const)]}
        {...field('gauge')}
      />
      <SelectField label="It" options={hows} {...field('how')} />
      {how === 'beside' ? (
        <>
          <div className="w-28">
            <TextField label={`By, ${format.unit}`} inputMode="decimal" {...field('by')} error={fault} />
          </div>
          <SelectField label="To the" options={TOWARDS.map((way) => [way, way])} {...field('toward')} />
        </>
      ) : null}
      <Button type="submit" look="main">
        Take
      </Button>
      {fault && how !== 'beside' ? <span role="alert">{fault}</span> : null}
      <span role="status" className="text-soft">
        {waiting > 0 ? `${waiting} on the way` : ''}
      </span>
    </form>
  );
}
