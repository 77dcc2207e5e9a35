'use client';

import type { Tables } from '@/core/shell/job/job-rows';
import type { Movement } from '@/core/findings/movement';
import { useFormat } from '../shell/preferences-context';

/** What a significant change is called: other supports or instruments can look like movement. */
export const movedWord = ({ cautions }: Movement): string =>
  cautions.includes('support') || cautions.includes('suspension')
    ? 'moved or differently supported'
    : cautions.includes('instrument')
      ? 'moved or differently measured'
      : 'moved';

/** The points of both rounds, each tested against those that stayed congruent. */
export function PointsMoved({
  rows,
  movement,
  limits,
}: {
  rows: Tables<'points'>;
  movement: Movement;
  limits: ReadonlyMap<string, number>;
}) {
  const format = useFormat();
  const { points } = movement;
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  if (!points.ok)
    return (
      <p role="note" className="border-l-4 border-rule px-3 py-1">
        Points cannot be compared: {points.reason}.
      </p>
    );
  const word = movedWord(movement);
  const moved = points.tests.filter((test) => test.moved);
  const tests = [...points.tests].sort((a, b) => b.chiSquare - a.chiSquare);
  return (
    <section aria-label="Points between the rounds" className="flex flex-col gap-1" data-points-moved={moved.length}>
      <h2 className="text-xl">Did points move?</h2>
      <p>
        {moved.length === 0
          ? 'No point changed by more than the readings explain.'
          : `${moved.map(({ id }) => codeOf.get(id)).join(', ')} ${word}.`}{' '}
        <span className="text-soft">
          The rounds are laid on each other by the {points.stable.length} points that kept their places among
          themselves, so that a shift or tilt of the whole shell does not count. Of unmoved shells one in twenty would
          show any point as moved.
        </span>
      </p>
      <details open={moved.length > 0}>
        <summary className="flex min-h-11 cursor-pointer items-center font-cond text-lg">
          Points located in both rounds ({points.tests.length})
        </summary>
        <table className="ruled max-w-4xl">
          <thead>
            <tr>
              <th>Point</th>
              <th className="num">{points.axes === 'chart' ? 'Length' : 'x'}</th>
              <th className="num">{points.axes === 'chart' ? 'Width' : 'y'}</th>
              <th className="num">
                {points.axes === 'chart' ? 'Height' : 'z'} {format.unit}
              </th>
              <th className="num">Worst ±</th>
              <th className="num">Limit</th>
              <th className="num">By chance</th>
              <th>More than noise</th>
              <th>Taken as stable</th>
            </tr>
          </thead>
          <tbody>
            {tests.map((test) => (
              <tr key={test.id} data-code={codeOf.get(test.id)} data-moved={test.moved}>
                <td>{codeOf.get(test.id)}</td>
                {test.change.map((value, i) => (
                  <td key={i} className="num">
                    {format.difference(value)}
                  </td>
                ))}
                <td className="num text-soft">
                  {format.length(
                    2 * Math.sqrt(Math.max(test.covariance[0]!, test.covariance[4]!, test.covariance[8]!)),
                  )}
                </td>
                <td className="num text-soft">{limits.has(test.id) ? format.length(limits.get(test.id)!) : ''}</td>
                <td className="num text-soft">
                  {test.probability < 0.001 ? '< 0.1 %' : `${(100 * test.probability).toFixed(1)} %`}
                </td>
                <td>{test.moved ? <strong>{word}</strong> : <span className="text-soft">no</span>}</td>
                <td>{test.stable ? 'yes' : ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}
