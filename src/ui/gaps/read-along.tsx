'use client';

import { useState, type FormEvent } from 'react';
import type { SeamPair, StationJudgement } from '@/core/round/judge/seams';
import { seeded } from '@/core/maths/random/seeded';
import { simulateGap } from '@/core/practice/simulated-gaps';
import type { GapsPage } from '@/core/report/pages/gaps';
import type { Round } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { SelectField, TextField } from '../kit/field';
import { usePreferences } from '../shell/preferences-context';
import { useInstrumentsInHand } from '../tape/instruments-in-hand';
import { lineReader, subjectsOf } from '../tape/reading-lines';
import { readingsEntry } from '../tape/tape-entries';
import type { useTape } from '../tape/use-tape';

interface ReadProps {
  readonly rows: JobRows;
  readonly round: Round;
  readonly pairs: readonly SeamPair[];
  readonly readIn: GapsPage['readIn'];
  readonly put: ReturnType<typeof useTape>['put'];
}

/** What a caliper is good to, mm: one standard deviation. */
const CALIPER_SD = 0.25;

/** A station that is asked for: its seam's code with its number, and what it is called. */
interface Asked {
  readonly key: string;
  readonly name: string;
  readonly side: string;
  readonly gap: StationJudgement;
}

/** Station by station along a pair of seams, both sides of each in turn. */
function walkOf({ left, right, centre }: SeamPair): Asked[] {
  const seams = [left, right, centre].filter((each) => each !== undefined);
  const numbers = [...new Set(seams.flatMap(({ stations }) => stations.map(({ station }) => station.number)))];
  return numbers
    .toSorted((a, b) => a - b)
    .flatMap((number) =>
      seams.flatMap(({ seam, stations }): Asked[] => {
        const gap = stations.find((each) => each.quantity === 'gap' && each.station.number === number);
        return gap ? [{ key: `${seam.code}.${number}`, name: gap.station.name, side: seam.side, gap }] : [];
      }),
    );
}

/** Gap and flush of every station of a seam, one line and Enter each, onto the tape of the round that is open. */
export function ReadAlong({ rows, round, pairs, readIn, put }: ReadProps) {
  const { format, preferences } = usePreferences();
  const instruments = useInstrumentsInHand(rows, round.instrumentVersionId);
  const [pairing, choose] = useState(pairs[0]!.pairing);
  const [place, setPlace] = useState(0);
  const [typed, type] = useState('');
  const [fault, setFault] = useState<string>();
  const [random] = useState(() => seeded(Date.now()));
  const pair = pairs.find((each) => each.pairing === pairing) ?? pairs[0]!;
  const walk = walkOf(pair);
  const asked = walk[place];
  const goTo = (next: number) => {
    setPlace(next);
    type('');
    setFault(undefined);
  };
  const take = (event: FormEvent) => {
    event.preventDefault();
    if (!asked) return;
    const line = `${asked.key} ${typed.trim()}`;
    const parsed = lineReader(subjectsOf(rows), typedUnit(preferences), undefined)(line);
    if (typed.trim() === '') return setFault('type the gap, then the flush; or skip this station');
    if (!parsed.ok) return setFault(parsed.reason);
    const writer = { roundId: round.id, author: preferences.person || round.author };
    put(readingsEntry(writer, line, parsed.readings, { pullId: null, phase: 'none' }, instruments.versionFor));
    goTo(place + 1);
  };
  const simulate = () => {
    const read = asked && simulateGap(Job.of(rows), asked.gap.station.id, CALIPER_SD, random);
    if (read) type(`${format.thin(read.gap)} ${format.thin(read.flush)}`);
  };
  return (
    <section aria-label="Read along a seam" className="flex flex-col gap-2 border-t-2 border-ink pt-2">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <div className="w-64">
          <SelectField
            label="Read along"
            value={pair.pairing}
            options={pairs.map((each) => [each.pairing, format.name(nameOf(each))])}
            onChange={(event) => {
              choose(event.target.value);
              goTo(0);
            }}
          />
        </div>
        {asked ? (
          <form onSubmit={take} className="flex flex-wrap items-end gap-3" noValidate data-asked={asked.key}>
            <div className="w-80 text-xl">
              <TextField
                label={`${asked.key} ${format.name(asked.name)}, ${asked.side}: gap, then flush, ${format.unit}`}
                value={typed}
                inputMode="decimal"
                placeholder={asked.gap.target ? `${format.length(asked.gap.target.value)} ${format.length(0)}` : ''}
                onChange={(event) => type(event.target.value)}
                {...(fault ? { error: fault } : {})}
                {...(asked.gap.measured && readIn[asked.gap.station.seamId]?.id === round.id
                  ? { hint: 'Read before: both count as their mean. Was the panel moved since, open a new round.' }
                  : {})}
              />
            </div>
            <Button look="main" type="submit" className="min-h-12">
              Take it
            </Button>
            <Button look="quiet" onClick={simulate}>
              Simulated caliper
            </Button>
            <Button onClick={() => goTo(place + 1)}>Skip</Button>
            <Button disabled={place === 0} onClick={() => goTo(place - 1)}>
              Back
            </Button>
          </form>
        ) : (
          <p role="status" className="pb-2">
            That seam is read. <Button onClick={() => goTo(0)}>Once more</Button>
          </p>
        )}
      </div>
      <ol className="flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="Stations of this seam">
        {walk.map(({ key, gap }, i) => (
          <li key={key} className={i === place ? 'font-semibold' : 'text-soft'} aria-current={i === place || undefined}>
            {key} {gap.measured ? format.length(gap.measured.value) : '–'}
          </li>
        ))}
      </ol>
    </section>
  );
}

const nameOf = ({ left, right, centre, pairing }: SeamPair): string => (left ?? right ?? centre)?.seam.name || pairing;
