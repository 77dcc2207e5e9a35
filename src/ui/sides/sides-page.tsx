'use client';

import { useState } from 'react';
import { angleText } from '@/core/maths/units/angle';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { TaskResult } from '@/workers/tasks';
import { differs, isMoreThan, type Sides } from '@/core/findings/sides';
import type { SideDifference } from '@/core/maths/symmetry/centre-plane';
import type { Mirroring } from '@/formats/inputs/references';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { FirstFigures } from './first-figures';
import { FoldedPlan, type Choosing } from './folded-plan';
import { unpacked } from '../kit/unpacked';

interface SidesProps {
  readonly rows: JobRows;
  readonly roundId: string;
  readonly setMirrored: Action<Mirroring>;
}

/** Left against right: how the sides of the shell differ, whichever of them moved. */
export const SidesPage = unpacked(SidesPart);

function SidesPart({ rows, roundId, setMirrored }: SidesProps) {
  const { value, failure } = useTask('sides', rows, { roundId });
  return value ? (
    <div className="flex flex-col gap-4">
      <ComparedSides rows={rows} sides={value} setMirrored={setMirrored} />
      <FirstFigures rows={rows} roundId={roundId} />
    </div>
  ) : (
    <p role="status" className="py-6 text-soft">
      {failure ?? 'Comparing the sides …'}
    </p>
  );
}

/** The sides as they were compared. */
export function ComparedSides({
  rows,
  sides: { mirror, lengths, positions },
  setMirrored,
}: {
  rows: JobRows;
  sides: TaskResult<'sides'>;
  setMirrored: Action<Mirroring>;
}) {
  const format = useFormat();
  const [selected, select] = useState<string>();
  const marking = useAction(setMirrored);
  const byId = new Map(rows.points.map((point) => [point.id, point]));
  const apart = rows.points.filter(({ mirrored, side }) => !mirrored && side !== 'centre');
  if (!mirror.ok)
    return (
      <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
        The sides cannot be compared as a whole: {mirror.reason}.
      </p>
    );
  const { plane, pairs } = mirror;
  return (
    <div className="flex flex-col gap-4">
      <p className="max-w-prose">
        {format.name('The centre plane')} is fitted to the pairs that agree with it (
        {pairs.filter(({ symmetric }) => symmetric).length} of {pairs.length}) and to the {format.name('centre')}{' '}
        points. It stands {degrees(plane.lengthways)} ±{degrees(2 * Math.sqrt(plane.covariance[4]!))} to the length axis
        and leans {degrees(plane.upward)} ±{degrees(2 * Math.sqrt(plane.covariance[8]!))}. The differences do not say
        which side moved: the undisturbed points do. Damage that is the same on both sides cannot be seen here.
      </p>
      <Faults faults={marking.faults} />
      <div className="grid grid-cols-1 items-start gap-4 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        {positions ? (
          <FoldedPlan rows={rows} pairs={pairs} positions={positions} selected={selected} select={select} />
        ) : null}
        <PairTable
          rows={rows}
          pairs={pairs}
          selected={selected}
          select={select}
          onApart={(pair) => marking.run({ pointIds: [pair.left, pair.right], mirrored: false })}
        />
      </div>
      {apart.length > 0 ? (
        <p className="flex flex-wrap items-center gap-2">
          <span className="caps">Not meant to match</span>
          {apart.map(({ id, code }) => (
            <button
              key={id}
              type="button"
              className="min-h-11 border border-rule px-2"
              title="They are meant to match after all"
              onClick={() => marking.run({ pointIds: [id], mirrored: true })}
            >
              {code} ×
            </button>
          ))}
        </p>
      ) : null}
      <LengthTable lengths={lengths} />
      <CentreTable mirror={mirror} nameOf={(id) => byId.get(id)!.code} />
    </div>
  );
}

/** A slope as an angle, without sign. */
const degrees = (slope: number): string => angleText(Math.abs((Math.atan(slope) * 180) / Math.PI), 2);

function PairTable({
  rows,
  pairs,
  selected,
  select,
  onApart,
}: Choosing & { rows: JobRows; pairs: readonly SideDifference[]; onApart: (pair: SideDifference['pair']) => void }) {
  const format = useFormat();
  const byId = new Map(rows.points.map((point) => [point.id, point]));
  return (
    <div className="min-w-0 overflow-auto xl:max-h-[34rem]">
      <table className="ruled">
        <caption className="pb-1 text-left text-sm text-soft">
          Right minus left, {format.unit}; ± is two standard deviations. Bold: more than its ±.
        </caption>
        <thead className="sticky top-0 bg-paper">
          <tr>
            <th>Pair</th>
            <th className="num">Half-width left</th>
            <th className="num">right</th>
            <th className="num">Length</th>
            <th className="num">Half-width</th>
            <th className="num">Height</th>
            <th className="num">Worst ±</th>
            <th>
              <span className="sr-only">Not meant to match</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {pairs.map((each) => {
            const { pair, difference, sd, halfWidths } = each;
            const left = byId.get(pair.left)!;
            return (
              <tr
                key={pair.left}
                className={selected === pair.left ? 'bg-lit' : ''}
                data-pair={left.code}
                data-differs={differs(each)}
              >
                <td className="py-0!">
                  <button
                    type="button"
                    className="min-h-11 w-full whitespace-nowrap text-left"
                    aria-pressed={selected === pair.left}
                    title={format.name(left.name)}
                    onClick={() => select(pair.left)}
                  >
                    {left.code} – {byId.get(pair.right)!.code}
                  </button>
                </td>
                <td className="num text-soft">{format.length(halfWidths[0])}</td>
                <td className="num text-soft">{format.length(halfWidths[1])}</td>
                {difference.map((value, i) => (
                  <td key={i} className={`num ${isMoreThan(value, sd[i]!) ? 'font-semibold' : 'text-soft'}`}>
                    {format.difference(value)}
                  </td>
                ))}
                <td className="num text-soft">{format.uncertainty(2 * Math.max(...sd))}</td>
                <td className="py-0!">
                  <button
                    type="button"
                    className="min-h-11 min-w-11 whitespace-nowrap text-sm underline"
                    title="The two were never meant to match"
                    onClick={() => onApart(pair)}
                  >
                    not a pair
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function LengthTable({ lengths }: { lengths: Sides['lengths'] }) {
  const format = useFormat();
  if (lengths.length === 0) return null;
  return (
    <section aria-label="Lengths and diagonals of both sides">
      <h2 className="text-lg">Lengths and diagonals, each with its mirror image</h2>
      <table className="ruled max-w-4xl">
        <thead>
          <tr>
            <th>Length</th>
            <th className="num">One way</th>
            <th>Its mirror image</th>
            <th className="num">That way</th>
            <th className="num">Difference</th>
            <th className="num">± {format.unit}</th>
          </tr>
        </thead>
        <tbody>
          {lengths.map(({ dimension, ends, lengths: [a, b], difference, sd }) => (
            <tr key={dimension.id} data-length={dimension.code}>
              <td title={format.name(dimension.name)}>{ends[0].join(' – ')}</td>
              <td className="num">{format.length(a)}</td>
              <td>{ends[1].join(' – ')}</td>
              <td className="num">{format.length(b)}</td>
              <td className={`num ${isMoreThan(difference, sd) ? 'font-semibold' : 'text-soft'}`}>
                {format.difference(difference)}
              </td>
              <td className="num text-soft">{format.uncertainty(2 * sd)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function CentreTable({
  mirror,
  nameOf,
}: {
  mirror: Extract<Sides['mirror'], { ok: true }>;
  nameOf: (id: string) => string;
}) {
  const format = useFormat();
  if (mirror.centre.length === 0) return null;
  return (
    <p>
      <span className="caps">{format.name('Centre points off the plane')}</span>{' '}
      {mirror.centre
        .map(({ id, off, sd }) => `${nameOf(id)} ${format.difference(off)} ${format.plusMinus(2 * sd)}`)
        .join(' · ')}{' '}
      {format.unit}; to the right is plus.
    </p>
  );
}
