'use client';

import { Job } from '@/core/shell/job/job';
import { useMemo } from 'react';
import { shellOf } from '@/core/report/drawing/shell';
import { sheetFigure } from '@/core/report/drawing/points';
import { suggestFactor } from '@/core/report/drawing/sheet';
import { norm } from '@/core/maths/geometry/vector';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { FactorSlider } from '../sheet/factor-slider';
import { VerdictMark } from '../sheet/mark';
import { layoutOf } from '../sheet/sheet';
import { useFactor, useSheetAddress } from '../sheet/use-sheet-address';
import { unpacked } from '../kit/unpacked';
import { Scene } from './fetched-scene';

/** The shell in space: its frame, the movements exaggerated, the same selection as on the sheet. */
export const SpacePage = unpacked(Space);

function Space({ rows, roundId }: { rows: JobRows; roundId: string }) {
  const { value, failure } = useTask('judge', rows, { roundId, warm: true });
  return value ? (
    <JudgedSpace rows={rows} judgement={value.value} />
  ) : (
    <p role="status" className="py-6 text-soft">
      {failure ?? 'Solving and judging the round …'}
    </p>
  );
}

function JudgedSpace({ rows, judgement }: { rows: JobRows; judgement: RoundJudgement }) {
  const format = useFormat();
  const figure = useMemo(() => {
    const shell = shellOf(Job.of(rows), judgement);
    return { ...sheetFigure(Job.of(rows), judgement), ...(shell ? { shell } : {}) };
  }, [rows, judgement]);
  const [state, change] = useSheetAddress();
  const suggested = useMemo(
    () =>
      suggestFactor(
        figure.points.flatMap(({ movement }) => (movement ? [norm(movement)] : [])),
        layoutOf(figure),
      ),
    [figure],
  );
  const { factor, slide, commit } = useFactor(state, change, suggested);
  const selected = figure.points.find(({ code }) => code === state.point);
  if (figure.points.length === 0)
    return <p className="text-soft">There is nothing to show in space yet: neither a reference nor located points.</p>;
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(0,1fr)_18rem]">
      <div className="flex min-w-0 flex-col gap-2">
        <Scene
          figure={figure}
          factor={factor}
          selected={selected?.id}
          onSelect={(code) => change({ point: code, dimension: undefined })}
        />
        <div className="flex flex-wrap items-center gap-4">
          <FactorSlider factor={factor} onChange={slide} onCommit={commit} />
          <span className="text-sm text-soft">
            Drag to turn, wheel or two fingers to come closer. Arrow keys turn it too.
          </span>
        </div>
        {selected ? (
          <p role="status" className="text-lg">
            {selected.code} {format.name(selected.name)}:{' '}
            {selected.movement ? (
              <>
                <span className="figures">
                  {selected.movement.map((value) => format.difference(value)).join(' / ')}
                </span>{' '}
                {format.unit} rearward, right, up
              </>
            ) : (
              'no deviation yet'
            )}
          </p>
        ) : (
          <p className="text-soft">Choose a point in the view or in the list.</p>
        )}
      </div>
      <ul aria-label="Points" className="overflow-auto xl:max-h-[calc(100dvh-11rem)]">
        {figure.points.map((point) => (
          <li key={point.id} className={state.point === point.code ? 'bg-lit' : ''}>
            <button
              type="button"
              className="flex min-h-11 w-full items-center gap-2 border-b border-rule text-left"
              aria-pressed={state.point === point.code}
              onClick={() => change({ point: point.code, dimension: undefined })}
            >
              <VerdictMark verdict={point.verdict} control={point.control} />
              <span className="font-mono">{point.code}</span>
              <span className="figures ml-auto text-soft">
                {point.movement ? format.length(norm(point.movement)) : ''}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
