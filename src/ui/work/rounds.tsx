'use client';

import { Link } from '../kit/link';
import { type Round } from '@/core/shell/job/entities';

import type { ListedRound } from '@/core/report/pages/rounds';
import type { NewRoundInput } from '@/formats/inputs/rounds';
import { buttonClass } from '../kit/button';
import { Empty } from '../kit/faults';
import { type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { NewRound, type OpeningRows } from './new-round';
import { counted, STATE_WORD, SUPPORT_WORD, SUSPENSION_WORD } from '@/core/report/vocabulary/words';

/** The rounds of a job, and a new one: state, support, instrument, temperature, who. */
export function Rounds({
  rows,
  rounds,
  openRound,
}: {
  rows: OpeningRows;
  rounds: readonly ListedRound[];
  openRound: Action<NewRoundInput, { roundId: string }>;
}) {
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const state = (round: Round) => rows.shellStates.find((each) => each.id === round.stateId)!;
  const support = (round: Round) => rows.supports.find((each) => each.id === round.supportId)!;
  return (
    <section aria-label="Rounds of measuring" className="flex flex-col gap-3">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Rounds of measuring</h2>
        <NewRound rows={rows} openRound={openRound} />
      </div>
      {rounds.length === 0 ? <Empty title="No round yet">Open the first one: the shell as found.</Empty> : null}
      <ol className="border-t-2 border-ink empty:hidden">
        {rounds.map(({ round, readings, inside, outside, undecided }) => (
          <li key={round.id} className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-2">
            <div className="min-w-56 grow">
              <p className="font-cond text-lg font-semibold">
                {round.number}. {round.name}
              </p>
              <p className="text-sm text-soft">
                {STATE_WORD[state(round).kind]} · {SUPPORT_WORD[support(round).kind]},{' '}
                {SUSPENSION_WORD[support(round).suspension]} · {round.author}, {format.day(round.startedAt)}
                {round.temperature === null ? '' : ` · ${format.temperature(round.temperature)}`}
              </p>
            </div>
            <p className="figures text-sm">
              {counted(readings, 'reading')}
              {inside + outside + undecided > 0 ? (
                <span className="text-soft">
                  {' '}
                  · {inside} inside, {outside} outside, {undecided} undecided
                </span>
              ) : null}
            </p>
            <Link className={buttonClass()} href={`/jobs/${jobId}/rounds/${round.id}`}>
              Measure
            </Link>
            <Link className={buttonClass()} href={`/jobs/${jobId}/rounds/${round.id}/sheet`}>
              Sheet
            </Link>
          </li>
        ))}
      </ol>
    </section>
  );
}
