'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { LengthSeries, ThroughTime } from '@/core/findings/through-time';
import { STATE_WORD } from '@/core/report/vocabulary/words';
import { Empty } from '../kit/faults';
import { useFormat } from '../shell/preferences-context';
import { TimeChart } from './time-chart';

const SHOWN_AT_FIRST = 4;

/** Telling dimensions through the rounds, with what was done to the shell in between. */
export function TimePage({ jobId, time }: { jobId: string; time: ThroughTime }) {
  const format = useFormat();
  const router = useRouter();
  const [chosen, choose] = useState<readonly string[]>(() =>
    time.series.slice(0, SHOWN_AT_FIRST).map(({ dimension }) => dimension.id),
  );
  const shown = useMemo(() => time.series.filter(({ dimension }) => chosen.includes(dimension.id)), [time, chosen]);
  if (time.series.length === 0)
    return (
      <div className="flex flex-col gap-3">
        <h1 className="text-2xl">Over time</h1>
        <Empty title="Nothing to follow yet">As soon as a round has measured a dimension, it stands here.</Empty>
      </div>
    );
  const open = (roundId: string) => router.push(`/jobs/${jobId}/rounds/${roundId}`);
  return (
    <div className="flex flex-col gap-3">
      <h1 className="text-2xl">Over time</h1>
      <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="flex min-w-0 flex-col gap-4">
          {shown.map((series) => (
            <TimeChart key={series.dimension.id} series={series} time={time} onRound={open} />
          ))}
          {shown.length === 0 ? <Empty title="No dimension is chosen">Tick one or more in the list.</Empty> : null}
        </div>
        <fieldset className="min-w-0 overflow-auto xl:max-h-[calc(100dvh-9rem)]">
          <legend className="caps">Dimensions: outside first, then the telling ones</legend>
          {time.series.map((series) => (
            <label key={series.dimension.id} className="flex min-h-11 items-center gap-2 border-b border-rule">
              <input
                type="checkbox"
                className="h-5 w-5"
                checked={chosen.includes(series.dimension.id)}
                onChange={() => choose(toggled(chosen, series.dimension.id))}
              />
              <span className="font-mono">{series.dimension.code}</span>
              <span className="min-w-0 grow truncate text-sm text-soft">{format.name(series.dimension.name)}</span>
              <span className="figures text-sm">{spanText(series, format.difference)}</span>
            </label>
          ))}
        </fieldset>
      </div>
      <section aria-label="What was done">
        <h2 className="text-lg">What was done in between</h2>
        {time.events.length === 0 ? <p className="text-soft">No brace, pull, cut or weld is noted yet.</p> : null}
        <ul className="columns-2 gap-6 text-sm max-md:columns-1">
          {time.events.map(({ at, kind, text }) => (
            <li key={at + text}>
              <span className="text-soft">{format.day(at)}</span> {kind}: {format.name(text)}
            </li>
          ))}
        </ul>
        <p className="text-sm text-soft">
          {time.rounds.map(({ number, name, state }) => `${number}. ${name} (${STATE_WORD[state]})`).join(' · ')}
        </p>
      </section>
    </div>
  );
}

const toggled = (all: readonly string[], id: string): string[] =>
  all.includes(id) ? all.filter((each) => each !== id) : [...all, id];

/** How far the last round is from the first. */
function spanText({ values }: LengthSeries, show: (mm: number) => string): string {
  return values.length > 1 ? show(values.at(-1)!.value - values[0]!.value) : '';
}
