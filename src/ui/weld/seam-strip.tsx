import type { SeamPlan } from '@/core/report/pages/welding';
import { isLaid } from '@/core/report/pages/welding';
import { heatAt, type WeldPlan } from '@/core/plan/weld-order/schools';
import { numbersOf } from './chosen';
import { useFormat } from '../shell/preferences-context';

const WIDTH = 1000;
const EDGE = 40;
const LINE = 58;
const HEIGHT = 116;
/** As warm as this is drawn fullest, K. */
export const FULLEST = 300;

interface StripProps {
  readonly plan: SeamPlan;
  readonly by: WeldPlan;
  /** A moment of the welding, s. */
  readonly now: number;
}

/**
 * A seam along a line with its places, numbered in the order they are laid: an empty ring still to come, a full one laid, a
 * bar across where it is ticked; how warm each place is at this moment as a tone behind it.
 */
export function SeamStrip({ plan, by, now }: StripProps) {
  const format = useFormat();
  const { seam, layout, stretches, task } = plan;
  const x = (along: number) => EDGE + ((WIDTH - 2 * EDGE) * along) / seam.long;
  const laid = by.order.filter(({ begun, plug }) => begun + task.plugs[plug]!.seconds <= now);
  const heat = heatAt(task, laid, now);
  const turn = numbersOf(by);
  const there = new Set(laid.map(({ plug }) => plug));
  const few = layout.places.length <= 40;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full border border-faint bg-sheet"
      role="img"
      aria-label={`${layout.places.length} places along the seam, ${laid.length} laid at this moment`}
    >
      {stretches.map(({ id, what, starts, ends }) => (
        <g key={id}>
          <rect
            x={x(starts) - (what === 'corner' ? 1 : 0)}
            y={LINE - 20}
            width={Math.max(2, x(ends) - x(starts))}
            height={40}
            fill={what === 'corner' ? 'var(--ink)' : 'none'}
            stroke="var(--soft)"
            strokeDasharray="4 3"
          />
          <text x={x((starts + ends) / 2)} y={LINE + 34} textAnchor="middle" fontSize={12} fill="var(--soft)">
            {what}
          </text>
        </g>
      ))}
      {layout.places.map(({ along }, i) => (
        <circle
          key={`heat ${along}`}
          cx={x(along)}
          cy={LINE}
          r={22}
          fill="var(--ink)"
          opacity={0.5 * Math.min(1, heat[i]! / FULLEST)}
        />
      ))}
      <line x1={x(0)} x2={x(seam.long)} y1={LINE} y2={LINE} stroke="var(--ink)" strokeWidth={2} />
      {layout.places.map(({ along, size, number }, i) => {
        const stitch = seam.kind !== 'plug' && seam.kind !== 'spot';
        const half = stitch ? ((WIDTH - 2 * EDGE) * size) / seam.long / 2 - 2 : 7;
        return (
          <g key={number} data-place={number} data-laid={there.has(i)}>
            {stitch ? (
              <rect
                x={x(along) - half}
                y={LINE - 5}
                width={2 * half}
                height={10}
                fill={there.has(i) ? 'var(--ink)' : 'var(--sheet)'}
                stroke="var(--ink)"
              />
            ) : (
              <circle
                cx={x(along)}
                cy={LINE}
                r={half}
                fill={there.has(i) ? 'var(--ink)' : 'var(--sheet)'}
                stroke="var(--ink)"
                strokeWidth={1.5}
              />
            )}
            {isLaid(plan, along) ? (
              <line x1={x(along)} x2={x(along)} y1={LINE - 16} y2={LINE + 16} stroke="var(--ink)" strokeWidth={2} />
            ) : null}
            {few || turn.get(i)! % 5 === 1 ? (
              <text x={x(along)} y={LINE - 26} textAnchor="middle" fontSize={15} fill="var(--ink)">
                {turn.get(i)}
              </text>
            ) : null}
          </g>
        );
      })}
      <text x={x(0)} y={HEIGHT - 6} fontSize={12} fill="var(--soft)">
        first end
      </text>
      <text x={x(seam.long)} y={HEIGHT - 6} fontSize={12} textAnchor="end" fill="var(--soft)">
        last end, {format.thin(seam.long)} {format.unit}
      </text>
    </svg>
  );
}
