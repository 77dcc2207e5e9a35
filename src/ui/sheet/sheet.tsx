'use client';

import { useMemo, type KeyboardEvent } from 'react';
import { placeLabels } from '@/core/drawing/labels';
import type { SheetFigure, SheetPoint } from '@/core/drawing/points';
import {
  boundsOf,
  gridStep,
  layOut,
  project,
  spreadEllipse,
  VIEWS,
  whisker,
  type SheetLayout,
  type ViewName,
} from '@/core/drawing/sheet';
import { Mark } from './mark';

export const SHEET_SIZE = { width: 1000, height: 590 };

const VIEW_WORD: Readonly<Record<ViewName, string>> = {
  plan: 'PLAN',
  side: 'SIDE',
  end: 'END, SEEN FROM THE REAR',
};

export const layoutOf = (figure: SheetFigure): SheetLayout =>
  layOut(boundsOf(figure.points.map((point) => point.position)), SHEET_SIZE);

export interface SheetProps {
  readonly figure: SheetFigure;
  readonly factor: number;
  readonly selected?: readonly string[];
  readonly onSelect?: (pointId: string) => void;
  /** Lines of the title block in the corner of the drawing. */
  readonly title: readonly string[];
  /** Extra pairs drawn strongly: braces, a dimension in hand. */
  readonly pairs?: readonly {
    readonly from: string;
    readonly to: string;
    readonly strong?: boolean;
  }[];
}

/** Plan, side and end views of the shell on one sheet, movements exaggerated by the factor shown. */
export function Sheet({ figure, factor, selected = [], onSelect, title, pairs = [] }: SheetProps) {
  const layout = useMemo(() => layoutOf(figure), [figure]);
  const chosen = figure.points.find((point) => point.id === selected[0]);
  const move = (event: KeyboardEvent) => {
    const next = onSelect && neighbour(figure, chosen, event.key);
    if (!next) return;
    event.preventDefault();
    onSelect(next.id);
  };
  return (
    <div
      role="group"
      tabIndex={onSelect ? 0 : undefined}
      aria-label={`Drawing of the shell; ${chosen ? `selected ${chosen.code}, ${chosen.name}` : 'no point selected'}`}
      onKeyDown={move}
      className="border border-rule bg-sheet"
    >
      <svg
        viewBox={`0 0 ${SHEET_SIZE.width} ${SHEET_SIZE.height}`}
        className="block w-full"
        role="img"
        aria-label="Plan, side and end view"
      >
        {VIEWS.map((view) => (
          <View key={view} {...{ view, layout, figure, factor, selected, onSelect, pairs }} />
        ))}
        <TitleBlock layout={layout} title={title} factor={factor} />
      </svg>
    </div>
  );
}

function View({
  view, layout, figure, factor, selected, onSelect, pairs,
}: Required<Pick<SheetProps, 'selected' | 'pairs'>> & Pick<SheetProps, 'figure' | 'factor' | 'onSelect'> & { view: ViewName; layout: SheetLayout }) {
  const at = (point: SheetPoint) => project(layout, view, point.position);
  const labels = useMemo(() => {
    const weightOf = (point: SheetPoint) => (point.verdict === 'outside' ? 3 : point.verdict === 'undecided' ? 1 : 0);
    return placeLabels(
      figure.points.map((point) => ({
        id: point.id, at: project(layout, view, point.position), text: point.code,
        weight: selected.includes(point.id) ? 9 : weightOf(point),
      })),
      { line: 15, character: 8 },
      10,
      layout.views[view],
    );
  }, [figure, layout, view, selected]); // prettier-ignore
  const byId = new Map(figure.points.map((point) => [point.id, point]));
  return (
    <g aria-hidden>
      <Grid view={view} layout={layout} />
      {figure.lines.map(([from, to], i) => {
        const [[x1, y1], [x2, y2]] = [project(layout, view, from), project(layout, view, to)];
        return <line key={i} {...{ x1, y1, x2, y2 }} stroke="var(--rule)" strokeWidth={1} />;
      })}
      {pairs.map(({ from, to, strong }, i) => {
        const [a, b] = [byId.get(from), byId.get(to)];
        if (!a || !b) return null;
        const [[x1, y1], [x2, y2]] = [at(a), at(b)];
        return <line key={i} {...{ x1, y1, x2, y2 }} stroke="var(--ink)" strokeWidth={strong ? 3 : 1.5} strokeDasharray={strong ? undefined : '7 4'} />;
      })}
      {figure.points.map((point) => (
        <g key={point.id} transform={`translate(${at(point).join(' ')})`} onClick={() => onSelect?.(point.id)} className={onSelect ? 'cursor-pointer' : ''}>
          {selected.includes(point.id) ? <circle r={13} fill="var(--lit)" /> : null}
          {point.spread ? <Spread spread={point.spread} view={view} layout={layout} factor={factor} /> : null}
          <WhiskerLine point={point} view={view} layout={layout} factor={factor} />
          <Mark point={point} />
          <circle r={14} fill="transparent" />
        </g>
      ))}
      {labels.map((label) => (
        <text key={label.id} x={label.x} y={label.y} fontSize={14.5} fill="currentColor" className="pointer-events-none font-cond">
          {label.text}
        </text>
      ))}
      <text x={layout.views[view].x + 8} y={layout.views[view].y + layout.views[view].height - 8} fontSize={11} letterSpacing={1} fill="var(--soft)" className="font-cond">
        {VIEW_WORD[view]}
      </text>
    </g>
  );
} // prettier-ignore

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
      rx={rx}
      ry={ry}
      transform={`rotate(${turn})`}
      fill="none"
      stroke="var(--soft)"
      strokeWidth={0.7}
      strokeDasharray="2 2"
    />
  );
}

function WhiskerLine({
  point,
  view,
  layout,
  factor,
}: {
  point: SheetPoint;
  view: ViewName;
  layout: SheetLayout;
  factor: number;
}) {
  if (!point.movement || point.verdict === 'inside') return null;
  const { dx, dy, tone } = whisker(layout, view, point.movement, point.position[1], factor);
  const stroke = tone === 'plus' ? 'var(--plus)' : 'var(--minus)';
  return (
    <>
      <line x2={dx} y2={dy} stroke={stroke} strokeWidth={point.verdict === 'outside' ? 2.6 : 1.6} />
      <circle cx={dx} cy={dy} r={2} fill={stroke} />
    </>
  );
}

/** The zero planes drawn, and thin lines parallel to them. */
function Grid({ view, layout }: { view: ViewName; layout: SheetLayout }) {
  const { x, y, width, height, origin } = layout.views[view];
  const step = gridStep(layout) * layout.scale;
  const lines = (from: number, to: number, zero: number) =>
    Array.from(
      { length: Math.floor((to - zero) / step) - Math.ceil((from - zero) / step) + 1 },
      (_, i) => zero + (Math.ceil((from - zero) / step) + i) * step,
    );
  return (
    <g stroke="var(--faint)" strokeWidth={1}>
      {lines(x + 4, x + width - 4, origin[0]).map((at) => (
        <line key={at} x1={at} x2={at} y1={y + 4} y2={y + height - 4} />
      ))}
      {lines(y + 4, y + height - 4, origin[1]).map((at) => (
        <line key={at} y1={at} y2={at} x1={x + 4} x2={x + width - 4} />
      ))}
      <g stroke="var(--soft)" strokeWidth={0.8} strokeDasharray="12 3 2 3">
        {origin[0] > x && origin[0] < x + width ? (
          <line x1={origin[0]} x2={origin[0]} y1={y + 4} y2={y + height - 4} />
        ) : null}
        {origin[1] > y && origin[1] < y + height ? (
          <line y1={origin[1]} y2={origin[1]} x1={x + 4} x2={x + width - 4} />
        ) : null}
      </g>
    </g>
  );
}

/** Title, factor and the meaning of the marks, in the free corner above the end view. */
function TitleBlock({
  layout,
  title,
  factor,
}: {
  layout: SheetLayout;
  title: readonly string[];
  factor: number;
}) {
  const x = layout.views.end.x + 12;
  const key: readonly (readonly [Pick<SheetPoint, 'verdict' | 'control'>, string])[] = [
    [{ verdict: 'inside', control: false }, 'inside'],
    [{ verdict: 'outside', control: false }, 'outside'],
    [{ verdict: 'undecided', control: false }, 'undecided'],
    [{ control: false }, 'not measured'],
    [{ verdict: 'inside', control: true }, 'held as control'],
  ];
  return (
    <g className="font-cond" fontSize={14} fill="currentColor">
      {title.map((line, i) => (
        <text
          key={line}
          x={x}
          y={24 + 17 * i}
          fontWeight={i === 0 ? 600 : 400}
          fontSize={i === 0 ? 17 : 14}
        >
          {line}
        </text>
      ))}
      <text x={x} y={24 + 17 * title.length + 4} fontWeight={600}>
        movements drawn {factor} times as large
      </text>
      {key.map(([point, word], i) => (
        <g key={word} transform={`translate(${x + 6} ${24 + 17 * title.length + 24 + 18 * i})`}>
          <Mark point={point} />
          <text x={13} y={4}>
            {word}
          </text>
        </g>
      ))}
      <g transform={`translate(${x + 130} ${24 + 17 * title.length + 24})`}>
        <line x2={22} stroke="var(--plus)" strokeWidth={2.6} />
        <text x={28} y={4}>
          rearward, outward, up
        </text>
        <line x2={22} y1={18} y2={18} stroke="var(--minus)" strokeWidth={2.6} />
        <text x={28} y={22}>
          forward, inward, down
        </text>
      </g>
    </g>
  );
}

const DIRECTION: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1],
}; // prettier-ignore

/** The nearest point in the direction of an arrow key, as the plan shows it. */
function neighbour(
  figure: SheetFigure,
  from: SheetPoint | undefined,
  key: string,
): SheetPoint | undefined {
  const direction = DIRECTION[key];
  if (!direction) return undefined;
  if (!from) return figure.points[0];
  const [ax, ay] = direction;
  const cost = (point: SheetPoint): number => {
    const [dx, dy, dz] = [0, 1, 2].map((i) => point.position[i]! - from.position[i]!) as [
      number,
      number,
      number,
    ];
    const along = dx * ax + dy * ay;
    return along <= 1
      ? Infinity
      : along + 2 * Math.abs(dx * ay) + 2 * Math.abs(dy * ax) + 0.3 * Math.abs(dz);
  };
  return figure.points.reduce<SheetPoint | undefined>(
    (best, point) => (cost(point) < (best ? cost(best) : Infinity) ? point : best),
    undefined,
  );
}
