import { useRef, type PointerEvent } from 'react';
import { norm, scale, type Vector } from '@/core/maths/geometry/vector';
import { project, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';

/** A pull as it is drawn: from its place to where its force comes from. */
export interface Arrow {
  readonly id: string;
  readonly code: string;
  readonly from: Vector;
  readonly to: Vector;
  /** Both its ends stand on the shell: it is not turned by hand. */
  readonly fixed?: boolean;
  /** Of a pull only proposed: dashed, and not turned by hand. */
  readonly proposed?: boolean;
  readonly lit?: boolean;
  /** Where its bar goes through further plates. */
  readonly plates?: readonly Vector[];
}

/** What a hand does to a pull on the drawing. */
export interface TurnedBy {
  readonly pick: (id: string) => void;
  /** Its far end was dragged to another place in a view. */
  readonly turn: (id: string, direction: Vector) => void;
}

interface ArrowsProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly arrows: readonly Arrow[];
  readonly on: TurnedBy;
}

/** The two axes a view shows, across and up the paper. */
const AXES: Readonly<Record<ViewName, readonly [number, number]>> = { plan: [0, 1], side: [0, 2], end: [1, 2] };

/** Pulls as struts with a block at their far end: dragged there they turn. */
export const PullArrows = ({ arrows, ...rest }: ArrowsProps) => (
  <g data-pulls={rest.view}>
    {arrows.map((arrow) => (
      <Strut key={arrow.id} arrow={arrow} {...rest} />
    ))}
  </g>
);

function Strut({ arrow, view, layout, on }: Omit<ArrowsProps, 'arrows'> & { readonly arrow: Arrow }) {
  const dragging = useRef(false);
  const still = arrow.proposed === true || arrow.fixed === true;
  const [[x1, y1], [x2, y2]] = [project(layout, view, arrow.from), project(layout, view, arrow.to)];
  const turn = (event: PointerEvent<SVGGElement>) => {
    const svg = event.currentTarget.ownerSVGElement!;
    const box = svg.getBoundingClientRect();
    const [, , width, height] = svg.getAttribute('viewBox')!.split(' ').map(Number) as [number, number, number, number];
    const at = [
      ((event.clientX - box.left) / box.width) * width - x1,
      ((event.clientY - box.top) / box.height) * height - y1,
    ] as const;
    on.turn(arrow.id, turned(arrow, view, layout, at));
  };
  const block = 11;
  return (
    <g
      className={still ? '' : 'cursor-grab touch-none'}
      data-pull={arrow.code}
      onPointerDown={(event) => {
        if (still) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        dragging.current = true;
        on.pick(arrow.id);
      }}
      onPointerMove={(event) => {
        if (dragging.current) turn(event);
      }}
      onPointerUp={() => (dragging.current = false)}
    >
      <line
        {...{ x1, y1, x2, y2 }}
        stroke="var(--ink)"
        strokeWidth={arrow.lit ? 4.5 : 3}
        strokeDasharray={arrow.proposed ? '7 5' : undefined}
      />
      {arrow.plates?.map((plate) => {
        const [x, y] = project(layout, view, plate);
        return (
          <g key={plate.join()}>
            <line x1={x1} y1={y1} x2={x} y2={y} stroke="var(--ink)" strokeWidth={6} strokeOpacity={0.5} />
            <circle cx={x} cy={y} r={3.5} fill="var(--ink)" />
          </g>
        );
      })}
      <circle cx={x1} cy={y1} r={3.5} fill="var(--ink)" />
      <rect
        x={x2 - block / 2}
        y={y2 - block / 2}
        width={block}
        height={block}
        fill={arrow.lit ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={2}
        strokeDasharray={arrow.proposed ? '3 2' : undefined}
      />
      {still ? null : <rect x={x2 - 18} y={y2 - 18} width={36} height={36} fill="transparent" />}
      <text x={x2 + 9} y={y2 - 8} fontSize={13} fontWeight={600} fill="var(--ink)">
        {arrow.code}
      </text>
    </g>
  );
}

/** The direction once its end was dragged: the part this view does not show stays as large as it is. */
function turned(arrow: Arrow, view: ViewName, layout: SheetLayout, [dx, dy]: readonly [number, number]): Vector {
  const line = arrow.to.map((value, k) => value - arrow.from[k]!) as unknown as Vector;
  const unit = scale(line, 1 / (norm(line) || 1));
  const [across, up] = AXES[view];
  // Which way the axes run on the paper is what a step along them does.
  const [x0, y0] = project(layout, view, [0, 0, 0]);
  const step = (axis: number) => project(layout, view, [0, 1, 2].map((k) => (k === axis ? 1 : 0)) as unknown as Vector);
  const [sx, sy] = [Math.sign(step(across)[0] - x0) || 1, Math.sign(step(up)[1] - y0) || -1];
  const size = Math.hypot(dx, dy);
  if (size < 6) return unit;
  const hidden = 3 - across - up;
  const level = Math.sqrt(Math.max(0, 1 - unit[hidden]! ** 2));
  const next: [number, number, number] = [0, 0, 0];
  next[across] = (level * sx * dx) / size;
  next[up] = (level * sy * dy) / size;
  next[hidden] = unit[hidden]!;
  return next;
}
