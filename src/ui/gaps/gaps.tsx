'use client';

import type { Tables } from '@/core/shell/job/job-rows';
import type { SeamJudgement, SeamPair, StationJudgement } from '@/core/round/judge/seams';
import type { CorrectedSeam, NewSeam } from '@/formats/inputs/chart';
import type { WithdrawalInput } from '@/formats/inputs/work';
import { Empty } from '../kit/faults';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import { CorrectSeam, NameSeam } from './name-seam';
import { VerdictMark } from '../sheet/mark';

/** What can be done to a seam. */
export interface SeamActions {
  readonly addSeam: Action<NewSeam>;
  readonly correctSeam: Action<CorrectedSeam>;
  readonly withdraw: Action<WithdrawalInput>;
}

/** Gaps and flushness of every seam, left beside right. */
export function Gaps({
  rows,
  pairs,
  roundName,
  actions,
}: {
  rows: Tables<'jobs'>;
  pairs: readonly SeamPair[];
  roundName?: string;
  actions: SeamActions;
}) {
  const format = useFormat();
  return (
    <section aria-label="Gaps" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Gaps and flushness</h2>
        <p className="text-soft">{roundName ? `as read in “${roundName}”, ${format.unit}` : ''}</p>
        <NameSeam rows={rows} addSeam={actions.addSeam} />
      </div>
      {pairs.length === 0 ? (
        <Empty title="No seam is named">
          Name a seam and its stations; gaps are then read like everything else: DL.2 4.6 0.2
        </Empty>
      ) : null}
      <div className="grid gap-x-8 gap-y-5 xl:grid-cols-2">
        {pairs.map((pair) => (
          <Pair key={pair.pairing} {...{ pair, actions }} />
        ))}
      </div>
    </section>
  );
}

function Pair({ pair, actions }: { pair: SeamPair; actions: SeamActions }) {
  const format = useFormat();
  const sides = [pair.left, pair.right, pair.centre].filter((each): each is SeamJudgement => each !== undefined);
  return (
    <article className="border-t-2 border-ink pt-1">
      <h3 className="text-lg">{format.name(sides[0]!.seam.name)}</h3>
      <GapPicture sides={sides} />
      <div className={`grid gap-4 ${sides.length > 1 ? 'grid-cols-2' : ''}`}>
        {sides.map((side) => (
          <div key={side.seam.id}>
            <SeamTable judged={side} />
            <CorrectSeam judged={side} correctSeam={actions.correctSeam} />
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

function SeamTable({ judged: { seam, stations, taper } }: { judged: SeamJudgement }) {
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
        <tr>
          <td className="text-soft">taper</td>
          <td className="num text-soft">{taper === undefined ? '–' : format.length(taper)}</td>
          <td />
        </tr>
      </tbody>
    </table>
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

/** The gap along the line, drawn as wide as it is (times ten), left and right one above the other. */
function GapPicture({ sides }: { sides: readonly SeamJudgement[] }) {
  const drawn = sides.filter(
    ({ stations }) => stations.filter((each) => each.quantity === 'gap' && each.measured).length > 1,
  );
  if (drawn.length === 0) return null;
  return (
    <svg
      viewBox={`0 0 400 ${drawn.length * 62}`}
      className="my-1 w-full max-w-lg border border-faint bg-sheet"
      role="img"
      aria-label="Gap along the seam, ten times as wide"
    >
      {drawn.map(({ seam, stations }, row) => {
        const gaps = stations.filter((each) => each.quantity === 'gap');
        const x = (i: number) => 50 + (i * 320) / Math.max(1, gaps.length - 1);
        const edge = gaps.flatMap((each, i) => (each.measured ? [[x(i), each.measured.value * 5] as const] : []));
        const target = gaps[0]?.target;
        const mid = row * 62 + 31;
        return (
          <g key={seam.id}>
            {target ? (
              <rect
                x={50}
                width={320}
                y={mid - ((target.value + target.limit) * 5) / 2}
                height={(target.value + target.limit) * 5}
                fill="var(--faint)"
              />
            ) : null}
            {target && target.value > target.limit ? (
              <rect
                x={50}
                width={320}
                y={mid - ((target.value - target.limit) * 5) / 2}
                height={(target.value - target.limit) * 5}
                fill="var(--sheet)"
              />
            ) : null}
            {[-1, 1].map((sign) => (
              <polyline
                key={sign}
                points={edge.map(([px, gap]) => `${px},${mid + (sign * gap) / 2}`).join(' ')}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={2}
              />
            ))}
            <text x={8} y={mid + 4} fontSize={13} fill="currentColor" className="font-cond">
              {seam.code}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
