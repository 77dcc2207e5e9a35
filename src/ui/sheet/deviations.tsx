'use client';

import { Tabs } from 'radix-ui';
import { useCallback, useMemo, useRef, useState } from 'react';
import { sheetFigure } from '@/core/drawing/points';
import { suggestFactor } from '@/core/drawing/sheet';
import { norm, type Vector } from '@/core/geometry/vector';
import type { JobRows } from '@/core/job/job-rows';
import { CENTRE_SHARE, extentOf, sectionAt } from '@/core/pattern/sections';
import { judgeRound, type RoundJudgement } from '@/core/round/judgement';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { BetweenAnyTwo } from './between';
import { AGREE, ControlPanel } from './control-panel';
import { DimensionList, PointList } from './lists';
import { PatternPanel } from './pattern-panel';
import { layoutOf, Sheet } from './sheet';
import { SheetTools, type Ghost } from './sheet-tools';
import { useAnalysis } from './use-analysis';
import { useFactor, useSheetAddress, type Panel, type SheetState } from './use-sheet-address';
import type { Station } from './view';
import { Why, type Subject } from './why';

export interface SheetActions {
  readonly setControl: Action;
  readonly chooseReference: Action;
}

/** The judged round: the sheet, the lists, and why each figure is what it is. */
export function Deviations({
  rows,
  roundId,
  actions,
  acceptHref,
  ghosts,
}: {
  rows: JobRows;
  roundId: string;
  actions: SheetActions;
  acceptHref: string;
  ghosts: readonly Ghost[];
}) {
  const format = useFormat();
  const round = rows.rounds.find((each) => each.id === roundId)!;
  const [state, change] = useSheetAddress();
  const { control, shown, hold, faults } = useControl(rows, roundId, actions.setControl);
  const judgement = useMemo(() => judgeRound(shown, round), [shown, round]);
  const figure = useMemo(() => sheetFigure(shown, judgement), [shown, judgement]);
  const [agree, setAgree] = useState('own');
  const live = useAnalysis(shown, roundId, AGREE[agree]!);
  const suggested = useMemo(
    () =>
      suggestFactor(
        figure.points.flatMap((point) => (point.movement ? [norm(point.movement)] : [])),
        layoutOf(figure),
      ),
    [figure],
  );
  const { factor, slide, commit } = useFactor(state, change, suggested);
  const drawing = useRef<SVGSVGElement>(null);
  const point = judgement.points.find((each) => each.point.code === state.point);
  const dimension = judgement.dimensions.find((each) => each.dimension.code === state.dimension);
  const lit = useMemo(
    () =>
      point ? [point.point.id] : dimension ? [dimension.dimension.fromPointId, dimension.dimension.toPointId] : [],
    [point, dimension],
  );
  const pairs = useMemo(
    () =>
      dimension && !point
        ? [{ from: dimension.dimension.fromPointId, to: dimension.dimension.toPointId, strong: true }]
        : [],
    [dimension, point],
  );
  const subject = useMemo(
    (): Subject | undefined =>
      point ? { kind: 'point', id: point.point.id } : dimension && { kind: 'dimension', id: dimension.dimension.id },
    [point, dimension],
  );
  const selectPoint = useCallback((code: string) => change({ point: code, dimension: undefined }), [change]);
  const selectDimension = useCallback((code: string) => change({ dimension: code, point: undefined }), [change]);
  const selectId = useCallback(
    (id: string) => selectPoint(rows.points.find((each) => each.id === id)!.code),
    [rows, selectPoint],
  );
  const passing = useMemo(() => passFilter(judgement, state), [judgement, state]);
  const faint = useMemo(
    () => new Set(figure.points.flatMap(({ id }) => (passing.points.has(id) ? [] : [id]))),
    [figure, passing],
  );
  const points = useMemo(
    () => judgement.points.filter((each) => passing.points.has(each.point.id)),
    [judgement, passing],
  );
  const dimensions = useMemo(
    () => judgement.dimensions.filter((each) => passing.dimensions.has(each.dimension.id)),
    [judgement, passing],
  );
  const toggle = useCallback(
    (id: string) => hold(control.includes(id) ? control.filter((each) => each !== id) : [...control, id]),
    [hold, control],
  );
  const ghost = useMemo(() => {
    const chosen = ghosts.find(({ number }) => number === state.ghost);
    return (
      chosen && {
        name: `round ${chosen.number}, ${chosen.name}`,
        movements: new Map<string, Vector>(Object.entries(chosen.movements)),
      }
    );
  }, [ghosts, state.ghost]);
  const { analysis } = live;
  const stations = useMemo(() => stationsOf(judgement, analysis?.pattern), [judgement, analysis]);
  const title = useMemo(
    () => [
      rows.jobs[0]!.name,
      `Round ${round.number}: ${round.name}`,
      `lengths in ${format.unit}, ± is two standard deviations`,
    ],
    [rows, round, format],
  );
  const tabs: readonly (readonly [Panel, string])[] = [
    ['points', `Points (${points.length})`],
    ['dimensions', `Dimensions (${dimensions.length})`],
    ['pattern', 'Pattern'],
    ['control', 'Control'],
  ];
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(0,1.65fr)_minmax(22rem,1fr)]">
      <div className="flex min-w-0 flex-col gap-3">
        <Faults faults={faults} />
        <AlignmentLine judgement={judgement} rows={rows} />
        <Sheet
          figure={figure}
          factor={factor}
          selected={lit}
          onSelect={selectId}
          title={title}
          pairs={pairs}
          faint={faint}
          stations={stations}
          ghost={ghost}
          zoom={state.zoom}
          onZoom={(zoom) => change({ zoom })}
          drawing={drawing}
        />
        <SheetTools
          state={state}
          change={change}
          factor={factor}
          slide={slide}
          commit={commit}
          ghosts={ghosts}
          drawing={drawing}
          exports={`/api/jobs/${round.jobId}/rounds/${round.id}/export`}
        />
        <Why
          subject={subject}
          judgement={judgement}
          rows={shown}
          acceptHref={acceptHref}
          onToggleControl={toggle}
          chooseReference={actions.chooseReference}
        />
        <BetweenAnyTwo rows={shown} judgement={judgement} />
      </div>
      <Tabs.Root
        value={state.panel}
        onValueChange={(panel) => change({ panel: panel as Panel })}
        className="flex min-h-0 min-w-0 flex-col xl:max-h-[calc(100dvh-10rem)]"
      >
        <Tabs.List aria-label="What is judged" className="flex flex-wrap border-b-2 border-ink">
          {tabs.map(([value, text]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="min-h-11 px-2 font-cond data-[state=active]:bg-ink data-[state=active]:text-paper"
            >
              {text}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="points" className="min-h-0 overflow-auto" tabIndex={-1}>
          <PointList points={points} selected={state.point} control={control} onSelect={selectPoint} onHold={toggle} />
        </Tabs.Content>
        <Tabs.Content value="dimensions" className="min-h-0 overflow-auto" tabIndex={-1}>
          <DimensionList dimensions={dimensions} selected={state.dimension} onSelect={selectDimension} />
        </Tabs.Content>
        <Tabs.Content value="pattern" className="min-h-0 overflow-auto" tabIndex={-1}>
          <PatternPanel rows={shown} judgement={judgement} live={live} onSelect={selectPoint} />
        </Tabs.Content>
        <Tabs.Content value="control" className="min-h-0 overflow-auto" tabIndex={-1}>
          <ControlPanel rows={shown} live={live} agree={agree} setAgree={setAgree} onHold={hold} control={control} />
        </Tabs.Content>
      </Tabs.Root>
    </div>
  );
}

/** The points held as control: shown at once, saved behind. */
function useControl(rows: JobRows, roundId: string, setControl: Action) {
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
  const { run, faults } = useAction(setControl);
  const hold = useCallback(
    (next: readonly string[]) => {
      setChosen([...next]);
      void run({ roundId, pointIds: next });
    },
    [run, roundId],
  );
  return { control, shown, hold, faults };
}

/** The points and dimensions a filter lets through; a dimension passes with both its ends' place and its own verdict. */
function passFilter(
  { points, dimensions, references }: RoundJudgement,
  { verdict, section, side }: SheetState,
): { points: ReadonlySet<string>; dimensions: ReadonlySet<string> } {
  const extent = extentOf([...references.points.values()].map(({ row }) => row.x));
  const verdictFits = (own: string | undefined) => verdict === undefined || (own ?? 'notJudged') === verdict;
  const placed = new Set(
    points.flatMap(({ point }) => {
      const x = references.points.get(point.id)?.row.x;
      const inSection = section === undefined || (x !== undefined && sectionAt(x, extent) === section);
      return inSection && (side === undefined || point.side === side) ? [point.id] : [];
    }),
  );
  return {
    points: new Set(
      points.flatMap(({ point, judged }) => (placed.has(point.id) && verdictFits(judged?.verdict) ? [point.id] : [])),
    ),
    dimensions: new Set(
      dimensions.flatMap(({ dimension, judged }) => {
        const ends = [dimension.fromPointId, dimension.toPointId].filter((id) => placed.has(id)).length;
        return (side || section ? ends > 0 : true) && verdictFits(judged?.verdict) ? [dimension.id] : [];
      }),
    ),
  };
}

/** Where the sections of the shell begin, and where the pattern hinges. */
function stationsOf(
  { references }: RoundJudgement,
  pattern:
    | { readonly sections: readonly { readonly section: string; readonly hinge: { readonly hinge: number } }[] }
    | undefined,
): Station[] {
  const [from, to] = extentOf([...references.points.values()].map(({ row }) => row.x));
  if (!Number.isFinite(from)) return [];
  return [
    { x: from + CENTRE_SHARE[0] * (to - from), label: 'centre section' },
    { x: from + CENTRE_SHARE[1] * (to - from), label: 'rear section' },
    ...(pattern?.sections ?? []).map(({ section, hinge }) => ({
      x: hinge.hinge,
      label: `${section} hinge`,
      strong: true,
    })),
  ];
}

function AlignmentLine({ judgement, rows }: { judgement: RoundJudgement; rows: JobRows }) {
  const format = useFormat();
  const { alignment } = judgement;
  const codes = (ids: readonly string[]) =>
    ids.map((id) => rows.points.find((point) => point.id === id)!.code).join(', ');
  return (
    <p role="status" className="text-sm">
      {alignment.ok ? (
        <>
          Aligned on {codes(alignment.controlIds)}; they agree within {format.length(alignment.rms)} {format.unit} (root
          mean square).
          {alignment.setAside.length > 0
            ? ` Not used, since pulled on or clamped and not measured again: ${codes(alignment.setAside)}.`
            : ''}
        </>
      ) : (
        <strong>
          Not aligned: {alignment.reason}. Tick points under Points, or let the search propose them under Control.
        </strong>
      )}
    </p>
  );
}
