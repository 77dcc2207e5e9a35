'use client';

import Link from 'next/link';
import type { Pull, PullEvent } from '@/core/shell/job/entities';

import type { PullProgress } from '@/core/findings/brace-pull';
import type { PullsPage } from '@/core/report/pages/pulls';
import type { CorrectedPull, NewPull, PullEventInput, PullHoldsInput, WithdrawalInput } from '@/formats/inputs/work';
import { Button, buttonClass } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { Holds } from './holds';
import { CorrectPull } from './correct-pull';
import { aimText, PlanPull, type PullRows } from './plan-pull';
import { TakeBack } from './take-back';
import { useFormat } from '../shell/preferences-context';
import { QUANTITY_WORD } from '@/core/report/vocabulary/words';

export interface PullActions {
  readonly planPull: Action<NewPull>;
  readonly recordPullEvent: Action<PullEventInput>;
  readonly setPullHolds: Action<PullHoldsInput>;
  readonly correctPull: Action<CorrectedPull>;
  readonly withdraw: Action<WithdrawalInput>;
}

/** Pulls planned from a deviation, with their readings under load and after release. */
export function Pulls({
  rows,
  pulls,
  pullable,
  roundId,
  actions,
}: PullsPage & {
  rows: PullRows;
  actions: PullActions;
}) {
  const format = useFormat();
  const recording = useAction(actions.recordPullEvent);
  const jobId = rows.jobs[0]!.id;
  const event = (pull: Pull, kind: PullEvent['kind']) =>
    recording.run({
      id: crypto.randomUUID(),
      pullId: pull.id,
      kind,
      note: '',
    });
  return (
    <section aria-label="Pulls" className="flex flex-col gap-3">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Pulls</h2>
        <PlanPull rows={rows} pullable={pullable} roundId={roundId} planPull={actions.planPull} />
      </div>
      <Faults faults={recording.faults} />
      {pulls.length === 0 ? (
        <Empty title="No pull is planned">
          {roundId
            ? 'Plan one at a point that deviates.'
            : 'Measure and align a round first: a pull starts from a deviation.'}
        </Empty>
      ) : null}
      {pulls.map(({ pull, point, distance, lastEvent, progress, holds, offered }) => (
        <article key={pull.id} className="border-t-2 border-ink pt-2" data-code={pull.code}>
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <h3 className="text-lg">
              {pull.code} at {point}
            </h3>
            <p>
              {format.length(distance)} {format.unit}: {aimText([pull.aimX, pull.aimY, pull.aimZ], format.length)}
            </p>
            <p className="text-soft">
              {lastEvent ? `${lastEvent.kind}, ${lastEvent.author}, ${format.day(lastEvent.at)}` : ''}
            </p>
          </div>
          {pull.note ? <p className="text-sm text-soft">{format.name(pull.note)}</p> : null}
          <Holds {...{ rows, pull, holds, offered }} setPullHolds={actions.setPullHolds} />
          <CycleTable rows={rows} progress={progress} />
          <div className="mt-2 flex flex-wrap gap-2">
            <Link
              className={buttonClass()}
              href={`/jobs/${jobId}/rounds/${pull.roundId}?pull=${pull.id}&phase=underLoad`}
            >
              Read under load
            </Link>
            <Link
              className={buttonClass()}
              href={`/jobs/${jobId}/rounds/${pull.roundId}?pull=${pull.id}&phase=released`}
            >
              Read after release
            </Link>
            <PullState {...{ pull, lastEvent, actions }} say={(kind) => event(pull, kind)} />
          </div>
        </article>
      ))}
    </section>
  );
}

interface PullStateProps {
  readonly pull: Pull;
  readonly lastEvent?: PullEvent;
  readonly actions: PullActions;
  readonly say: (kind: PullEvent['kind']) => void;
}

/** What can be said of a pull, corrected in it or taken back. */
function PullState({ pull, lastEvent, actions, say }: PullStateProps) {
  const over = lastEvent?.kind === 'done' || lastEvent?.kind === 'abandoned';
  return (
    <>
      {over ? (
        <TakeBack
          label={`Not ${lastEvent.kind}`}
          what={`${pull.code} ${lastEvent.kind}`}
          row={{ jobId: pull.jobId, tableName: 'pull_event', rowId: lastEvent.id }}
          withdraw={actions.withdraw}
        />
      ) : (
        <>
          <Button look="quiet" onClick={() => say('done')}>
            Done
          </Button>
          <Button look="quiet" onClick={() => say('abandoned')}>
            Give it up
          </Button>
        </>
      )}
      <CorrectPull pull={pull} correctPull={actions.correctPull} />
      <TakeBack
        what={pull.code}
        row={{ jobId: pull.jobId, tableName: 'pull', rowId: pull.id }}
        withdraw={actions.withdraw}
      />
    </>
  );
}

function CycleTable({ rows, progress }: { rows: PullRows; progress: readonly PullProgress[] }) {
  const format = useFormat();
  const code = (id: string | null) => rows.points.find((point) => point.id === id)?.code;
  const optional = (value: number | undefined, difference = true) =>
    value === undefined ? '–' : difference ? format.difference(value) : format.length(value);
  if (progress.length === 0) return <p className="text-soft">Not read yet.</p>;
  return (
    <table className="ruled mt-1 max-w-3xl">
      <thead>
        <tr>
          <th>Read</th>
          <th className="num">Before</th>
          <th className="num">Under load</th>
          <th className="num">Released</th>
          <th className="num">Spring-back</th>
          <th className="num">Gained</th>
          <th className="num">Left {format.unit}</th>
        </tr>
      </thead>
      <tbody>
        {progress.flatMap(({ subject, before, cycles, left }, i) =>
          cycles.map((cycle, k) => (
            <tr key={`${i}-${k}`}>
              <td>
                {[code(subject.pointId), code(subject.toPointId)].filter(Boolean).join(' – ')}{' '}
                {QUANTITY_WORD[subject.quantity]}
                {cycles.length > 1 ? `, ${k + 1}` : ''}
              </td>
              <td className="num">{optional(before, false)}</td>
              <td className="num">{optional(cycle.underLoad, false)}</td>
              <td className="num">{optional(cycle.released, false)}</td>
              <td className="num font-medium">{optional(cycle.springBack)}</td>
              <td className="num">{optional(cycle.gained)}</td>
              <td className="num">{k === cycles.length - 1 ? optional(left) : ''}</td>
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}
