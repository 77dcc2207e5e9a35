import type { Vector } from '@/core/maths/geometry/vector';
import { project, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';

interface GhostProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  /** Members where they would stand. */
  readonly moved: readonly (readonly [Vector, Vector])[];
}

/** Members where they would stand, over those that stand. */
export function Ghost({ view, layout, moved }: GhostProps) {
  return (
    <g stroke="var(--plus)" strokeWidth={1.3} strokeDasharray="6 3" opacity={0.85} data-ghost={view}>
      {moved.map(([a, b], i) => {
        const [[x1, y1], [x2, y2]] = [project(layout, view, a), project(layout, view, b)];
        return <line key={i} {...{ x1, y1, x2, y2 }} />;
      })}
    </g>
  );
}
