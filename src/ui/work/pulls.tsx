'use client';

import Link from 'next/link';
import { useState, type FormEvent } from 'react';
import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { Pull, PullEvent } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { PullProgress } from '@/core/findings/brace-pull';
import type { Pullable, PullsPage } from '@/core/report/pages/pulls';
import { Button, buttonClass } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { Holds, readHolds } from './holds';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { directionWord, QUANTITY_WORD } from '@/core/report/vocabulary/words';

/** An aim in plain words: `12.9 forward, 4.8 to the left`. */
function aimText(aim: Vector, length: (mm: number) => string): string {
  const parts = (['x', 'y', 'z'] as const).flatMap((axis, i) =>
    Math.abs(aim[i]!) >= 0.1 ? [`${length(Math.abs(aim[i]!))} ${directionWord(axis, aim[i]!)}`] : [],
  );
  return parts.join(', ') || 'nowhere';
}

export interface PullActions {
  readonly planPull: Action;
  readonly recordPullEvent: Action;
  readonly setPullHolds: Action;
}

/** Pulls planned from a deviation, with their readings under load and after release. */
export function Pulls({
  rows,
  pulls,
  pullable,
  roundId,
  actions,
}: PullsPage & {
  rows: JobRows;
  actions: PullActions;
}) {
  const format = useFormat();
  const recording = useAction(actions.recordPullEvent);
  const { preferences } = usePreferences();
  const jobId = rows.jobs[0]!.id;
  const event = (pull: Pull, kind: PullEvent['kind']) =>
    recording.run({
      id: crypto.randomUUID(),
      pullId: pull.id,
      kind,
      author: preferences.person || 'unnamed',
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
          {pull.note ? <p className="text-sm text-soft">{pull.note}</p> : null}
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
            {lastEvent?.kind === 'done' || lastEvent?.kind === 'abandoned' ? null : (
              <>
                <Button look="quiet" onClick={() => event(pull, 'done')}>
                  Done
                </Button>
                <Button look="quiet" onClick={() => event(pull, 'abandoned')}>
                  Give it up
                </Button>
              </>
            )}
          </div>
        </article>
      ))}
    </section>
  );
}

function CycleTable({ rows, progress }: { rows: JobRows; progress: readonly PullProgress[] }) {
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

function PlanPull({
  rows,
  pullable,
  roundId,
  planPull,
}: {
  rows: JobRows;
  pullable: readonly Pullable[];
  roundId: string | null;
  planPull: Action;
}) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const [open, setOpen] = useState(false);
  const [code, setCode] = useState('');
  const [error, setError] = useState('');
  const [holdError, setHoldError] = useState('');
  const { run, faults, pending } = useAction(planPull);
  const chosen = pullable.find((each) => each.code.toLowerCase() === code.trim().toLowerCase());
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    if (!chosen)
      return setError(code ? `"${code}" is not a point with a deviation in the latest round` : 'name a point');
    setError('');
    const pullId = crypto.randomUUID();
    const holds = readHolds(String(form.get('holds')), rows.points, pullId);
    setHoldError(holds.ok ? '' : holds.reason);
    if (!holds.ok) return;
    const [aimX, aimY, aimZ] = chosen.aim;
    const outcome = await run({
      pull: {
        id: pullId,
        jobId: rows.jobs[0]!.id,
        code: String(form.get('code')).trim(),
        pointId: chosen.pointId,
        roundId,
        aimX,
        aimY,
        aimZ,
        heldAt: String(form.get('heldAt')),
        note: String(form.get('note')),
      },
      holds: holds.holds,
      author: preferences.person || 'unnamed',
    });
    if (outcome.ok) setOpen(false);
  };
  return (
    <Dialog
      title="Plan a pull"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button look="main" className="ml-auto" disabled={!roundId}>
          Plan a pull
        </Button>
      }
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <TextField
          label="Code"
          name="code"
          defaultValue={`P${rows.pulls.length + 1}`}
          error={faults.find((fault) => fault.path === 'code')?.message}
        />
        <TextField
          label="Point that is to move"
          value={code}
          onChange={(event) => setCode(event.target.value)}
          error={error}
          list="pullable"
        />
        <datalist id="pullable">
          {pullable.map((each) => (
            <option key={each.pointId} value={each.code} />
          ))}
        </datalist>
        <p role="status" className="sm:col-span-2">
          {chosen
            ? `Back by ${format.length(norm(chosen.aim))} ${format.unit}: ${aimText(chosen.aim, format.length)}.`
            : 'The direction and the distance come from the point’s deviation.'}
        </p>
        <TextField label="Held at these points" name="holds" placeholder="C1L C1R" error={holdError} />
        <TextField label="How it is held" name="heldAt" placeholder="clamped at both sills" />
        <TextField label="Note" name="note" />
        <div className="sm:col-span-2">
          <Faults faults={faults} />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          Plan it
        </Button>
      </form>
    </Dialog>
  );
}
