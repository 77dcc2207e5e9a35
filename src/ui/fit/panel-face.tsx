import type { HangPlan } from '@/core/plan/panels/hang';
import type { Figures } from '@/core/plan/panels/seat';
import { judge } from '@/core/maths/statistics/verdict';
import type { CalledPanel } from '@/core/shell/job/entities';
import { useFormat } from '../shell/preferences-context';
import { Mark } from '../sheet/mark';

/** The panel's longer way on the drawing, and what is left round it for gaps and figures. */
const LONG = 400;
const ROUND = 92;
/** The same on a way on which no seam runs. */
const BARE = 22;
/** Where a gap as wanted is drawn from the panel's edge, and so much for each millimetre it is not. */
const OUT = 30;
const PER_MM = 10;
/** What is further out than this is drawn at it, mm. */
const MOST = 4;

const clipped = (mm: number): number => Math.min(MOST, Math.max(-MOST, mm));

interface FaceProps {
  readonly panel: CalledPanel;
  readonly plan: HangPlan;
  /** Gaps as they would be. */
  readonly figures: readonly Figures[];
  readonly values: readonly number[];
}

/**
 * A panel seen from outside with what lies round it: each gap's edge drawn as far from the panel as it is from what is wanted,
 * many times larger. Dotted is as wanted, thin as it was read, strong as it would be; the squares are where it can be set.
 */
export function PanelFace({ panel, plan, figures, values }: FaceProps) {
  const format = useFormat();
  const scale = LONG / Math.max(panel.long, panel.high);
  const round = [0, 1].map((k) => (plan.stations.some(({ place: { normal } }) => normal[k] !== 0) ? ROUND : BARE));
  const [width, height] = [panel.long * scale + 2 * round[0]!, panel.high * scale + 2 * round[1]!];
  // Front is on the left of a door seen from its left side, and on the right of one seen from its right.
  const flip =
    panel.side === 'right' && (panel.kind === 'door' || panel.kind === 'wing' || panel.kind === 'skin') ? -1 : 1;
  const at = (x: number, y: number) => [width / 2 + flip * x * scale, height / 2 - y * scale] as const;
  const edges = [...new Set(plan.stations.map(({ place: { normal } }) => normal.join(' ')))];
  const lineOf = (edge: string, off: (i: number) => number) =>
    plan.stations
      .flatMap(({ place }, i) => (place.normal.join(' ') === edge ? [out(place, off(i)).join(',')] : []))
      .join(' ');
  const out = ({ x, y, normal }: HangPlan['stations'][number]['place'], mm: number) => {
    const [px, py] = at(x, y);
    const away = OUT + PER_MM * clipped(mm);
    return [px + flip * normal[0] * away, py - normal[1] * away] as const;
  };
  const [left, top] = [Math.min(at(-panel.long / 2, 0)[0], at(panel.long / 2, 0)[0]), at(0, panel.high / 2)[1]];
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="w-full border border-faint bg-sheet"
      role="img"
      aria-label={`${panel.code} with the gaps round it, exaggerated`}
      data-face={panel.code}
    >
      <rect
        x={left}
        y={top}
        width={panel.long * scale}
        height={panel.high * scale}
        fill="var(--faint)"
        stroke="var(--ink)"
        strokeWidth={1.6}
      />
      <text x={width / 2} y={height / 2 + 5} fontSize={16} textAnchor="middle" fill="var(--ink)">
        {format.name(panel.name)}
      </text>
      <text x={width / 2} y={height / 2 + 26} fontSize={12} textAnchor="middle" fill="var(--soft)">
        {panel.kind === 'tailgate' ? '◄ left' : flip > 0 ? '◄ front' : 'front ►'}
      </text>
      {[...new Map(plan.stations.map((each) => [each.seam.id, each])).values()].map(({ seam, place: { normal } }) => (
        <text
          key={seam.id}
          x={width / 2 + flip * normal[0] * (width / 2 - round[0]! - 22)}
          y={height / 2 - normal[1] * (height / 2 - round[1]! - 18) + 5}
          fontSize={14}
          fontWeight={600}
          textAnchor="middle"
          fill="var(--ink)"
        >
          {seam.code}
        </text>
      ))}
      {edges.map((edge) => (
        <g key={edge} fill="none">
          <polyline points={lineOf(edge, () => 0)} stroke="var(--rule)" strokeDasharray="2 4" />
          <polyline points={lineOf(edge, (i) => deviation(plan, i))} stroke="var(--soft)" strokeWidth={1} />
          <polyline points={lineOf(edge, (i) => deviation(plan, i, figures))} stroke="var(--ink)" strokeWidth={2.6} />
        </g>
      ))}
      {plan.stations.map(({ stationId, place, gap }, i) => {
        const off = deviation(plan, i, figures);
        const [x, y] = out(place, off);
        const [tx, ty] = out(place, MOST + 1.2);
        return (
          <g key={stationId}>
            <g transform={`translate(${x} ${y})`}>
              <Mark point={{ verdict: judge(off, gap.sd, gap.limit).verdict, control: false, read: true }} r={4.5} />
            </g>
            <text x={tx} y={ty + 4} fontSize={12} textAnchor="middle" fill="var(--soft)">
              {format.thin(off, true)}
            </text>
          </g>
        );
      })}
      {plan.settings.flatMap(({ id, x, y, along }, i) => {
        if (!along) return [];
        const [px, py] = at(x, y);
        const isSet = Math.abs(values[i]!) > 0.005;
        return [
          <rect
            key={id}
            x={px - 5}
            y={py - 5}
            width={10}
            height={10}
            fill={isSet ? 'var(--ink)' : 'var(--sheet)'}
            stroke="var(--ink)"
          />,
        ];
      })}
    </svg>
  );
}

const deviation = ({ stations }: HangPlan, i: number, figures?: readonly Figures[]): number =>
  (figures ? figures[i]!.gap : stations[i]!.gap.now) - stations[i]!.gap.target;
