'use client';

import { useMemo, useState } from 'react';
import { boundsOf, layOut, project } from '@/core/drawing/sheet';
import type { Vector } from '@/core/geometry/vector';
import type { JobRows } from '@/core/job/job-rows';
import { judgeRound } from '@/core/round/judgement';
import { placeRound } from '@/core/round/placed';
import { compareSides, type Sides } from '@/core/round/sides';
import type { SideDifference } from '@/core/symmetry/centre-plane';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';

const DIFFERS = 2;

/** Left against right: how the sides of the shell differ, whichever of them moved. */
export function SidesPage({ rows, roundId, setMirrored }: { rows: JobRows; roundId: string; setMirrored: Action }) {
  const round = rows.rounds.find((each) => each.id === roundId)!;
  const judgement = useMemo(() => judgeRound(rows, round), [rows, round]);
  const { mirror, lengths } = useMemo(() => compareSides(rows, judgement), [rows, judgement]);
  const placed = useMemo(() => placeRound(rows, judgement), [rows, judgement]);
  const [selected, select] = useState<string>();
  const marking = useAction(setMirrored);
  const byId = new Map(rows.points.map((point) => [point.id, point]));
  const apart = rows.points.filter(({ mirrored, side }) => !mirrored && side !== 'centre');
  if (!mirror.ok)
    return (
      <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
        The sides cannot be compared: {mirror.reason}.
      </p>
    );
  const { plane, pairs } = mirror;
  return (
    <div className="flex flex-col gap-4">
      <p className="max-w-prose">
        The centre plane is fitted to the pairs that agree with it ({pairs.filter(({ symmetric }) => symmetric).length}{' '}
        of {pairs.length}) and to the centre points. It stands {degrees(plane.lengthways)} ±
        {degrees(2 * Math.sqrt(plane.covariance[4]!))} to the length axis and leans {degrees(plane.upward)} ±
        {degrees(2 * Math.sqrt(plane.covariance[8]!))}. The differences do not say which side moved: the undisturbed
        points do. Damage that is the same on both sides cannot be seen here.
      </p>
      <Faults faults={marking.faults} />
      <div className="grid grid-cols-1 items-start gap-4 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        {placed.ok ? (
          <FoldedPlan rows={rows} pairs={pairs} positions={placed.positions} selected={selected} select={select} />
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
const degrees = (slope: number): string => `${Math.abs((Math.atan(slope) * 180) / Math.PI).toFixed(2)}°`;

const differs = ({ difference, sd }: SideDifference): boolean =>
  difference.some((value, i) => Math.abs(value) > DIFFERS * sd[i]!);

type Choosing = { readonly selected?: string; readonly select: (leftId: string) => void };

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
                  <td key={i} className={`num ${Math.abs(value) > DIFFERS * sd[i]! ? 'font-semibold' : 'text-soft'}`}>
                    {format.difference(value)}
                  </td>
                ))}
                <td className="num text-soft">{format.length(2 * Math.max(...sd))}</td>
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

const SIZE = { width: 620, height: 460 };

/**
 * The right side of the shell in plan and side view with the left folded onto it: where they are alike the
 * two marks cover each other. Differences are drawn as often as large as the factor says.
 */
function FoldedPlan({
  rows,
  pairs,
  positions,
  selected,
  select,
}: Choosing & { rows: JobRows; pairs: readonly SideDifference[]; positions: ReadonlyMap<string, Vector> }) {
  const rights = pairs.map(({ pair }) => positions.get(pair.right)!);
  const layout = layOut(
    boundsOf(rights.map(([x, y, z]) => [x, Math.abs(y), z] as const)),
    { width: 2 * SIZE.width, height: SIZE.height + 120 },
    22,
  );
  const largest = Math.max(1, ...pairs.flatMap(({ difference }) => difference.map(Math.abs)));
  const factor = [50, 20, 10, 5, 2, 1].find((each) => each * largest * layout.scale < 60) ?? 1;
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code.replace(/R$/i, '')]));
  const box = layout.views.side;
  const folded = (id: string): Vector | undefined => {
    const at = positions.get(id);
    return at && rows.points.find((point) => point.id === id)?.side !== 'left'
      ? [at[0], Math.abs(at[1]), at[2]]
      : undefined;
  };
  const outline = rows.memberLines.flatMap(({ fromPointId, toPointId }) => {
    const [from, to] = [folded(fromPointId), folded(toPointId)];
    return from && to ? [[from, to] as const] : [];
  });
  return (
    <figure className="min-w-0 border border-rule bg-sheet">
      <svg
        viewBox={`0 0 ${box.width} ${layout.views.plan.height / 2 + box.height}`}
        className="block w-full"
        role="img"
        aria-label="The left side folded onto the right, plan above and side below"
      >
        {(['plan', 'side'] as const).map((view) => (
          <g key={view} transform={view === 'side' ? `translate(0 ${-layout.views.plan.height / 2})` : undefined}>
            {outline.map(([from, to], i) => {
              const [[x1, y1], [x2, y2]] = [project(layout, view, from), project(layout, view, to)];
              return <line key={i} {...{ x1, y1, x2, y2 }} stroke="var(--rule)" strokeWidth={1} />;
            })}
            {pairs.map((each) => {
              const right = positions.get(each.pair.right)!;
              const [x, y] = project(layout, view, [right[0], Math.abs(right[1]), right[2]]);
              const [dx, dw, dz] = each.difference.map((value) => -value * factor) as [number, number, number];
              const [lx, ly] = project(layout, view, [right[0] + dx, Math.abs(right[1]) + dw, right[2] + dz]);
              const on = selected === each.pair.left;
              return (
                <g key={each.pair.left} onClick={() => select(each.pair.left)} className="cursor-pointer">
                  {on ? <circle cx={x} cy={y} r={12} fill="none" stroke="var(--lit)" strokeWidth={5} /> : null}
                  <line x1={x} y1={y} x2={lx} y2={ly} stroke="var(--ink)" strokeWidth={differs(each) ? 2 : 1} />
                  <rect
                    x={lx - 3.5}
                    y={ly - 3.5}
                    width={7}
                    height={7}
                    fill="var(--sheet)"
                    stroke="var(--soft)"
                    strokeWidth={1.6}
                  />
                  <circle cx={x} cy={y} r={4} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.8} />
                  {differs(each) || on ? (
                    <text x={x + 7} y={y - 6} fontSize={12} fill="currentColor" className="font-cond">
                      {codeOf.get(each.pair.right)}
                    </text>
                  ) : null}
                </g>
              );
            })}
          </g>
        ))}
      </svg>
      <figcaption className="px-2 pb-1 text-sm text-soft">
        Plan above, side below. Ring: right; square: left, folded over; the line between them is how the sides differ,
        drawn {factor} times as large.
      </figcaption>
    </figure>
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
              <td className={`num ${Math.abs(difference) > DIFFERS * sd ? 'font-semibold' : 'text-soft'}`}>
                {format.difference(difference)}
              </td>
              <td className="num text-soft">{format.length(2 * sd)}</td>
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
      <span className="caps">Centre points off the plane</span>{' '}
      {mirror.centre
        .map(({ id, off, sd }) => `${nameOf(id)} ${format.difference(off)} ${format.plusMinus(2 * sd)}`)
        .join(' · ')}{' '}
      {format.unit}; to the right is plus.
    </p>
  );
}
