'use client';

import { Job } from '@/core/shell/job/job';
import { useMemo, useRef, useState } from 'react';
import { shellOf } from '@/core/report/drawing/shell';
import { sheetFigure, type SheetFigure } from '@/core/report/drawing/points';
import { suggestFactor } from '@/core/report/drawing/sheet';
import { passFilter } from '@/core/report/drawing/sheet-filter';
import { stationsOf } from '@/core/report/drawing/stations';
import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { JobRows } from '@/core/shell/job/job-rows';
import { grouped } from '@/core/maths/grouped';
import { listedUpTo } from '@/core/report/vocabulary/words';
import { byCode } from '@/core/shell/by-code';
import type { PointJudgement, RoundJudgement } from '@/core/round/judge/judgement';
import type { Ghost } from '@/core/report/pages/ghosts';
import type { Choice } from '@/formats/inputs/references';
import type { Control } from '@/formats/inputs/rounds';
import { Faults } from '../kit/faults';
import type { Action } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { BetweenAnyTwo } from './between';
import { AGREE } from './control-panel';
import { PrintSheet } from './print-sheet';
import { layoutOf, Sheet } from './sheet';
import { SheetTools } from './sheet-tools';
import { SidePanels } from './side-panels';
import { useAnalysis } from './use-analysis';
import { useControl } from './use-control';
import { useSelection } from './use-selection';
import { useFactor, useSheetAddress } from './use-sheet-address';
import { Why } from './why';
import { unpacked } from '../kit/unpacked';

export interface SheetActions {
  readonly setControl: Action<Control>;
  readonly chooseReference: Action<Choice>;
}

interface DeviationsProps {
  readonly rows: JobRows;
  readonly roundId: string;
  readonly actions: SheetActions;
  readonly acceptHref: string;
  readonly ghosts: readonly Ghost[];
}

/** The judged round: the sheet, the lists, and why each figure is what it is. Judged in a worker, ticks and all. */
export const Deviations = unpacked(JudgedRound);

function JudgedRound(props: DeviationsProps) {
  const { rows, roundId, actions } = props;
  const held = useControl(rows, roundId, actions.setControl);
  const judged = useTask('judge', rows, { roundId, control: held.control, warm: true });
  if (!judged.value)
    return (
      <p role="status" className="py-6 text-soft">
        {judged.failure ?? 'Solving and judging the round …'}
      </p>
    );
  return <JudgedSheet page={props} held={held} judgement={judged.value.value} busy={judged.busy} />;
}

interface JudgedProps {
  readonly page: DeviationsProps;
  readonly held: ReturnType<typeof useControl>;
  readonly judgement: RoundJudgement;
  readonly busy: boolean;
}

function JudgedSheet({ page, held, judgement, busy }: JudgedProps) {
  const { rows, roundId, actions, acceptHref, ghosts } = page;
  const format = useFormat();
  const { round } = judgement;
  const [state, change] = useSheetAddress();
  const { shown, faults, toggle } = held;
  const shell = useMemo(() => shellOf(Job.of(shown), judgement), [shown, judgement]);
  const figure = useMemo(
    () => ({ ...sheetFigure(Job.of(shown), judgement), ...(shell ? { shell } : {}) }),
    [shown, judgement, shell],
  );
  const [agree, setAgree] = useState('own');
  const live = useAnalysis(rows, roundId, held.control, AGREE[agree]!);
  const suggested = useMemo(() => {
    const moved = figure.points.flatMap(({ movement }) => (movement ? [norm(movement)] : []));
    return suggestFactor(moved, layoutOf(figure));
  }, [figure]);
  const exaggeration = useFactor(state, change, suggested);
  const { factor } = exaggeration;
  const drawing = useRef<SVGSVGElement>(null);
  const selection = useSelection(rows, judgement, state, change);
  const passing = useMemo(() => passFilter(judgement, state), [judgement, state]);
  const faint = useMemo(
    () => new Set(figure.points.flatMap(({ id }) => (passing.points.has(id) ? [] : [id]))),
    [figure, passing],
  );
  const ghost = useMemo(() => ghostOf(ghosts, state.ghost), [ghosts, state.ghost]);
  const { analysis } = live;
  const stations = useMemo(
    () =>
      stationsOf(judgement, analysis?.pattern).map((station) => ({ ...station, label: format.name(station.label) })),
    [judgement, analysis, format],
  );
  const title = useMemo(
    () => [
      rows.jobs[0]!.name,
      `Round ${round.number}: ${round.name}`,
      `lengths in ${format.unit}, ± is two standard deviations`,
    ],
    [rows, round, format],
  );
  return (
    <div
      aria-busy={busy}
      data-judged
      className={`grid grid-cols-1 gap-4 ${state.beside ? 'xl:grid-cols-[minmax(0,1fr)_21.5rem]' : ''}`}
    >
      <div className="flex min-w-0 flex-col gap-3">
        <Faults faults={faults} />
        <AlignmentLine judgement={judgement} rows={rows} />
        <NotDrawn judgement={judgement} figure={figure} />
        <Sheet
          drawn={{ figure, factor, title, faint, stations, ghost, pairs: selection.pairs }}
          drawing={drawing}
          only={state.view}
          selected={selection.lit}
          onSelect={selection.selectId}
          zoom={state.zoom}
          onZoom={(zoom) => change({ zoom })}
        />
        <SheetTools
          {...{ state, change, exaggeration, ghosts, drawing }}
          exports={`/api/jobs/${round.jobId}/rounds/${roundId}/export`}
        >
          <PrintSheet drawn={{ figure, factor, title, faint, stations, ghost, pairs: selection.pairs }} />
        </SheetTools>
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
        {...{ judgement, passing, selection, held }}
        address={{ state, change }}
        search={{ live, agree, setAgree }}
      />
    </div>
  );
}

/** So many are named: the list beside names them all. */
const MOST_NAMED = 6;

const someCodes = (points: readonly PointJudgement[]): string =>
  listedUpTo(MOST_NAMED, points.map(({ point }) => point.code).sort(byCode));

/** Points that were read and are not on the drawing, since neither a reference nor the readings say where they are. */
function NotDrawn({ judgement, figure }: { judgement: RoundJudgement; figure: SheetFigure }) {
  const drawn = new Set(figure.points.map(({ id }) => id));
  const missing = judgement.points.filter(({ point, advice }) => advice && !drawn.has(point.id));
  if (missing.length === 0) return null;
  const alike = [...grouped(missing, ({ advice }) => advice!)];
  return (
    <p className="text-sm" data-not-drawn>
      Not on the sheet yet: {alike.map(([advice, points]) => `${someCodes(points)} (${advice})`).join('; ')}.
    </p>
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
          Aligned on {codes(alignment.controlIds)}; they agree within {format.uncertainty(alignment.rms)} {format.unit}{' '}
          (root mean square).
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
