'use client';

import type { BraceEvent } from '@/core/shell/job/entities';

import type { BracesPage } from '@/core/report/pages/braces';
import type { BraceEventInput, CorrectedBrace, NewBrace, WithdrawalInput } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { Confirm } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import type { BraceFrom, PlanningRows } from './brace-fields';
import { CorrectBrace, PlanBrace } from './plan-brace';
import { TakeBack } from './take-back';

/** What can be done to a brace. */
export interface BraceActions {
  readonly planBrace: Action<NewBrace>;
  readonly recordBraceEvent: Action<BraceEventInput>;
  readonly correctBrace: Action<CorrectedBrace>;
  readonly withdraw: Action<WithdrawalInput>;
}

const NEXT: Readonly<Record<BraceEvent['kind'], BraceEvent['kind'] | undefined>> = {
  planned: 'fitted',
  fitted: 'removed',
  removed: undefined,
};

/** Braces planned, fitted, removed; each with what it is there to hold. */
export function Braces({
  rows,
  braces,
  positions,
  latestRoundId,
  actions,
}: {
  rows: PlanningRows;
  actions: BraceActions;
} & BracesPage) {
  const format = useFormat();
  const recording = useAction(actions.recordBraceEvent);
  const from = { rows, positions };
  return (
    <section aria-label="Braces" className="flex flex-col gap-3">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Braces</h2>
        <PlanBrace from={from} latestRoundId={latestRoundId} planBrace={actions.planBrace} />
      </div>
      <Faults faults={recording.faults} />
      {braces.length === 0 ? (
        <Empty title="No brace is planned">
          Ask of each cut which dimension it will set free, and plan a brace for it.
        </Empty>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="List of braces">
          <table className="ruled">
            <thead>
              <tr>
                <th>Brace</th>
                <th>Between</th>
                <th className="num">Length {format.unit}</th>
                <th className="num">Rise</th>
                <th className="num">In plan</th>
                <th>Kind, section</th>
                <th>Holds</th>
                <th>State</th>
                <th>
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {braces.map((listed) => (
                <BraceRow key={listed.brace.id} {...{ listed, from, actions }} record={recording.run} />
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="text-sm text-soft">
        Lengths are between the points themselves; pads and threaded ends are taken off by whoever makes the brace.
      </p>
    </section>
  );
}

const degrees = (value: number) => `${value < 0 ? '−' : ''}${Math.abs(value).toFixed(1)}°`;

interface Row {
  readonly listed: BracesPage['braces'][number];
  readonly from: BraceFrom;
  readonly actions: BraceActions;
  readonly record: Action<BraceEventInput>;
}

function BraceRow({ listed, from: planned, actions, record }: Row) {
  const format = useFormat();
  const { brace, from, to, geometry, state, lastEvent, holds } = listed;
  const held = holds.map((dimension) => dimension.code).join(', ');
  const next = NEXT[state];
  return (
    <tr data-code={brace.code}>
      <td className="font-medium">{brace.code}</td>
      <td>
        {from} – {to}
      </td>
      <td className="num">
        {geometry ? format.length(geometry.length) : '–'}
        {geometry?.from === 'reference' ? <span className="block text-xs text-soft">by the chart</span> : null}
      </td>
      <td className="num">{geometry ? degrees(geometry.rise) : ''}</td>
      <td className="num">{geometry ? degrees(geometry.heading) : ''}</td>
      <td>
        {BRACE_WORD[brace.kind]}
        <span className="block text-sm text-soft">{brace.section}</span>
      </td>
      <td>{held}</td>
      <td>
        {state}
        <span className="block text-sm text-soft">
          {lastEvent ? `${lastEvent.author}, ${format.day(lastEvent.at)}` : ''}
        </span>
      </td>
      <td>
        {next ? (
          <Confirm
            trigger={<Button>{next === 'fitted' ? 'Fitted' : 'Removed'}</Button>}
            yes={next === 'fitted' ? 'Yes, fitted' : 'Yes, removed'}
            title={next === 'fitted' ? `${brace.code} is fitted` : `Take ${brace.code} out?`}
            caution={
              next === 'fitted'
                ? 'Measure again what it holds: welding a brace in can itself pull a dimension.'
                : `It holds ${held || 'nothing named'}. Measure those first, and see that nothing cut depends on it.`
            }
            onYes={() => record({ id: crypto.randomUUID(), braceId: brace.id, kind: next, note: '' })}
          />
        ) : null}
        {lastEvent && state !== 'planned' ? (
          <TakeBack
            label={`Not ${state}`}
            what={`${brace.code} ${state}`}
            row={{ jobId: brace.jobId, tableName: 'brace_event', rowId: lastEvent.id }}
            withdraw={actions.withdraw}
          />
        ) : null}
        <CorrectBrace from={planned} listed={listed} correctBrace={actions.correctBrace} />
        <TakeBack
          what={brace.code}
          row={{ jobId: brace.jobId, tableName: 'brace', rowId: brace.id }}
          withdraw={actions.withdraw}
        />
      </td>
    </tr>
  );
}
