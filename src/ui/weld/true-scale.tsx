import type { LaidOut } from '@/core/plan/weld-order/layout';
import type { SeamPlan } from '@/core/report/pages/welding';
import { useFormat } from '../shell/preferences-context';

/** What fits across a sheet of paper, and the margin a register mark stands in, mm. */
const ACROSS = 170;
const MARGIN = 8;
const HIGH = 34;
const LINE = 18;

interface TrueScaleProps {
  readonly plan: SeamPlan;
  readonly turns: readonly { readonly place: LaidOut; readonly turn: number }[];
}

/**
 * The seam at true scale, in pieces that fit a sheet of paper: a cross at each end of a piece lies on the cross of the next.
 * A bar of a hundred millimetres shows whether the printer kept the scale.
 */
export function TrueScale({ plan, turns }: TrueScaleProps) {
  const format = useFormat();
  const { long } = plan.seam;
  const pieces = Math.ceil(long / ACROSS);
  return (
    <section aria-label="At true scale" className="flex flex-col gap-3">
      <h2 className="text-lg">At true scale</h2>
      <p className="text-sm text-soft">
        Print without fitting to the page. The bar is {format.thin(100)} {format.unit} long: measure it before the strip
        is used. Cross lies on cross.
      </p>
      <svg width="104mm" height="8mm" viewBox="0 0 104 8" role="img" aria-label={`A bar ${format.thin(100)} long`}>
        <path d="M2 1v6M102 1v6M2 4h100" stroke="black" strokeWidth={0.3} fill="none" />
      </svg>
      <div className="flex flex-col gap-2 overflow-x-auto" tabIndex={0} role="group" aria-label="Pieces of the strip">
        {Array.from({ length: pieces }, (_, piece) => {
          const from = piece * ACROSS;
          const to = Math.min(long, from + ACROSS);
          const x = (along: number) => MARGIN + along - from;
          return (
            <svg
              key={piece}
              width={`${ACROSS + 2 * MARGIN}mm`}
              height={`${HIGH}mm`}
              viewBox={`0 0 ${ACROSS + 2 * MARGIN} ${HIGH}`}
              className="shrink-0 break-inside-avoid bg-white"
              role="img"
              aria-label={`Piece ${piece + 1} of ${pieces}`}
              stroke="black"
              strokeWidth={0.3}
              fill="none"
            >
              {[from, to].map((at) => (
                <path key={at} d={`M${x(at) - 4} ${LINE}h8M${x(at)} ${LINE - 8}v16`} />
              ))}
              <path d={`M${x(from)} ${LINE}H${x(to)}`} />
              {turns
                .filter(({ place: { along } }) => along >= from && along < to + 1e-9)
                .map(({ place: { along, size, number }, turn }) => (
                  <g key={number}>
                    {plan.seam.kind === 'plug' || plan.seam.kind === 'spot' ? (
                      <circle cx={x(along)} cy={LINE} r={size / 2} />
                    ) : (
                      <path d={`M${x(along) - size / 2} ${LINE - 2}v4M${x(along) + size / 2} ${LINE - 2}v4`} />
                    )}
                    <path d={`M${x(along)} ${LINE - 1.5}v3`} />
                    <text x={x(along)} y={LINE - 8} textAnchor="middle" fontSize={4} stroke="none" fill="black">
                      {turn}
                    </text>
                    <text x={x(along)} y={LINE + 11} textAnchor="middle" fontSize={2.6} stroke="none" fill="black">
                      {format.thin(along)}
                    </text>
                  </g>
                ))}
              <text x={MARGIN} y={HIGH - 1} fontSize={2.6} stroke="none" fill="black">
                {piece + 1} / {pieces}
              </text>
            </svg>
          );
        })}
      </div>
    </section>
  );
}
