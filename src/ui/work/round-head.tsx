'use client';

import { Link } from '../kit/link';
import type { CodedPull, Phase, Round } from '@/core/shell/job/entities';
import type { Tables } from '@/core/shell/job/job-rows';
import type { Action } from '../kit/use-action';
import { Cautions } from '../ladder/steps';
import { useFormat } from '../shell/preferences-context';
import { CloseRound, DropRound, OpenAgain, type RoundActions } from './close-round';
import { STATE_WORD, SUPPORT_WORD, SUSPENSION_WORD } from '@/core/report/vocabulary/words';

/** Which round this is, in which state and on which support; the way between tape and sheet. */
export function RoundHead({
  rows,
  round,
  here,
  actions,
  dropRound,
  pull,
  phase,
}: {
  rows: Tables<'shellStates' | 'supports'>;
  round: Round;
  here: 'measure' | 'sheet' | 'sides' | 'space';
  actions: RoundActions;
  /** Where nothing was read yet. */
  dropRound?: Action<string>;
  pull?: CodedPull;
  phase?: Phase;
}) {
  const format = useFormat();
  const base = `/jobs/${round.jobId}/rounds/${round.id}`;
  const state = rows.shellStates.find((each) => each.id === round.stateId)!;
  const support = rows.supports.find((each) => each.id === round.supportId)!;
  const tab =
    'flex min-h-11 items-center border border-rule px-3 aria-[current=page]:bg-ink aria-[current=page]:text-paper';
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <div className="min-w-0 grow basis-96">
          <h1 className="text-xl">
            {round.number}. {round.name}
            {round.shell ? (
              <span className="ml-3 border border-ink px-2 text-base font-normal">another shell: {round.shell}</span>
            ) : null}
          </h1>
          <p className="text-sm text-soft">
            {STATE_WORD[state.kind]} · {SUPPORT_WORD[support.kind]}, {SUSPENSION_WORD[support.suspension]}
            {support.note ? ` (${format.name(support.note)})` : ''} · {round.author}, {format.day(round.startedAt)}
          </p>
        </div>
        <nav aria-label="Round" className="flex">
          <Link className={tab} href={base} aria-current={here === 'measure' ? 'page' : undefined}>
            Tape
          </Link>
          <Link className={tab} href={`${base}/sheet`} aria-current={here === 'sheet' ? 'page' : undefined}>
            Sheet
          </Link>
          <Link className={tab} href={`${base}/sides`} aria-current={here === 'sides' ? 'page' : undefined}>
            Left/right
          </Link>
          <Link className={tab} href={`${base}/space`} aria-current={here === 'space' ? 'page' : undefined}>
            In space
          </Link>
        </nav>
        {dropRound ? <DropRound round={round} dropRound={dropRound} /> : null}
        {round.closedAt ? <OpenAgain round={round} {...actions} /> : <CloseRound round={round} {...actions} />}
      </div>
      {pull ? (
        <>
          <p className="border-y-2 border-ink py-1 font-medium">
            Reading pull {pull.code} {phase === 'released' ? 'after release' : 'under load'}: these lines belong to the
            pull, not to the round.{' '}
            <Link className="underline" href={`/jobs/${round.jobId}/pull/${pull.id}`}>
              Back to the pump
            </Link>
          </p>
          <Cautions rung="pull" />
        </>
      ) : null}
    </>
  );
}
