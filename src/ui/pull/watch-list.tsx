import type { WatchedStroke } from '@/core/plan/pulls/worked-pull';
import { AXIS_WORD, directionWord } from '@/core/report/vocabulary/words';
import { useFormat } from '../shell/preferences-context';

interface WatchProps {
  readonly stroke: WatchedStroke;
  readonly codeOf: (pointId: string) => string;
}

const AXES = ['x', 'y', 'z'] as const;

/** What is read while a pull is on, what must not change, and where to stop. */
export function WatchList({ stroke: { watch, lengths }, codeOf }: WatchProps) {
  const format = useFormat();
  if (watch.length === 0 && lengths.length === 0) return null;
  const way = (axis: number, by: number) => `${format.length(Math.abs(by))} ${directionWord(AXES[axis]!, by)}`;
  return (
    <section className="flex min-w-0 flex-col gap-1" aria-label="Watch in this stroke">
      <h3 className="caps">Watch in this stroke, from where it stands now</h3>
      {watch.length > 0 ? (
        <table className="ruled">
          <thead>
            <tr>
              <th>Read</th>
              <th>Under load {format.unit}</th>
              <th>Stays</th>
              <th>Stop at</th>
            </tr>
          </thead>
          <tbody>
            {watch.map(({ pointId, axis, loaded, stays, wanted, stop }) => (
              <tr key={pointId} data-watch={codeOf(pointId)}>
                <td>
                  {codeOf(pointId)} {AXIS_WORD[AXES[axis]!]}
                  {wanted ? '' : <strong> must stay</strong>}
                </td>
                <td>{way(axis, loaded)}</td>
                <td>{way(axis, stays)}</td>
                <td className="font-medium">{way(axis, stop)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {watch.some(({ wanted }) => !wanted) ? (
        <p className="text-sm text-soft">
          Where one that must stay comes to its stop: pump no further, let go, hold the shell there too, begin again.
        </p>
      ) : null}
      {lengths.length > 0 ? (
        <ul className="text-sm text-soft">
          {lengths.map(({ code, name, loaded, stays }) => (
            <li key={`${code} ${name}`}>
              {[code, format.name(name)].filter(Boolean).join(', ')}: {format.difference(loaded)} under load,{' '}
              {format.difference(stays)} stays. Watch it.
            </li>
          ))}
        </ul>
      ) : null}
    </section>
  );
}
