import type { Box } from '@/core/report/drawing/labels';
import { gridStep, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';
import { MM_PER, type LengthStyle } from '@/core/maths/units/length';
import { useFormat } from '../shell/preferences-context';

/** Width of a character of the small words on the sheet, sheet units. */
export const SMALL_CHARACTER = 6;

/** Lines of the grid from one place on the sheet to another, with the round numbers they stand at. */
function gridLines(
  layout: SheetLayout,
  unit: LengthStyle['unit'],
  [from, to]: readonly [number, number],
  zero: number,
) {
  const step = gridStep(layout, unit);
  const apart = step * MM_PER[unit] * layout.scale;
  const first = Math.ceil((from - zero) / apart);
  const count = Math.floor((to - zero) / apart) - first + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => ({
    number: (first + i) * step,
    at: zero + (first + i) * apart,
  }));
}

function linesAcross(layout: SheetLayout, view: ViewName, unit: LengthStyle['unit']) {
  const { x, width, origin } = layout.views[view];
  return gridLines(layout, unit, [x + 4, x + width - 4], origin[0]);
}

/** The ruler along the head of the side view: its numbers, the last with their unit, and the middle of each. */
const rulerOf = (layout: SheetLayout, view: ViewName, unit: LengthStyle['unit']) =>
  view === 'side'
    ? linesAcross(layout, view, unit)
        .slice(1, -1)
        .map(({ number, at }, i, { length }) => ({
          text: `${number < 0 ? '−' : ''}${Math.abs(number)}${i === length - 1 ? ` ${unit}` : ''}`,
          at,
        }))
    : [];

/** Where its numbers are written. */
export const rulerBoxes = (layout: SheetLayout, view: ViewName, unit: LengthStyle['unit']): Box[] =>
  rulerOf(layout, view, unit).map(({ text, at }) => {
    const width = text.length * SMALL_CHARACTER;
    return { x: at - width / 2, y: layout.views[view].y, width, height: 13 };
  });

/** The zero planes drawn, and thin lines parallel to them with their distances in the user's unit. */
export function Grid({ view, layout }: { view: ViewName; layout: SheetLayout }) {
  const { x, y, width, height, origin } = layout.views[view];
  const { unit } = useFormat();
  const across = linesAcross(layout, view, unit);
  // What stands on it is taken hold of through it: a pull of the plan may reach down to the ruler.
  return (
    <g pointerEvents="none">
      <g stroke="var(--faint)" strokeWidth={1}>
        {across.map(({ at }) => (
          <line key={at} x1={at} x2={at} y1={y + 4} y2={y + height - 4} />
        ))}
        {gridLines(layout, unit, [y + 4, y + height - 4], origin[1]).map(({ at }) => (
          <line key={at} y1={at} y2={at} x1={x + 4} x2={x + width - 4} />
        ))}
      </g>
      <g stroke="var(--soft)" strokeWidth={0.8} strokeDasharray="12 3 2 3">
        {origin[0] > x && origin[0] < x + width ? (
          <line x1={origin[0]} x2={origin[0]} y1={y + 4} y2={y + height - 4} />
        ) : null}
        {origin[1] > y && origin[1] < y + height ? (
          <line y1={origin[1]} y2={origin[1]} x1={x + 4} x2={x + width - 4} />
        ) : null}
      </g>
      {view === 'side' ? (
        <g fill="var(--soft)" fontSize={11} textAnchor="middle" className="font-cond">
          {rulerOf(layout, view, unit).map(({ text, at }) => (
            <text key={at} x={at} y={y + 10}>
              {text}
            </text>
          ))}
        </g>
      ) : null}
    </g>
  );
}
