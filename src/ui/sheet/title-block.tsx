import type { SheetPoint } from '@/core/report/drawing/points';
import type { SheetLayout } from '@/core/report/drawing/sheet';
import { Mark } from './mark';

/** Marks and tones side by side need this much, sheet units. */
const ROOM_FOR_TWO = 300;

/** Width of a character of the line that says the factor, sheet units. */
const STRONG_CHARACTER = 6.6;

/** Title, factor and the meaning of the marks, in the free corner above the end view. */
export function TitleBlock({
  layout,
  title,
  factor,
  ghost,
  plain = false,
}: {
  layout: SheetLayout;
  title: readonly string[];
  factor: number;
  ghost?: string;
  /** Without the meaning of marks that are not drawn. */
  plain?: boolean;
}) {
  const x = layout.views.end.x + 12;
  // On a narrow sheet the tones stand below the marks, closer together, not beside them.
  const narrow = layout.width - x < ROOM_FOR_TWO;
  const step = narrow ? 15 : 18;
  const exaggerated = `movements drawn ${factor} times as large`;
  const roomy = layout.width - x > exaggerated.length * STRONG_CHARACTER;
  const below = 24 + 17 * title.length + (narrow ? 19 : 24);
  const key: readonly (readonly [Pick<SheetPoint, 'verdict' | 'control' | 'read'>, string])[] = [
    [{ verdict: 'inside', control: false }, 'inside'],
    [{ verdict: 'outside', control: false }, 'outside'],
    [{ verdict: 'undecided', control: false }, 'undecided'],
    [{ control: false, read: true }, 'read, not judged'],
    [{ control: false }, 'not read'],
    [{ verdict: 'inside', control: true }, 'held as control'],
  ];
  return (
    <g className="font-cond" fontSize={14} fill="currentColor">
      {title.map((line, i) => (
        <text key={line} x={x} y={24 + 17 * i} fontWeight={i === 0 ? 600 : 400} fontSize={i === 0 ? 17 : 14}>
          {line}
        </text>
      ))}
      <text x={x} y={24 + 17 * title.length + 4} fontWeight={600}>
        {plain ? (factor > 0 ? `movement × ${factor}` : '') : roomy ? exaggerated : `movements × ${factor}`}
      </text>
      {(plain ? [] : key).map(([point, word], i) => (
        <g key={word} transform={`translate(${x + 6} ${below + step * i})`}>
          <Mark point={point} />
          <text x={13} y={4}>
            {word}
          </text>
        </g>
      ))}
      <g
        visibility={plain ? 'hidden' : undefined}
        transform={`translate(${narrow ? x : x + 138} ${narrow ? below + step * key.length : below})`}
      >
        <line x2={22} stroke="var(--plus)" strokeWidth={2.6} />
        <text x={28} y={4}>
          rearward, outward, up
        </text>
        <line x2={22} y1={step} y2={step} stroke="var(--minus)" strokeWidth={2.6} />
        <text x={28} y={step + 4}>
          forward, inward, down
        </text>
        {ghost ? (
          <>
            <line x2={22} y1={2 * step} y2={2 * step} stroke="var(--soft)" strokeWidth={1.4} strokeDasharray="3 2" />
            <text x={28} y={2 * step + 4}>
              {ghost}
            </text>
          </>
        ) : null}
      </g>
    </g>
  );
}
