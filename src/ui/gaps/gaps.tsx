'use client';

import type { ReactNode } from 'react';
import type { Tables } from '@/core/shell/job/job-rows';
import type { SeamJudgement, SeamPair, StationJudgement } from '@/core/round/judge/seams';
import type { LineFigure } from '@/core/round/judge/seam-line';
import type { GapsPage } from '@/core/report/pages/gaps';
import { seamFaultText, type GapWords } from '@/core/report/gap-words';
import type { CorrectedSeam, NewSeam } from '@/formats/inputs/chart';
import type { WithdrawalInput } from '@/formats/inputs/work';
import { listed } from '@/core/report/vocabulary/words';
import { Empty } from '../kit/faults';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import { CorrectSeam, NameSeam } from './name-seam';
import { VerdictMark } from '../sheet/mark';
import { SeamRibbon } from './seam-ribbon';
import { SeamsSheet } from './seams-sheet';

/** What can be done to a seam. */
export interface SeamActions {
  readonly addSeam: Action<NewSeam>;
  readonly correctSeam: Action<CorrectedSeam>;
  readonly withdraw: Action<WithdrawalInput>;
}

interface GapsProps {
  readonly rows: Tables<'jobs'>;
  readonly page: GapsPage;
  readonly actions: SeamActions;
  /** What is read on, below the drawing. */
  readonly children?: ReactNode;
}

/** So many faults are told at once. */
const TOLD = 6;

/** Gaps and flushness of every seam: where it lies on the shell, what is out first, then left beside right. */
export function Gaps({ rows, page, actions, children }: GapsProps) {
  const format = useFormat();
  const { pairs, readIn, points, faults, figure, placed } = page;
  const rounds = [...new Set(Object.values(readIn).map(({ name }) => name))];
  const words: GapWords = {
    length: (mm) => `${format.length(mm)} ${format.unit}`,
    plusMinus: (mm) => format.plusMinus(mm),
  };
  return (
    <section aria-label="Gaps" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Gaps and flushness</h2>
        <p className="text-soft">
          {rounds.length > 0 ? `as last read, in ${listed(rounds.map((name) => `“${name}”`))}, ${format.unit}` : ''}
        </p>
        <NameSeam rows={rows} points={points} addSeam={actions.addSeam} />
      </div>
      {pairs.length === 0 ? (
        <Empty title="No seam is named">
          Name a seam and its stations; gaps are then read like everything else: DL.2 4.6 0.2
        </Empty>
      ) : null}
      {placed.length > 0 ? (
        <SeamsSheet {...{ figure, placed }} title={['Seams', rounds.length > 0 ? 'as last read' : 'not read yet']} />
      ) : null}
      {children}
      {faults.length > 0 ? (
        <section aria-label="What is out, the most seen first">
          <h3 className="caps">What is out, the most seen first</h3>
          <ol className="list-inside list-decimal">
            {faults.slice(0, TOLD).map((fault) => (
              <li key={`${fault.code} ${fault.what}`}>
                <VerdictMark verdict={fault.figure.verdict} /> {format.name(seamFaultText(fault, words))}
              </li>
            ))}
          </ol>
          {faults.length > TOLD ? <p className="text-sm text-soft">and {faults.length - TOLD} more below</p> : null}
        </section>
      ) : null}
      {pairs.length > 0 ? (
        <p className="text-sm text-soft">
          Along each seam: the strong line is the gap, the broken one the flush; away from the middle is wider, or
          proud; the grey is the limit. An even shell draws an even picture.
        </p>
      ) : null}
      <div className="grid gap-x-8 gap-y-5 xl:grid-cols-2">
        {pairs.map((pair) => (
          <Pair key={pair.pairing} {...{ pair, points, readIn, actions }} />
        ))}
      </div>
    </section>
  );
}

interface PairProps {
  readonly pair: SeamPair;
  readonly points: GapsPage['points'];
  readonly readIn: GapsPage['readIn'];
  readonly actions: SeamActions;
}

function Pair({ pair, points, readIn, actions }: PairProps) {
  const format = useFormat();
  const sides = [pair.left, pair.right, pair.centre].filter((each): each is SeamJudgement => each !== undefined);
  return (
    <article className="border-t-2 border-ink pt-1">
      <h3 className="text-lg">{format.name(sides[0]!.seam.name)}</h3>
      <SeamRibbon sides={sides} />
      {pair.differ ? (
        <p className="text-sm">
          Left less right {format.difference(pair.differ.value)} {format.plusMinus(pair.differ.plusMinus)} {format.unit}{' '}
          <VerdictMark verdict={pair.differ.verdict} />
        </p>
      ) : null}
      <div className={`grid gap-4 ${sides.length > 1 ? 'grid-cols-2' : ''}`}>
        {sides.map((side) => (
          <div key={side.seam.id}>
            <SeamTable judged={side} />
            <ToCome judged={side} />
            {readIn[side.seam.id] ? (
              <p className="text-sm text-soft">read in “{format.name(readIn[side.seam.id]!.name)}”</p>
            ) : null}
            <CorrectSeam judged={side} points={points} correctSeam={actions.correctSeam} />
            <TakeBack
              what={`seam ${side.seam.code}`}
              row={{ jobId: side.seam.jobId, tableName: 'seam', rowId: side.seam.id }}
              withdraw={actions.withdraw}
            />
          </div>
        ))}
      </div>
    </article>
  );
}

/** What is not fitted yet and stands in what is wanted now. */
function ToCome({ judged: { stations } }: { judged: SeamJudgement }) {
  const format = useFormat();
  const of = (quantity: StationJudgement['quantity']) => stations.find((each) => each.quantity === quantity)?.target;
  const gap = of('gap');
  if (!gap || (gap.toCome === 0 && (of('flush')?.toCome ?? 0) === 0)) return null;
  return (
    <p className="text-sm">
      Wanted now: {format.thin(gap.value)} {format.unit}; what is not fitted yet does {format.thin(gap.toCome, true)} to
      the gap{of('flush')?.toCome ? ` and ${format.thin(of('flush')!.toCome, true)} to the flush` : ''}.
    </p>
  );
}

function SeamTable({ judged: { seam, stations, gap, flush } }: { judged: SeamJudgement }) {
  const format = useFormat();
  const numbers = [...new Set(stations.map((each) => each.station.number))];
  const of = (number: number, quantity: string) =>
    stations.find((each) => each.station.number === number && each.quantity === quantity);
  return (
    <table className="ruled" aria-label={`${seam.code}, ${seam.side}`}>
      <thead>
        <tr>
          <th>
            {seam.code} {seam.side}
          </th>
          <th className="num">Gap</th>
          <th className="num">Flush</th>
        </tr>
      </thead>
      <tbody>
        {numbers.map((number) => (
          <tr key={number} data-station={`${seam.code}.${number}`}>
            <td>
              {number} <span className="text-soft">{format.name(of(number, 'gap')!.station.name)}</span>
            </td>
            <Figure each={of(number, 'gap')} />
            <Figure each={of(number, 'flush')} difference />
          </tr>
        ))}
        {LINE_FIGURES.map(([key, label]) => (
          <tr key={key} data-line-figure={`${seam.code} ${key}`}>
            <td className="text-soft">{label}</td>
            <OfLine figure={gap?.[key]} />
            <OfLine figure={flush?.[key]} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What is told of a seam as a whole: off target on the whole, end to end, and the furthest off its own line. */
const LINE_FIGURES = [
  ['mean', 'on the whole'],
  ['taper', 'taper, first to last'],
  ['wave', 'furthest off the line'],
] as const;

function OfLine({ figure }: { figure: LineFigure | undefined }) {
  const format = useFormat();
  if (!figure) return <td className="num text-soft">–</td>;
  return (
    <td className="num" title={`${format.plusMinus(figure.plusMinus)}, ${figure.verdict}`}>
      {format.difference(figure.value)} <VerdictMark verdict={figure.verdict} />
    </td>
  );
}

function Figure({ each, difference = false }: { each?: StationJudgement; difference?: boolean }) {
  const format = useFormat();
  if (!each?.measured) return <td className="num text-soft">–</td>;
  return (
    <td
      className="num"
      title={each.judged ? `${format.plusMinus(each.judged.plusMinus)}, ${each.judged.verdict}` : undefined}
    >
      {difference ? format.difference(each.measured.value) : format.length(each.measured.value)}{' '}
      {each.judged ? <VerdictMark verdict={each.judged.verdict} /> : null}
    </td>
  );
}
