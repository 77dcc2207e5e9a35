import type { SeamJudgement, StationJudgement } from '@/core/round/judge/seams';
import { useFormat } from '../shell/preferences-context';
import { Mark } from '../sheet/mark';

const WIDTH = 480;
const EDGE = 56;
/** From the middle of the drawing to where a seam is as wide as it should be, and so much for each millimetre it is not. */
const OUT = 58;
const PER_MM = 11;
/** What is further out than this is drawn at it, mm. */
const MOST = 3;

interface RibbonProps {
  /** The left above the middle and the right below it, mirrored; or one seam alone. */
  readonly sides: readonly SeamJudgement[];
}

const of = ({ stations }: SeamJudgement, quantity: StationJudgement['quantity']) =>
  stations.filter((each) => each.quantity === quantity);
const clipped = (mm: number): number => Math.min(MOST, Math.max(-MOST, mm));

/**
 * Gap and flush along a seam against what is wanted: outward is wider, or proud. Both sides are mirrored at the middle, so that a
 * shell that is even draws an even picture.
 */
export function SeamRibbon({ sides }: RibbonProps) {
  const drawn = sides.filter((side) => side.stations.some(({ judged }) => judged));
  if (drawn.length === 0) return null;
  const half = OUT + MOST * PER_MM + 14;
  const middle = half;
  const height = drawn.length > 1 ? 2 * half : half + 18;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="my-1 w-full max-w-xl border border-faint bg-sheet"
      role="img"
      aria-label={`Gap and flush along ${drawn.map(({ seam }) => seam.code).join(' and ')}, against what is wanted`}
    >
      <line x1={EDGE} x2={WIDTH - 16} y1={middle} y2={middle} stroke="var(--rule)" />
      {drawn.map((side, i) => (
        <Trace key={side.seam.id} side={side} middle={middle} way={i === 0 ? -1 : 1} />
      ))}
    </svg>
  );
}

interface TraceProps {
  readonly side: SeamJudgement;
  readonly middle: number;
  readonly way: 1 | -1;
}

function Trace({ side, middle, way }: TraceProps) {
  const format = useFormat();
  const [gaps, flushes] = [of(side, 'gap'), of(side, 'flush')];
  const limit = clipped(gaps.find(({ target }) => target)?.target?.limit ?? 0);
  const x = (i: number) => EDGE + 14 + (i * (WIDTH - EDGE - 44)) / Math.max(1, gaps.length - 1);
  const y = (mm: number) => middle + way * (OUT + clipped(mm) * PER_MM);
  const line = (list: readonly StationJudgement[]) =>
    list.flatMap(({ judged }, i) => (judged ? [`${x(i)},${y(judged.deviation)}`] : [])).join(' ');
  const band = [y(limit), y(-limit)] as const;
  return (
    <g>
      <rect
        x={EDGE}
        width={WIDTH - EDGE - 16}
        y={Math.min(...band)}
        height={Math.abs(band[1] - band[0])}
        fill="var(--faint)"
      />
      <line x1={EDGE} x2={WIDTH - 16} y1={y(0)} y2={y(0)} stroke="var(--rule)" strokeDasharray="2 4" />
      <polyline points={line(flushes)} fill="none" stroke="var(--ink)" strokeWidth={1.4} strokeDasharray="6 4" />
      <polyline points={line(gaps)} fill="none" stroke="var(--ink)" strokeWidth={3} />
      {gaps.map(({ judged, station }, i) => (
        <g key={station.id}>
          {judged ? (
            <g transform={`translate(${x(i)} ${y(judged.deviation)})`}>
              <Mark point={{ verdict: judged.verdict, control: false, read: true }} r={5} />
            </g>
          ) : null}
          <text x={x(i)} y={middle + way * 12 + 4} fontSize={11} textAnchor="middle" fill="var(--soft)">
            {judged ? format.difference(judged.deviation) : '–'}
          </text>
        </g>
      ))}
      <text x={8} y={y(0) + 4} fontSize={13} fontWeight={600} fill="var(--ink)">
        {side.seam.code}
      </text>
    </g>
  );
}
