import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { PullingPage, PullPicture } from '@/core/report/pages/pulling';
import { useFormat } from '../shell/preferences-context';
import { nodeIn, type Shape } from './shape';

interface CompareProps {
  readonly page: PullingPage;
  readonly picture: PullPicture;
  readonly plans: readonly { readonly title: string; readonly stays: Shape }[];
}

/** A point that comes to stand so much further off is made worse, mm. */
const WORSE = 0.5;

const plus = (a: Vector, b: Vector): Vector => a.map((value, k) => value + b[k]!) as unknown as Vector;

/** How far each point that is out would be, by each of the plans. */
export function ComparePlans({ page, picture, plans }: CompareProps) {
  const format = useFormat();
  if (picture.wanted.length === 0 || plans.length === 0) return null;
  const code = (id: string) => page.points.find((point) => point.id === id)?.code ?? '';
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="What the plans leave">
      <table className="ruled max-w-3xl">
        <thead>
          <tr>
            <th>Point</th>
            <th className="num">Out now {format.unit}</th>
            <th className="num">Limit</th>
            {plans.map(({ title }) => (
              <th key={title} className="num">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {picture.wanted.map(({ pointId, node, move, limit, isOut, leavesWith }) => {
            const now: Vector = [-move[0], -move[1], -move[2]];
            const leaves = plans.map(({ stays }) => plus(now, nodeIn(stays, node)));
            const isInside = (by: Vector) => by.every((each) => Math.abs(each) <= limit);
            // What is undecided is told only where a plan takes it out.
            if (!isOut && !leaves.some((by) => !isInside(by) && norm(by) > norm(now) + WORSE)) return null;
            return (
              <tr key={pointId}>
                <td>
                  {code(pointId)}
                  <span className="text-soft">
                    {isOut ? '' : ' undecided now'}
                    {leavesWith ? ` leaves with “${format.name(leavesWith.part)}”` : ''}
                  </span>
                </td>
                <td className="num">{format.length(norm(move))}</td>
                <td className="num">{format.length(limit)}</td>
                {leaves.map((by, i) => (
                  <td key={plans[i]!.title} className="num">
                    {format.length(norm(by))} {isInside(by) ? <span className="text-soft">inside</span> : null}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
