import { useMemo, type ReactNode } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { ControlPanel } from './control-panel';
import { DimensionList, PointList } from './lists';
import { PatternPanel } from './pattern-panel';
import type { LiveAnalysis } from './use-analysis';
import type { useControl } from './use-control';
import type { useSelection } from './use-selection';
import type { Panel, SheetState } from './use-sheet-address';
import { Tab, TabList, TabPanel, Tabs } from '../kit/tabs';

interface SidePanelsProps {
  readonly rows: JobRows;
  readonly judgement: RoundJudgement;
  readonly passing: { readonly points: ReadonlySet<string>; readonly dimensions: ReadonlySet<string> };
  readonly address: { readonly state: SheetState; readonly change: (some: Partial<SheetState>) => void };
  readonly selection: ReturnType<typeof useSelection>;
  readonly held: ReturnType<typeof useControl>;
  /** What the search found, and how far undisturbed points may be off. */
  readonly search: {
    readonly live: LiveAnalysis;
    readonly agree: string;
    readonly setAgree: (agree: string) => void;
  };
}

/** Beside the sheet: what is judged, the pattern, and what is held. */
export function SidePanels({ rows, judgement, passing, address, selection, held, search }: SidePanelsProps) {
  const { state, change } = address;
  const { selectPoint, selectDimension } = selection;
  const { control, hold, toggle } = held;
  const { live } = search;
  const points = useMemo(
    () => judgement.points.filter((each) => passing.points.has(each.point.id)),
    [judgement, passing],
  );
  const dimensions = useMemo(
    () => judgement.dimensions.filter((each) => passing.dimensions.has(each.dimension.id)),
    [judgement, passing],
  );
  const panels: Readonly<Record<Panel, readonly [string, ReactNode]>> = {
    points: [
      `Points (${points.length})`,
      <PointList key="points" {...{ points, control }} selected={state.point} onSelect={selectPoint} onHold={toggle} />,
    ],
    dimensions: [
      `Dimensions (${dimensions.length})`,
      <DimensionList key="dimensions" dimensions={dimensions} selected={state.dimension} onSelect={selectDimension} />,
    ],
    pattern: ['Pattern', <PatternPanel key="pattern" {...{ rows, judgement, live }} onSelect={selectPoint} />],
    control: ['Control', <ControlPanel key="control" {...{ rows, control, ...search }} onHold={hold} />],
  };
  return (
    <Tabs
      value={state.panel}
      onValueChange={(panel) => change({ panel: panel as Panel })}
      className="flex min-h-0 min-w-0 flex-col xl:max-h-[calc(100dvh-10rem)]"
    >
      <TabList label="What is judged">
        {Object.entries(panels).map(([value, [text]]) => (
          <Tab key={value} value={value}>
            {text}
          </Tab>
        ))}
      </TabList>
      {Object.entries(panels).map(([value, [, panel]]) => (
        <TabPanel key={value} value={value} className="min-h-0 overflow-auto" tabIndex={-1}>
          {panel}
        </TabPanel>
      ))}
    </Tabs>
  );
}
