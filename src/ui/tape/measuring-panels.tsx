'use client';

import { useState, type ReactNode } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { MeasureProposal } from '@/core/plan/measure-next';
import { settleNames, stepText } from '@/core/report/settle-words';
import type { Aim, Target } from '@/core/walk/targets';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { Devices } from './devices';
import { Doubts } from './doubts';
import type { MeasuringState } from './use-measuring';
import { HAND_WORD, type Hand, type useInstrumentsInHand } from './instruments-in-hand';
import { ReadingsImport } from './readings-import';
import { ShorthandHelp } from './shorthand-help';
import { useSettleWords } from '../sheet/use-settle-words';
import { Select } from '../kit/select';
import { Tab, TabList, TabPanel, Tabs } from '../kit/tabs';

/** The drawing, and what can wait while one measures: doubts, what helps most, instruments, devices, help. */
export function MeasuringPanels({
  screen,
  sheet,
  onAmount,
}: {
  screen: MeasuringState;
  sheet: ReactNode;
  /** A number came from an instrument. */
  onAmount: (amount: string, takeIt: boolean) => void;
}) {
  const { rows, round, judgement, live, instruments, targets, writing } = screen;
  const format = useFormat();
  const doubts = judgement?.net.doubts ?? [];
  const [tab, setTab] = useState('sheet');
  return (
    <Tabs value={tab} onValueChange={setTab}>
      <TabList label="Beside the tape">
        <Tab value="sheet">Sheet</Tab>
        <Tab value="doubts" className={doubts.length > 0 ? 'font-semibold' : ''} data-doubt-count={doubts.length}>
          {doubts.length === 0 ? (
            'Doubts'
          ) : (
            <>
              <span aria-hidden>▲</span> {doubts.length} doubtful
            </>
          )}
        </Tab>
        <Tab value="helpful">Helps most</Tab>
        <Tab value="instruments">Instruments</Tab>
        <Tab value="devices">Devices</Tab>
        <Tab value="files">Files</Tab>
        <Tab value="help">How to type</Tab>
      </TabList>
      <TabPanel value="sheet" className="pt-2">
        {sheet}
      </TabPanel>
      <TabPanel value="doubts" className="pt-2">
        {!judgement ? null : doubts.length === 0 ? (
          <p className="text-sm text-soft">Every reading fits the others as well as its instrument lets it.</p>
        ) : (
          <Doubts
            rows={rows}
            doubts={doubts}
            closed={round.closedAt !== null}
            onCorrect={writing.takeInstead}
            onAgain={writing.repeat}
            onKeep={writing.keep}
          />
        )}
      </TabPanel>
      <TabPanel value="helpful" className="pt-2">
        <Wanted aim={screen.aim} setAim={screen.setAim} />
        <Helpful rows={rows} proposals={live.helpful} onPress={(target) => targets.press([target])} />
        {live.milliseconds === undefined ? null : (
          <p className="text-sm text-soft">
            Solved in {live.milliseconds.toFixed(0)} ms; {judgement?.net.solution?.survey.readings.length ?? 0}{' '}
            readings.
          </p>
        )}
      </TabPanel>
      <TabPanel value="instruments" className="pt-2">
        <InstrumentChoice rows={rows} instruments={instruments} />
      </TabPanel>
      <TabPanel value="devices" className="pt-2">
        <Devices
          rows={rows}
          jobId={round.jobId}
          target={targets.current}
          sd={instruments.versionFor(targets.current?.quantity ?? 'distance').sdConstant}
          onAmount={onAmount}
        />
      </TabPanel>
      <TabPanel value="files" className="flex flex-col gap-3 pt-2">
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
        {round.closedAt ? null : <ReadingsImport rows={rows} onTake={writing.takeLine} />}
      </TabPanel>
      <TabPanel value="help" className="pt-2">
        <ShorthandHelp />
      </TabPanel>
      <p className="sr-only" role="status">
        {doubts.length > 0 ? `${doubts.length} doubtful readings, ${format.unit}` : ''}
      </p>
    </Tabs>
  );
}

/** What the proposals are to make surer, and how sure. */
function Wanted({ aim, setAim }: { aim: Aim; setAim: (aim: Aim) => void }) {
  const format = useFormat();
  return (
    <p className="flex flex-wrap items-center gap-2">
      <Select
        aria-label="What is to become surer"
        value={aim.of}
        onChange={(event) => setAim({ ...aim, of: event.target.value as Aim['of'] })}
        options={[
          ['points', 'Every point'],
          ['lengths', 'The charted lengths'],
        ]}
      />
      <label className="flex items-center gap-2">
        to ±
        <Select
          value={aim.plusMinus}
          onChange={(event) => setAim({ ...aim, plusMinus: Number(event.target.value) })}
          options={[0.5, 1, 1.5, 2, 3, 5].map((each) => [each, format.length(each)])}
        />
        {format.unit}
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
          <Select
            value={instruments.hands[hand]}
            onChange={(event) => instruments.choose(hand, event.target.value)}
            options={rows.instruments.map(({ id, name }) => [id, name])}
          />
        </label>
      ))}
    </div>
  );
}
