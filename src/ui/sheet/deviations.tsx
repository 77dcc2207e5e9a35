'use client';

import { useMemo, useRef, useState } from 'react';
import { sheetFigure } from '@/core/report/drawing/points';
import { suggestFactor } from '@/core/report/drawing/sheet';
import { passFilter } from '@/core/report/drawing/sheet-filter';
import { stationsOf } from '@/core/report/drawing/stations';
import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { JobRows } from '@/core/shell/job/job-rows';
import { judgeRound, type RoundJudgement } from '@/core/round/judge/judgement';
import { Faults } from '../kit/faults';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { BetweenAnyTwo } from './between';
import { AGREE } from './control-panel';
import { layoutOf, Sheet } from './sheet';
import { SheetTools, type Ghost } from './sheet-tools';
import { SidePanels } from './side-panels';
import { useAnalysis } from './use-analysis';
import { useControl } from './use-control';
import { useSelection } from './use-selection';
import { useFactor, useSheetAddress } from './use-sheet-address';
import { Why } from './why';

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
  const held = useControl(rows, roundId, actions.setControl);
  const { shown, faults, toggle } = held;
  const judgement = useMemo(() => judgeRound(shown, round), [shown, round]);
  const figure = useMemo(() => sheetFigure(shown, judgement), [shown, judgement]);
  const [agree, setAgree] = useState('own');
  const live = useAnalysis(shown, roundId, AGREE[agree]!);
  const suggested = useMemo(() => {
    const moved = figure.points.flatMap(({ movement }) => (movement ? [norm(movement)] : []));
    return suggestFactor(moved, layoutOf(figure));
  }, [figure]);
  const { factor, slide, commit } = useFactor(state, change, suggested);
  const drawing = useRef<SVGSVGElement>(null);
  const selection = useSelection(rows, judgement, state, change);
  const passing = useMemo(() => passFilter(judgement, state), [judgement, state]);
  const faint = useMemo(
    () => new Set(figure.points.flatMap(({ id }) => (passing.points.has(id) ? [] : [id]))),
    [figure, passing],
  );
  const ghost = useMemo(() => ghostOf(ghosts, state.ghost), [ghosts, state.ghost]);
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
  return (
    <div className="grid grid-cols-1 gap-4 xl:grid-cols-[minmax(0,1.65fr)_minmax(22rem,1fr)]">
      <div className="flex min-w-0 flex-col gap-3">
        <Faults faults={faults} />
        <AlignmentLine judgement={judgement} rows={rows} />
        <Sheet
          {...{ figure, factor, title, faint, stations, ghost, drawing }}
          selected={selection.lit}
          onSelect={selection.selectId}
          pairs={selection.pairs}
          zoom={state.zoom}
          onZoom={(zoom) => change({ zoom })}
        />
        <SheetTools
          {...{ state, change, factor, slide, commit, ghosts, drawing }}
          exports={`/api/jobs/${round.jobId}/rounds/${round.id}/export`}
        />
        <Why
          subject={selection.subject}
          judgement={judgement}
          rows={shown}
          acceptHref={acceptHref}
          onToggleControl={toggle}
          chooseReference={actions.chooseReference}
        />
        <BetweenAnyTwo rows={shown} judgement={judgement} />
      </div>
      <SidePanels
        rows={shown}
        {...{ judgement, passing, state, selection, held, live, agree, setAgree }}
        onPanel={(panel) => change({ panel })}
      />
    </div>
  );
}

function ghostOf(ghosts: readonly Ghost[], number: number | undefined) {
  const chosen = ghosts.find((each) => each.number === number);
  return (
    chosen && {
      name: `round ${chosen.number}, ${chosen.name}`,
      movements: new Map<string, Vector>(Object.entries(chosen.movements)),
    }
  );
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
