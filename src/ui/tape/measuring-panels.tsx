'use client';

import { Tabs } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import type { Reading, Round } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import type { MeasureProposal } from '@/core/plan/measure-next';
import { settleNames, stepText } from '@/core/report/settle-words';
import type { Aim, Target } from '@/core/walk/targets';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { Devices } from './devices';
import { Doubts } from './doubts';
import { HAND_WORD, type Hand, type useInstrumentsInHand } from './instruments-in-hand';
import { ReadingsImport } from './readings-import';
import { ShorthandHelp } from './shorthand-help';
import { useSettleWords } from '../sheet/use-settle-words';

export interface MeasuringPanelsProps {
  readonly sheet: ReactNode;
  readonly rows: JobRows;
  readonly round: Round;
  readonly judgement?: RoundJudgement;
  readonly milliseconds?: number;
  readonly helpful: readonly MeasureProposal[];
  readonly aim: Aim;
  readonly setAim: (aim: Aim) => void;
  readonly instruments: ReturnType<typeof useInstrumentsInHand>;
  readonly target?: Target;
  readonly onPress: (target: Target) => void;
  readonly onAmount: (amount: string, takeIt: boolean) => void;
  readonly onTakeLine: (line: string) => void;
  readonly onCorrect: (reading: Reading, line: string, reason: string) => void;
  readonly onAgain: (reading: Reading) => void;
  readonly onKeep: (reading: Reading) => void;
}

const TAB = 'min-h-11 px-2.5 font-cond data-[state=active]:bg-ink data-[state=active]:text-paper';

/** The drawing, and what can wait while one measures: doubts, what helps most, instruments, devices, help. */
export function MeasuringPanels(props: MeasuringPanelsProps) {
  const { rows, round, judgement, helpful } = props;
  const format = useFormat();
  const doubts = judgement?.net.doubts ?? [];
  const [tab, setTab] = useState('sheet');
  return (
    <Tabs.Root value={tab} onValueChange={setTab}>
      <Tabs.List aria-label="Beside the tape" className="flex flex-wrap gap-1 border-b-2 border-ink">
        <Tabs.Trigger value="sheet" className={TAB}>
          Sheet
        </Tabs.Trigger>
        <Tabs.Trigger
          value="doubts"
          className={`${TAB} ${doubts.length > 0 ? 'font-semibold' : ''}`}
          data-doubt-count={doubts.length}
        >
          {doubts.length === 0 ? (
            'Doubts'
          ) : (
            <>
              <span aria-hidden>▲</span> {doubts.length} doubtful
            </>
          )}
        </Tabs.Trigger>
        <Tabs.Trigger value="helpful" className={TAB}>
          Helps most
        </Tabs.Trigger>
        <Tabs.Trigger value="instruments" className={TAB}>
          Instruments
        </Tabs.Trigger>
        <Tabs.Trigger value="devices" className={TAB}>
          Devices
        </Tabs.Trigger>
        <Tabs.Trigger value="files" className={TAB}>
          Files
        </Tabs.Trigger>
        <Tabs.Trigger value="help" className={TAB}>
          How to type
        </Tabs.Trigger>
      </Tabs.List>
      <Tabs.Content value="sheet" className="pt-2">
        {props.sheet}
      </Tabs.Content>
      <Tabs.Content value="doubts" className="pt-2">
        {!judgement ? null : doubts.length === 0 ? (
          <p className="text-sm text-soft">Every reading fits the others as well as its instrument lets it.</p>
        ) : (
          <Doubts
            rows={rows}
            doubts={doubts}
            onCorrect={props.onCorrect}
            onAgain={props.onAgain}
            onKeep={props.onKeep}
          />
        )}
      </Tabs.Content>
      <Tabs.Content value="helpful" className="pt-2">
        <Wanted aim={props.aim} setAim={props.setAim} />
        <Helpful rows={rows} proposals={helpful} onPress={props.onPress} />
        {props.milliseconds === undefined ? null : (
          <p className="text-sm text-soft">
            Solved in {props.milliseconds.toFixed(0)} ms; {judgement?.net.solution?.survey.readings.length ?? 0}{' '}
            readings.
          </p>
        )}
      </Tabs.Content>
      <Tabs.Content value="instruments" className="pt-2">
        <InstrumentChoice rows={rows} instruments={props.instruments} />
      </Tabs.Content>
      <Tabs.Content value="devices" className="pt-2">
        <Devices
          rows={rows}
          jobId={round.jobId}
          target={props.target}
          sd={props.instruments.versionFor(props.target?.quantity ?? 'distance').sdConstant}
          onAmount={props.onAmount}
        />
      </Tabs.Content>
      <Tabs.Content value="files" className="flex flex-col gap-3 pt-2">
        <p className="flex flex-wrap gap-x-4">
          <a className="flex min-h-11 items-center underline" href={`/jobs/${round.jobId}/rounds/${round.id}/walk`}>
            The walk as a pencil sheet
          </a>
          <a
            className="flex min-h-11 items-center underline"
            href={`/api/jobs/${round.jobId}/rounds/${round.id}/survey`}
          >
            Net as vinkel.survey/1
          </a>
          <a
            className="flex min-h-11 items-center underline"
            href={`/api/jobs/${round.jobId}/readings?round=${round.id}`}
          >
            Readings as CSV
          </a>
        </p>
        {round.closedAt ? null : <ReadingsImport rows={rows} onTake={props.onTakeLine} />}
      </Tabs.Content>
      <Tabs.Content value="help" className="pt-2">
        <ShorthandHelp />
      </Tabs.Content>
      <p className="sr-only" role="status">
        {doubts.length > 0 ? `${doubts.length} doubtful readings, ${format.unit}` : ''}
      </p>
    </Tabs.Root>
  );
}

/** What the proposals are to make surer, and how sure. */
function Wanted({ aim, setAim }: { aim: Aim; setAim: (aim: Aim) => void }) {
  return (
    <p className="flex flex-wrap items-center gap-2">
      <select
        aria-label="What is to become surer"
        className="min-h-11 border border-rule bg-sheet px-2"
        value={aim.of}
        onChange={(event) => setAim({ ...aim, of: event.target.value as Aim['of'] })}
      >
        <option value="points">Every point</option>
        <option value="lengths">The charted lengths</option>
      </select>
      <label className="flex items-center gap-2">
        to ±
        <select
          className="min-h-11 border border-rule bg-sheet px-2"
          value={aim.plusMinus}
          onChange={(event) => setAim({ ...aim, plusMinus: Number(event.target.value) })}
        >
          {[0.5, 1, 1.5, 2, 3, 5].map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
        mm
      </label>
    </p>
  );
}

function Helpful({
  rows,
  proposals,
  onPress,
}: {
  rows: JobRows;
  proposals: readonly MeasureProposal[];
  onPress: (target: Target) => void;
}) {
  const format = useFormat();
  const words = useSettleWords(settleNames({ rows }));
  if (proposals.length === 0)
    return (
      <p className="text-sm text-soft">
        Nothing yet: once part of the shell is located, the readings that help most stand here.
      </p>
    );
  return (
    <table className="ruled">
      <thead>
        <tr>
          <th>Reading</th>
          <th className="num">Least sure now {format.unit}</th>
          <th className="num">after it</th>
          <th>
            <span className="sr-only">Actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {proposals.map(({ what, gain }) => (
          <tr key={`${what.key} ${what.instrumentId}`}>
            <td className="font-mono">{stepText(what, words)}</td>
            <td className="num">{format.plusMinus(gain.before)}</td>
            <td className="num">{format.plusMinus(gain.after)}</td>
            <td>
              <Button onClick={() => onPress(what)}>Next</Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function InstrumentChoice({
  rows,
  instruments,
}: {
  rows: JobRows;
  instruments: ReturnType<typeof useInstrumentsInHand>;
}) {
  return (
    <div className="grid gap-2 sm:grid-cols-2">
      {(Object.keys(HAND_WORD) as Hand[]).map((hand) => (
        <label key={hand} className="flex flex-col">
          <span className="caps">{HAND_WORD[hand]}</span>
          <select
            className="min-h-11 border border-rule bg-sheet px-2"
            value={instruments.hands[hand]}
            onChange={(event) => instruments.choose(hand, event.target.value)}
          >
            {rows.instruments.map((instrument) => (
              <option key={instrument.id} value={instrument.id}>
                {instrument.name}
              </option>
            ))}
          </select>
        </label>
      ))}
    </div>
  );
}
