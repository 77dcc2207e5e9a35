import { useState } from 'react';
import { z } from 'zod';
import { seeded } from '@/core/maths/random/seeded';
import { readStanding, seatsUnder, turnSeats } from '@/core/practice/levelled-shell';
import type { StandingSeat } from '@/core/practice/standing-shell';
import type { SupportMove } from '@/core/plan/set-up/level';
import type { PlannedSetUp } from '@/core/report/pages/set-up';
import type { Levelled } from '@/core/report/pages/levelling';
import type { JobRows } from '@/core/shell/job/job-rows';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { usePreferences } from '../shell/preferences-context';
import { useInstrumentsInHand } from '../tape/instruments-in-hand';
import type { TapeEntry } from '../tape/outbox';
import { lineReader, subjectsOf } from '../tape/reading-lines';
import { readingsEntry } from '../tape/tape-entries';
import type { InHand } from './in-hand';

const figure = z.number();
const kept = z.array(z.object({ id: z.string(), x: figure, y: figure, height: figure }));
const truePlaces = z.record(z.string(), z.tuple([figure, figure, figure]));

interface Practising {
  readonly planned: PlannedSetUp;
  readonly rows: JobRows;
  readonly levelling: Levelled;
  readonly put: (entry: TapeEntry) => void;
}

export interface SimulatedShell {
  readonly read: () => Promise<void>;
  /** The mounts were turned as they were told: so they are under the simulated shell, where it is in use. */
  readonly turn: (moves: readonly SupportMove[]) => void;
  /** Mounts that carry nothing; undefined before anything was read. */
  readonly idle?: readonly string[];
  readonly fault?: string;
}

/**
 * A hidden shell that stands on the planned mounts and follows when they are turned: its seats stay in this browser, for
 * practice, and its heights become lines of the round's tape as a stick's would.
 */
export function useSimulatedShell({ planned, rows, levelling, put }: Practising): SimulatedShell {
  const { setUp } = planned;
  const key = `vinkel.simulated-seats.${setUp.id}`;
  const { preferences } = usePreferences();
  const round = rows.rounds.find(({ id }) => id === levelling.roundId)!;
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const [random] = useState(() => seeded(Date.now()));
  const [idle, setIdle] = useState<readonly string[]>();
  const [fault, setFault] = useState<string>();
  const places = levelling.points.map(({ id, chart }) => ({ id, at: chart }));
  const keptSeats = (): StandingSeat[] | undefined => {
    const parsed = kept.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    const known = parsed.success ? new Set(parsed.data.map(({ id }) => id)) : undefined;
    return known && levelling.seats.every(({ id }) => known.has(id)) ? parsed.data : undefined;
  };
  const keep = (seats: readonly StandingSeat[]) => localStorage.setItem(key, JSON.stringify(seats));
  const firstSeats = async () => {
    const response = await fetch(`/api/jobs/${setUp.jobId}/simulated-shell`);
    const truth = response.ok ? truePlaces.parse(await response.json()) : {};
    const known = levelling.points.flatMap(({ code }, i) => {
      const at = truth[code];
      return at ? [{ ...places[i]!, height: at[2] }] : [];
    });
    return known.length >= 3 ? seatsUnder(known, levelling.seats) : undefined;
  };
  const read = async () => {
    const seats = keptSeats() ?? (await firstSeats());
    const found = seats && readStanding(seats, levelling.weight, places, random);
    if (!found) return setFault('There is no shell to simulate: the job needs a chart and at least three mounts.');
    setFault(undefined);
    keep(seats);
    setIdle(found.idle);
    const reader = lineReader(subjectsOf(rows), typedUnit(preferences), undefined);
    const writer = { roundId: round.id, author: preferences.person || round.author };
    for (const { id, code } of levelling.points) {
      const line = `${code} h ${found.heights.get(id)!.toFixed(1)} mm`;
      const parsed = reader(line);
      if (parsed.ok)
        put(readingsEntry(writer, line, parsed.readings, { pullId: null, phase: 'none' }, instruments.versionFor));
    }
  };
  const turn = (moves: readonly SupportMove[]) => {
    const seats = keptSeats();
    if (!seats || idle === undefined) return;
    keep(turnSeats(seats, moves, levelling.weight, random));
    setIdle(undefined);
  };
  return { read, turn, ...(idle ? { idle } : {}), ...(fault ? { fault } : {}) };
}

/** Everything can be tried without a shell: one press reads all heights of a hidden one. */
export function SimulatedStick({ simulated, words }: { simulated: SimulatedShell } & Pick<InHand, 'words'>) {
  const { idle } = simulated;
  return (
    <section aria-label="Simulated stick" className="flex flex-wrap items-center gap-3">
      <Button onClick={() => void simulated.read()}>Read all with the simulated stick</Button>
      {idle ? (
        <span role="status" className="text-soft">
          {idle.length === 0
            ? 'By hand, every mount of the simulated shell carries.'
            : `By hand, ${idle.map(words.mount).join(' and ')} of the simulated shell carries nothing.`}
        </span>
      ) : null}
      {simulated.fault ? <span role="alert">{simulated.fault}</span> : null}
    </section>
  );
}
