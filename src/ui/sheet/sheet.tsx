'use client';

import { memo, useId, useMemo, useRef, type KeyboardEvent, type PointerEvent, type ReactNode, type Ref } from 'react';
import { alike } from '@/core/maths/alike';
import type { SheetFigure, SheetPoint } from '@/core/report/drawing/points';
import { cornersOf } from '@/core/report/drawing/shell';
import {
  boundsOf,
  layOut,
  layOutOne,
  middleOf,
  panned,
  VIEWS,
  zoomed,
  type SheetLayout,
  type ViewName,
  type Zoom,
} from '@/core/report/drawing/sheet';
import type { Station } from '@/core/report/drawing/stations';
import type { Vector } from '@/core/maths/geometry/vector';
import { useSame } from '../kit/use-same';
import { useFormat } from '../shell/preferences-context';
import { TitleBlock } from './title-block';
import { useSheetSize, type SheetSize } from './use-sheet-size';
import type { ShellState } from './shell-layer';
import { Marks, Movements, ViewBase, type SheetPair } from './view';

/** The sheet before its place on the page is known, and in print. */
export const SHEET_SIZE: SheetSize = { width: 1000, height: 590 };

export const layoutOf = (figure: SheetFigure, size = SHEET_SIZE, only?: ViewName): SheetLayout => {
  const around = figure.shell ? cornersOf(figure.shell) : [];
  const bounds = boundsOf([...figure.points.map((point) => point.position), ...around]);
  return only ? layOutOne(only, bounds, size) : layOut(bounds, size);
};

/** What is drawn. */
export interface SheetDrawing {
  readonly figure: SheetFigure;
  readonly factor: number;
  /** Lines of the title block in the corner of the drawing. */
  readonly title: readonly string[];
  /** Extra pairs drawn strongly: braces, a dimension in hand. */
  readonly pairs?: readonly SheetPair[];
  readonly faint?: ReadonlySet<string>;
  readonly stations?: readonly Station[];
  /** What of the shell is out, or in hand. */
  readonly shellState?: ShellState;
  /** Only what is drawn is told of: no meaning of marks. */
  readonly plain?: boolean;
  /** Drawn over the shell and under the marks. */
  readonly over?: (view: ViewName, layout: SheetLayout) => ReactNode;
  /** Drawn over everything, and taken hold of before the marks. */
  readonly above?: (view: ViewName, layout: SheetLayout) => ReactNode;
  /** Movements of an earlier round, and its name. */
  readonly ghost?: { readonly name: string; readonly movements: ReadonlyMap<string, Vector> };
}

export interface SheetProps {
  readonly drawn: SheetDrawing;
  readonly selected?: readonly string[];
  readonly onSelect?: (pointId: string) => void;
  /** The one view that has the whole sheet. */
  readonly only?: ViewName;
  readonly zoom?: Zoom;
  readonly onZoom?: (zoom: Zoom | undefined) => void;
  readonly drawing?: Ref<SVGSVGElement>;
}

const NONE: readonly never[] = [];
/** What of a point the marks do not show. */
const MOVING: ReadonlySet<string> = new Set<keyof SheetPoint>(['movement', 'spread']);
const MOST_ZOOM = 30;

/** Plan, side and end views of the shell on one sheet, movements exaggerated by the factor shown. */
export const Sheet = memo(function Sheet({
  drawn,
  selected = NONE,
  onSelect,
  only,
  zoom,
  onZoom,
  drawing,
}: SheetProps) {
  const { figure, factor, title, pairs = NONE, faint, stations, ghost, shellState, over, above, plain } = drawn;
  const format = useFormat();
  const { place, size } = useSheetSize();
  // A reading moves whiskers and ellipses; everything else stays as it is drawn.
  const still = useSame(figure, (a, b) => alike(a, b, MOVING));
  const whole = useMemo(() => layoutOf(still, size, only), [still, size, only]);
  const layout = useMemo(() => (zoom ? zoomed(whole, zoom) : whole), [whole, zoom]);
  const chosen = figure.points.find((point) => point.id === selected[0]);
  const clip = useId();
  const zooming = useZooming(whole, layout, zoom, onZoom);
  const move = (event: KeyboardEvent) => {
    if (zooming.key(event, chosen)) return event.preventDefault();
    const next = onSelect && neighbour(figure, chosen, event.key);
    if (!next) return;
    event.preventDefault();
    onSelect(next.id);
  };
  return (
    <div
      ref={place}
      role="group"
      tabIndex={onSelect ? 0 : undefined}
      aria-label={`Drawing of the shell; ${chosen ? `selected ${chosen.code}, ${format.name(chosen.name)}` : 'no point selected'}`}
      onKeyDown={move}
      className="border border-rule bg-sheet"
    >
      <svg
        ref={drawing}
        viewBox={`0 0 ${size.width} ${size.height}`}
        className={`block w-full ${onZoom ? 'touch-none' : ''}`}
        role="img"
        aria-label="Plan, side and end view"
        data-middle={middleOf(whole)
          .map((value) => value.toFixed(0))
          .join(' ')}
        {...zooming.pointer}
      >
        {VIEWS.filter((view) => !only || view === only).map((view) => {
          const { x, y, width, height } = layout.views[view];
          return (
            <g key={view} aria-hidden data-view={view}>
              <clipPath id={`${clip}${view}`}>
                <rect {...{ x, y, width, height }} />
              </clipPath>
              <g clipPath={zoom ? `url(#${clip}${view})` : undefined}>
                <ViewBase {...{ view, layout, pairs, stations, shellState }} figure={still} />
                {over?.(view, layout)}
                <Movements {...{ view, layout, figure, factor, faint }} ghost={ghost?.movements} />
                <Marks {...{ view, layout, selected, onSelect, faint, stations }} figure={still} />
                {above?.(view, layout)}
              </g>
              {zoom ? (
                <rect
                  {...{ x: x + 1, y: y + 1, width: width - 2, height: height - 2 }}
                  fill="none"
                  stroke="var(--rule)"
                />
              ) : null}
            </g>
          );
        })}
        <TitleBlock layout={layout} title={title} factor={factor} ghost={ghost?.name} plain={plain} />
      </svg>
    </div>
  );
});

/** Zoom and pan of all three views together, by wheel, drag and keys. */
function useZooming(whole: SheetLayout, layout: SheetLayout, zoom: Zoom | undefined, onZoom: SheetProps['onZoom']) {
  const drag = useRef<{ view: ViewName; x: number; y: number; moved: boolean }>(undefined);
  const now = zoom ?? { times: 1, focus: middleOf(whole) };
  const set = (times: number, focus: Vector) =>
    onZoom?.(times <= 1.001 ? undefined : { times: Math.min(times, MOST_ZOOM), focus });
  const onSheet = (event: { clientX: number; clientY: number; currentTarget: SVGSVGElement }) => {
    const box = event.currentTarget.getBoundingClientRect();
    const scale = whole.width / box.width;
    return { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale };
  };
  const viewAt = ({ x, y }: { x: number; y: number }) =>
    VIEWS.find((view) => {
      const box = layout.views[view];
      return x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height;
    });
  return {
    key(event: KeyboardEvent, chosen: SheetPoint | undefined): boolean {
      if (!onZoom) return false;
      const step = 60;
      const towards = chosen && now.times <= 1.001 ? chosen.position : now.focus;
      if (event.key === '+' || event.key === '=') set(now.times * 1.5, towards);
      else if (event.key === '-') set(now.times / 1.5, now.focus);
      else if (event.key === '0') onZoom(undefined);
      else if (event.shiftKey && event.key.startsWith('Arrow')) {
        if (!zoom) return true;
        const [dx, dy] = { ArrowLeft: [step, 0], ArrowRight: [-step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[
          event.key
        ] ?? [0, 0];
        set(now.times, panned(layout, event.altKey ? 'side' : 'plan', now.focus, dx!, dy!));
      } else return false;
      return true;
    },
    pointer: onZoom
      ? {
          onWheel: (event: React.WheelEvent<SVGSVGElement>) => {
            const at = onSheet(event);
            const view = viewAt(at);
            if (!view) return;
            const box = layout.views[view];
            const off = [at.x - box.x - box.width / 2, at.y - box.y - box.height / 2] as const;
            const times = Math.max(1, Math.min(MOST_ZOOM, now.times * (event.deltaY < 0 ? 1.2 : 1 / 1.2)));
            // The position under the pointer stays under it.
            const under = panned(layout, view, now.focus, -off[0], -off[1]);
            const closer = zoomed(whole, { times, focus: under });
            set(times, panned(closer, view, under, off[0], off[1]));
          },
          onPointerDown: (event: PointerEvent<SVGSVGElement>) => {
            const at = onSheet(event);
            const view = viewAt(at);
            drag.current = zoom && view && event.button === 0 ? { view, ...at, moved: false } : undefined;
          },
          onPointerMove: (event: PointerEvent<SVGSVGElement>) => {
            const from = drag.current;
            if (!from || event.buttons !== 1) return;
            const at = onSheet(event);
            const far = Math.hypot(at.x - from.x, at.y - from.y) > 4;
            if (!from.moved && !far) return;
            drag.current = { view: from.view, ...at, moved: true };
            set(now.times, panned(layout, from.view, now.focus, at.x - from.x, at.y - from.y));
          },
          onPointerUp: () => (drag.current = undefined),
        }
      : {},
  };
}

const DIRECTION: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** The nearest point in the direction of an arrow key, as the plan shows it. */
function neighbour(figure: SheetFigure, from: SheetPoint | undefined, key: string): SheetPoint | undefined {
  const direction = DIRECTION[key];
  if (!direction) return undefined;
  if (!from) return figure.points[0];
  const [ax, ay] = direction;
  const cost = (point: SheetPoint): number => {
    const [dx, dy, dz] = [0, 1, 2].map((i) => point.position[i]! - from.position[i]!) as [number, number, number];
    const along = dx * ax + dy * ay;
    return along <= 1 ? Infinity : along + 2 * Math.abs(dx * ay) + 2 * Math.abs(dy * ax) + 0.3 * Math.abs(dz);
  };
  return figure.points.reduce<SheetPoint | undefined>(
    (best, point) => (cost(point) < (best ? cost(best) : Infinity) ? point : best),
    undefined,
  );
}
