import { memo, useMemo } from 'react';
import { placeLabels, type Box } from '@/core/report/drawing/labels';
import type { SheetFigure, SheetPoint } from '@/core/report/drawing/points';
import { project, spreadEllipse, whisker, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';
import type { Station } from '@/core/report/drawing/stations';
import type { Vector } from '@/core/maths/geometry/vector';
import { useFormat } from '../shell/preferences-context';
import { Grid, rulerBoxes, SMALL_CHARACTER } from './grid';
import { Mark } from './mark';
import { ShellLayer, type ShellState } from './shell-layer';

const VIEW_WORD: Readonly<Record<ViewName, string>> = {
  plan: 'PLAN',
  side: 'SIDE',
  end: 'END, SEEN FROM THE REAR',
};

/** The end of the shell that is forward, in the views that show it. */
const FRONT_WORD = '◄ FRONT';

export interface SheetPair {
  readonly from: string;
  readonly to: string;
  readonly strong?: boolean;
}

export interface ViewProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly figure: SheetFigure;
  readonly selected: readonly string[];
  readonly onSelect?: (pointId: string) => void;
  readonly pairs: readonly SheetPair[];
  /** Points that a filter leaves in the background. */
  readonly faint?: ReadonlySet<string>;
  readonly stations?: readonly Station[];
  /** What of the shell is out, or in hand. */
  readonly shellState?: ShellState;
}

/** Everything of a view that does not change with the exaggeration. */
export const ViewBase = memo(function ViewBase({
  view,
  layout,
  figure,
  stations = [],
  pairs,
  shellState,
}: Omit<ViewProps, 'selected'>) {
  const byId = useMemo(() => new Map(figure.points.map((point) => [point.id, point])), [figure]);
  return (
    <>
      <Grid view={view} layout={layout} />
      {view === 'end' ? null : <Stations view={view} layout={layout} stations={stations} />}
      {figure.shell ? <ShellLayer {...{ view, layout }} shell={figure.shell} state={shellState} /> : null}
      {(figure.shell ? [] : figure.lines).map(([from, to], i) => {
        const [[x1, y1], [x2, y2]] = [project(layout, view, from), project(layout, view, to)];
        return <line key={i} {...{ x1, y1, x2, y2 }} stroke="var(--rule)" strokeWidth={1} />;
      })}
      {pairs.map(({ from, to, strong }, i) => {
        const [a, b] = [byId.get(from), byId.get(to)];
        if (!a || !b) return null;
        const [[x1, y1], [x2, y2]] = [project(layout, view, a.position), project(layout, view, b.position)];
        return (
          <line
            key={i}
            {...{ x1, y1, x2, y2 }}
            stroke="var(--ink)"
            strokeWidth={strong ? 3 : 1.5}
            strokeDasharray={strong ? undefined : '7 4'}
          />
        );
      })}
    </>
  );
});

/** Movements and uncertainties: the only part drawn anew while the exaggeration slides. */
export const Movements = memo(function Movements({
  view,
  layout,
  figure,
  factor,
  ghost,
  faint,
}: Pick<ViewProps, 'view' | 'layout' | 'figure' | 'faint'> & { factor: number; ghost?: ReadonlyMap<string, Vector> }) {
  return (
    <>
      {figure.points.map((point) => {
        if (faint?.has(point.id)) return null;
        const earlier = ghost?.get(point.id);
        return (
          <g key={point.id} transform={`translate(${project(layout, view, point.position).join(' ')})`}>
            {point.spread ? <Spread spread={point.spread} view={view} layout={layout} factor={factor} /> : null}
            {earlier ? <GhostLine movement={earlier} {...{ view, layout, factor }} /> : null}
            <WhiskerLine point={point} view={view} layout={layout} factor={factor} />
          </g>
        );
      })}
    </>
  );
});

/** The marks with their codes, above everything else. */
export const Marks = memo(function Marks({
  view,
  layout,
  figure,
  selected,
  onSelect,
  faint,
  stations,
}: Omit<ViewProps, 'pairs' | 'shellState'>) {
  const format = useFormat();
  const labels = useMemo(() => {
    const box = layout.views[view];
    const weightOf = (point: SheetPoint) => (point.verdict === 'outside' ? 3 : point.verdict === 'undecided' ? 1 : 0);
    const seen = figure.points
      .filter(({ id }) => !faint?.has(id) || selected.includes(id))
      .map((point) => ({
        id: point.id,
        at: project(layout, view, point.position),
        text: point.code,
        weight: selected.includes(point.id) ? 9 : weightOf(point),
      }))
      .filter(({ at: [x, y] }) => x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height);
    const written = [
      ...[viewWordBox(layout, view), frontBox(layout, view)],
      ...stationBoxes(layout, view, stations ?? []),
      ...rulerBoxes(layout, view, format.unit),
    ];
    return placeLabels(seen, { line: 15, character: 8 }, 10, box, written);
  }, [figure, layout, view, selected, faint, stations, format.unit]);
  return (
    <>
      {figure.points.map((point) => (
        <g
          key={point.id}
          transform={`translate(${project(layout, view, point.position).join(' ')})`}
          onClick={() => onSelect?.(point.id)}
          className={onSelect ? 'cursor-pointer' : ''}
          data-point={point.code}
        >
          <title>{`${point.code}: ${format.name(point.name) || 'no name'}`}</title>
          {selected.includes(point.id) ? <circle r={13} fill="none" stroke="var(--lit)" strokeWidth={5} /> : null}
          {faint?.has(point.id) ? <circle r={1.5} fill="var(--rule)" /> : <Mark point={point} />}
          <circle r={14} fill="transparent" />
        </g>
      ))}
      {labels.map((label) => (
        <text
          key={label.id}
          x={label.x}
          y={label.y}
          fontSize={14.5}
          fill="currentColor"
          className="pointer-events-none font-cond"
        >
          {label.text}
        </text>
      ))}
      <text
        x={layout.views[view].x + 8}
        y={layout.views[view].y + layout.views[view].height - 8}
        fontSize={11}
        letterSpacing={1}
        fill="var(--soft)"
        className="pointer-events-none font-cond"
      >
        {VIEW_WORD[view]}
      </text>
      {view === 'end' ? null : (
        <text
          x={layout.views[view].x + 8}
          y={layout.views[view].y + 20}
          fontSize={13}
          fontWeight={600}
          fill="var(--soft)"
          className="pointer-events-none font-cond"
        >
          {FRONT_WORD}
        </text>
      )}
    </>
  );
});

/** Where a view's name is written, at its foot. */
function viewWordBox(layout: SheetLayout, view: ViewName): Box {
  const { x, y, height } = layout.views[view];
  return { x, y: y + height - 20, width: 8 + VIEW_WORD[view].length * 8, height: 20 };
}

/** Where the front is marked, at the head of a view. */
const frontBox = (layout: SheetLayout, view: ViewName): Box => {
  const { x, y } = layout.views[view];
  return { x, y: y + 6, width: view === 'end' ? 0 : 8 + FRONT_WORD.length * 9, height: 18 };
};

/** Where the names of the stations are written, at the foot of the plan. */
const stationBoxes = (layout: SheetLayout, view: ViewName, stations: readonly Station[]): Box[] =>
  view === 'plan'
    ? stations.map(({ x, label, strong }) => {
        const { y, height } = layout.views.plan;
        const [at] = project(layout, view, [x, 0, 0]);
        return { x: at, y: y + height - (strong ? 34 : 20), width: label.length * SMALL_CHARACTER, height: 14 };
      })
    : [];

/** The ellipse a point is known to, at the sheet's exaggeration. */
function Spread({
  spread,
  view,
  layout,
  factor,
}: {
  spread: readonly number[];
  view: ViewName;
  layout: SheetLayout;
  factor: number;
}) {
  const { rx, ry, turn } = spreadEllipse(layout, view, spread, factor);
  return (
    <ellipse
      rx={seen(rx)}
      ry={seen(ry)}
      transform={`rotate(${turn.toFixed(0)})`}
      fill="none"
      stroke="var(--soft)"
      strokeWidth={0.7}
      strokeDasharray="2 2"
    />
  );
}

/** To a tenth of a sheet unit: what moves less is not drawn anew, and a reading moves most points by less. */
const seen = (value: number): number => Math.round(value * 10) / 10;

type Drawn = { readonly view: ViewName; readonly layout: SheetLayout; readonly factor: number };

function WhiskerLine({ point, view, layout, factor }: Drawn & { point: SheetPoint }) {
  if (!point.movement || point.verdict === 'inside') return null;
  const { dx, dy, tone } = whisker(layout, view, point.movement, point.position[1], factor);
  const stroke = tone === 'plus' ? 'var(--plus)' : 'var(--minus)';
  return (
    <>
      <line x2={seen(dx)} y2={seen(dy)} stroke={stroke} strokeWidth={point.verdict === 'outside' ? 2.6 : 1.6} />
      <circle cx={seen(dx)} cy={seen(dy)} r={2} fill={stroke} />
    </>
  );
}

/** Where the point stood in an earlier round. */
function GhostLine({ movement, view, layout, factor }: Drawn & { movement: Vector }) {
  const { dx, dy } = whisker(layout, view, movement, 0, factor);
  return (
    <>
      <line x2={dx} y2={dy} stroke="var(--soft)" strokeWidth={1.4} strokeDasharray="3 2" />
      <circle cx={dx} cy={dy} r={3} fill="none" stroke="var(--soft)" />
    </>
  );
}

/** Stations of the shell's sections, and of a pattern's hinge. */
function Stations({ view, layout, stations }: { view: ViewName; layout: SheetLayout; stations: readonly Station[] }) {
  const { x, y, width, height } = layout.views[view];
  return stations.map(({ x: station, label, strong }) => {
    const [at] = project(layout, view, [station, 0, 0]);
    if (at < x || at > x + width) return null;
    return (
      <g key={label} pointerEvents="none">
        <line
          x1={at}
          x2={at}
          y1={y + 4}
          y2={y + height - 4}
          stroke="var(--soft)"
          strokeWidth={strong ? 1.6 : 1}
          strokeDasharray={strong ? '9 3' : '1 4'}
        />
        {view === 'plan' ? (
          <text
            x={at + 4}
            y={y + height - (strong ? 22 : 8)}
            fontSize={11.5}
            fill="var(--soft)"
            className="font-cond"
            fontWeight={strong ? 600 : 400}
          >
            {label}
          </text>
        ) : null}
      </g>
    );
  });
}
