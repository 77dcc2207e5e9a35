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

/** Beside the sheet: what is judged, the pattern, and what is held. */
export function SidePanels({
  rows,
  judgement,
  passing,
  state,
  onPanel,
  selection: { selectPoint, selectDimension },
  held: { control, hold, toggle },
  live,
  agree,
  setAgree,
}: {
  rows: JobRows;
  judgement: RoundJudgement;
  passing: { readonly points: ReadonlySet<string>; readonly dimensions: ReadonlySet<string> };
  state: SheetState;
  onPanel: (panel: Panel) => void;
  selection: ReturnType<typeof useSelection>;
  held: ReturnType<typeof useControl>;
  live: LiveAnalysis;
  agree: string;
  setAgree: (agree: string) => void;
}) {
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
    control: ['Control', <ControlPanel key="control" {...{ rows, live, agree, setAgree, control }} onHold={hold} />],
  };
  return (
    <Tabs
      value={state.panel}
      onValueChange={(panel) => onPanel(panel as Panel)}
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
