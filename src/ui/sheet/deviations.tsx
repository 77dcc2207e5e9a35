'use client';

import { Slider, Tabs } from 'radix-ui';
import { useMemo, useState } from 'react';
import { sheetFigure } from '@/core/drawing/points';
import { suggestFactor } from '@/core/drawing/sheet';
import { norm } from '@/core/geometry/vector';
import type { JobRows } from '@/core/job/job-rows';
import { judgeRound, type DimensionJudgement, type PointJudgement } from '@/core/round/judgement';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { AXIS_WORD, LACKING_WORD } from '@/core/vocabulary/words';
import { layoutOf, Sheet } from './sheet';
import { VerdictMark } from './mark';
import { BetweenAnyTwo } from './between';
import { Undisturbed } from './undisturbed';
import { Why } from './why';

const FACTORS = [1, 2, 5, 10, 20, 50, 100, 200];

/** What is selected: points light up in every view and list; a dimension lights its two ends. */
export type Selection = { readonly kind: 'point' | 'dimension'; readonly id: string } | undefined;

/** The judged round: the sheet, the lists, and why each figure is what it is. */
export function Deviations({
  rows,
  roundId,
  setControl,
  acceptHref,
}: {
  rows: JobRows;
  roundId: string;
  setControl: Action;
  acceptHref: string;
}) {
  const format = useFormat();
  const round = rows.rounds.find((each) => each.id === roundId)!;
  const [control, setChosen] = useState(() =>
    rows.roundControls.filter((each) => each.roundId === roundId).map((each) => each.pointId),
  );
  const shown = useMemo(
    () => ({
      ...rows,
      roundControls: [
        ...rows.roundControls.filter((each) => each.roundId !== roundId),
        ...control.map((pointId) => ({ roundId, pointId })),
      ],
    }),
    [rows, roundId, control],
  );
  const judgement = useMemo(() => judgeRound(shown, round), [shown, round]);
  const figure = useMemo(() => sheetFigure(shown, judgement), [shown, judgement]);
  const suggested = useMemo(
    () =>
      suggestFactor(
        figure.points.flatMap((point) => (point.movement ? [norm(point.movement)] : [])),
        layoutOf(figure),
      ),
    [figure],
  );
  const [factor, setFactor] = useState(suggested);
  const [selection, select] = useState<Selection>();
  const saving = useAction(setControl);
  const chosenDimension = judgement.dimensions.find(
    (each) => selection?.kind === 'dimension' && each.dimension.id === selection.id,
  );
  const lit = useMemo(
    () =>
      selection?.kind === 'point'
        ? [selection.id]
        : chosenDimension
          ? [chosenDimension.dimension.fromPointId, chosenDimension.dimension.toPointId]
          : [],
    [selection, chosenDimension],
  );
  const hold = (next: readonly string[]) => {
    setChosen([...next]);
    void saving.run({ roundId, pointIds: next });
  };
  const toggleControl = (pointId: string) =>
    hold(
      control.includes(pointId) ? control.filter((id) => id !== pointId) : [...control, pointId],
    );
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(0,1.65fr)_minmax(21rem,1fr)]">
      <div className="flex min-w-0 flex-col gap-3">
        <Faults faults={saving.faults} />
        <AlignmentLine judgement={judgement} rows={rows} />
        <Sheet
          figure={figure}
          factor={factor}
          selected={lit}
          onSelect={(id) => select({ kind: 'point', id })}
          title={[
            rows.jobs[0]!.name,
            `Round ${round.number}: ${round.name}`,
            `lengths in ${format.unit}, ± is two standard deviations`,
          ]}
          pairs={
            chosenDimension
              ? [
                  {
                    from: chosenDimension.dimension.fromPointId,
                    to: chosenDimension.dimension.toPointId,
                    strong: true,
                  },
                ]
              : []
          }
        />
        <FactorSlider factor={factor} onChange={setFactor} />
        <Undisturbed rows={shown} judgement={judgement} onHold={hold} />
        <BetweenAnyTwo rows={shown} judgement={judgement} />
        <Why
          selection={selection}
          judgement={judgement}
          rows={shown}
          acceptHref={acceptHref}
          onToggleControl={toggleControl}
        />
      </div>
      <Lists
        judgement={judgement}
        selection={selection}
        select={select}
        control={control}
        toggleControl={toggleControl}
      />
    </div>
  );
}

function AlignmentLine({
  judgement,
  rows,
}: {
  judgement: ReturnType<typeof judgeRound>;
  rows: JobRows;
}) {
  const format = useFormat();
  const { alignment } = judgement;
  const codes = alignment.ok
    ? alignment.controlIds.map((id) => rows.points.find((point) => point.id === id)!.code)
    : [];
  return (
    <p role="status" className="text-sm">
      {alignment.ok ? (
        <>
          Aligned on {codes.join(', ')}; they agree within {format.length(alignment.rms)}{' '}
          {format.unit} (root mean square).
        </>
      ) : (
        <strong>Not aligned: {alignment.reason}.</strong>
      )}
    </p>
  );
}

function FactorSlider({
  factor,
  onChange,
}: {
  factor: number;
  onChange: (factor: number) => void;
}) {
  const index = Math.max(0, FACTORS.indexOf(factor));
  return (
    <div className="no-print flex items-center gap-3">
      <span className="caps">Exaggeration</span>
      <Slider.Root
        min={0}
        max={FACTORS.length - 1}
        value={[index]}
        onValueChange={([i]) => onChange(FACTORS[i!]!)}
        className="relative flex h-11 w-56 touch-none items-center"
      >
        <Slider.Track className="relative h-1 grow bg-rule" />
        <Slider.Thumb
          aria-label="Exaggeration"
          aria-valuetext={`${factor} times`}
          className="block h-7 w-4 bg-ink"
        />
      </Slider.Root>
      <span className="figures">×{factor}</span>
    </div>
  );
}

function Lists({
  judgement, selection, select, control, toggleControl,
}: {
  judgement: ReturnType<typeof judgeRound>;
  selection: Selection;
  select: (selection: Selection) => void;
  control: readonly string[];
  toggleControl: (id: string) => void;
}) {
  const format = useFormat();
  return (
    <Tabs.Root defaultValue="points" className="flex min-h-0 min-w-0 flex-col xl:max-h-[calc(100dvh-10rem)]">
      <Tabs.List aria-label="What is judged" className="flex border-b-2 border-ink">
        {[
          ['points', `Points (${judgement.points.length})`],
          ['dimensions', `Dimensions (${judgement.dimensions.length})`],
        ].map(([value, text]) => (
          <Tabs.Trigger key={value} value={value!} className="min-h-11 px-3 font-cond data-[state=active]:bg-ink data-[state=active]:text-paper">
            {text}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="points" className="min-h-0 overflow-auto" tabIndex={-1}>
        <table className="ruled">
          <thead className="sticky top-0 bg-paper">
            <tr>
              <th>Point</th>
              <th className="num">Length</th>
              <th className="num">Width</th>
              <th className="num">Height {format.unit}</th>
              <th className="num">Worst ±</th>
              <th>Held</th>
            </tr>
          </thead>
          <tbody>
            {judgement.points.map((each) => (
              <PointRow
                key={each.point.id}
                judged={each}
                lit={selection?.kind === 'point' && selection.id === each.point.id}
                held={control.includes(each.point.id)}
                onSelect={() => select({ kind: 'point', id: each.point.id })}
                onHold={() => toggleControl(each.point.id)}
              />
            ))}
          </tbody>
        </table>
      </Tabs.Content>
      <Tabs.Content value="dimensions" className="min-h-0 overflow-auto" tabIndex={-1}>
        <table className="ruled">
          <thead className="sticky top-0 bg-paper">
            <tr>
              <th>Dimension</th>
              <th className="num">Reference</th>
              <th className="num">Measured</th>
              <th className="num">Deviation {format.unit}</th>
              <th className="num">±</th>
            </tr>
          </thead>
          <tbody>
            {judgement.dimensions.map((each) => (
              <DimensionRow
                key={each.dimension.id}
                judged={each}
                lit={selection?.kind === 'dimension' && selection.id === each.dimension.id}
                onSelect={() => select({ kind: 'dimension', id: each.dimension.id })}
              />
            ))}
          </tbody>
        </table>
      </Tabs.Content>
    </Tabs.Root>
  );
} // prettier-ignore

const rowButton = 'flex min-h-11 w-full items-center gap-2 text-left';

function PointRow({
  judged: each, lit, held, onSelect, onHold,
}: { judged: PointJudgement; lit: boolean; held: boolean; onSelect: () => void; onHold: () => void }) {
  const format = useFormat();
  const { judged, point, lacking, read } = each;
  return (
    <tr className={lit ? 'bg-lit' : ''} data-code={point.code} data-verdict={judged?.verdict ?? lacking}>
      <td className="py-0!">
        <button type="button" className={rowButton} onClick={onSelect} aria-pressed={lit} title={format.name(point.name)}>
          <VerdictMark verdict={judged?.verdict} control={held} lacking={lacking ? LACKING_WORD[lacking] : undefined} />
          {point.code}
        </button>
      </td>
      {judged ? (
        <>
          <td className="num">{format.difference(judged.deviation.dx)}</td>
          <td className="num">{format.difference(judged.deviation.dy)}</td>
          <td className="num">{format.difference(judged.deviation.dz)}</td>
          <td className="num text-soft">{format.length(judged.axes[judged.worstAxis].plusMinus)}</td>
        </>
      ) : (
        <td colSpan={4} className="text-soft">
          {lacking ? LACKING_WORD[lacking] : ''}
          {lacking === 'notLocated' ? `: only ${read.map((axis) => AXIS_WORD[axis]).join(' and ')} read` : ''}
        </td>
      )}
      <td className="py-0!">
        <label className="flex min-h-11 min-w-11 items-center justify-center">
          <input type="checkbox" checked={held} onChange={onHold} aria-label={`Hold ${point.code} as control point`} className="h-5 w-5" />
        </label>
      </td>
    </tr>
  );
} // prettier-ignore

function DimensionRow({
  judged: each,
  lit,
  onSelect,
}: {
  judged: DimensionJudgement;
  lit: boolean;
  onSelect: () => void;
}) {
  const format = useFormat();
  const { dimension, measured, judged, lacking } = each;
  return (
    <tr
      className={lit ? 'bg-lit' : ''}
      data-code={dimension.code}
      data-verdict={judged?.verdict ?? lacking}
    >
      <td className="py-0!">
        <button
          type="button"
          className={rowButton}
          onClick={onSelect}
          aria-pressed={lit}
          title={format.name(dimension.name)}
        >
          <VerdictMark
            verdict={judged?.verdict}
            lacking={lacking ? LACKING_WORD[lacking] : undefined}
          />
          {dimension.code}
        </button>
      </td>
      <td className="num">{judged ? format.length(judged.reference) : ''}</td>
      <td className="num">
        {measured ? format.length(measured.value) : <span className="text-soft">not measured</span>}
      </td>
      <td className="num">{judged ? format.difference(judged.deviation) : ''}</td>
      <td className="num text-soft">{judged ? format.length(judged.plusMinus) : ''}</td>
    </tr>
  );
}
