import { useState } from 'react';
import { angleText } from '@/core/maths/units/angle';
import { liftOn, type LiftFault } from '@/core/plan/set-up/lifting';
import { weightOf } from '@/core/report/pages/set-up';
import { parseLength } from '@/core/maths/units/length';
import { typedUnit } from '@/formats/preferences';
import { TextField } from '../kit/field';
import { usePreferences } from '../shell/preferences-context';
import type { InHand } from './in-hand';

const USUAL = 1800;
const FIRST = 4;

/** What lifting the shell at the first mounts asks of the sling, and what to read once it stands again. */
export function Lifting({ page, planned, plan, words }: InHand) {
  const { format, preferences } = usePreferences();
  const [typed, type] = useState(() => format.length(USUAL));
  const height = parseLength(typed, typedUnit(preferences));
  const places = new Map(page.points.map((point) => [point.id, point.at]));
  const points = plan.mounts.slice(0, FIRST).flatMap(({ id, pointId, x, y, z }) => {
    const at =
      (pointId && places.get(pointId)) || (x === null || y === null || z === null ? undefined : ([x, y, z] as const));
    return at ? [{ id, at }] : [];
  });
  if (points.length === 0) return null;
  const weight = weightOf(planned.setUp, page.estimated);
  const lifted = height.ok && height.mm > 0 ? liftOn(points, weight, height.mm) : undefined;
  const faultText = (fault: LiftFault): string => {
    if (fault.kind === 'tooFew') return `lift at three points or more: ${fault.there} planned`;
    if (fault.kind === 'outside')
      return `the weight hangs ${words.length(fault.by)} outside of these points: the shell would turn over`;
    return `the leg to ${words.mount(fault.id)} would hang ${angleText(fault.angle)} from upright: hang the hook higher`;
  };
  return (
    <details className="no-print">
      <summary className="min-h-11 cursor-pointer content-center text-xl">Lifting at these points</summary>
      <div className="flex flex-col gap-3">
        <div className="w-64">
          <TextField
            label={`Hook over the highest point, ${format.unit}`}
            value={typed}
            error={height.ok ? undefined : height.reason}
            onChange={(event) => type(event.target.value)}
          />
        </div>
        {lifted?.ok ? (
          <>
            <p>
              Hang the hook {words.length(lifted.lift.hook[0])} behind the chart’s zero, over the middle: the weight is{' '}
              {words.length(lifted.lift.inside)} inside of the points.
            </p>
            <table className="ruled self-start">
              <thead>
                <tr>
                  <th>Leg to</th>
                  <th className="num">Length {format.unit}</th>
                  <th className="num">Shares kg</th>
                  <th className="num">Rated for kg</th>
                  <th className="num">From upright</th>
                </tr>
              </thead>
              <tbody>
                {lifted.lift.legs.map((leg) => (
                  <tr key={leg.id}>
                    <td className="font-medium">{words.mount(leg.id)}</td>
                    <td className="num">{format.length(leg.length)}</td>
                    <td className="num">{Math.round(leg.kilograms)}</td>
                    <td className="num">{Math.ceil(leg.rating)}</td>
                    <td className="num">{angleText(leg.angle)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        ) : lifted ? (
          <p role="alert" className="text-minus">
            {faultText(lifted.fault)}
          </p>
        ) : null}
        <p className="border-l-2 border-ink pl-3 text-sm">
          Nobody under a hanging shell. Rated slings and shackles, edges padded, lifted a hand’s breadth first and
          looked at; two legs may carry everything. Afterwards read the four heights and both floor diagonals again,
          before anything is judged. What the maker and local rules say of lifting decides.
        </p>
      </div>
    </details>
  );
}
