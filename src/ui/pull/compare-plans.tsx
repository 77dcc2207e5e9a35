import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { PullingAdvice, PullingPage, PullPicture } from '@/core/report/pages/pulling';
import { useFormat } from '../shell/preferences-context';
import { nodeIn, type Shape } from './shape';

interface CompareProps {
  readonly page: PullingPage;
  readonly picture: PullPicture;
  readonly planned: Shape;
  readonly hasPlan: boolean;
  readonly advice: PullingAdvice | undefined;
}

/** A point that comes to stand so much further off is made worse, mm. */
const WORSE = 0.5;

const plus = (a: Vector, b: Vector): Vector => a.map((value, k) => value + b[k]!) as unknown as Vector;

/** How far each point that is out would be, by the planned pulls and by those proposed. */
export function ComparePlans({ page, picture, planned, hasPlan, advice }: CompareProps) {
  const format = useFormat();
  if (picture.wanted.length === 0 || (!hasPlan && !advice)) return null;
  const code = (id: string) => page.points.find((point) => point.id === id)?.code ?? '';
  const out = (by: Vector, limit: number) => (
    <>
      {format.length(norm(by))} {norm(by) <= limit ? <span className="text-soft">inside</span> : null}
    </>
  );
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="What the plans leave">
      <table className="ruled max-w-3xl">
        <thead>
          <tr>
            <th>Point</th>
            <th className="num">Out now {format.unit}</th>
            <th className="num">Limit</th>
            {hasPlan ? <th className="num">Planned pulls leave</th> : null}
            {advice ? <th className="num">{hasPlan ? 'With those proposed' : 'Proposed pulls leave'}</th> : null}
          </tr>
        </thead>
        <tbody>
          {picture.wanted.map(({ pointId, node, move, limit, isOut, leavesWith }) => {
            const now: Vector = [-move[0], -move[1], -move[2]];
            const theirs = advice?.points.find((each) => each.pointId === pointId);
            const leaves = [plus(now, nodeIn(planned, node)), ...(theirs ? [theirs.after] : [])].map(norm);
            // What is undecided is told only where a plan takes it out.
            if (!isOut && !leaves.some((left) => left > limit && left > norm(now) + WORSE)) return null;
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
                {hasPlan ? <td className="num">{out(plus(now, nodeIn(planned, node)), limit)}</td> : null}
                {advice ? <td className="num">{theirs ? out(theirs.after, limit) : '–'}</td> : null}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
