import type { PullProgress } from '@/core/findings/brace-pull';
import type { PullingPage } from '@/core/report/pages/pulling';
import { QUANTITY_WORD } from '@/core/report/vocabulary/words';
import { useFormat } from '../shell/preferences-context';

interface CycleProps {
  readonly points: PullingPage['points'];
  readonly progress: readonly PullProgress[];
}

/** The readings of a pull, stroke by stroke: under load, released, what came home and what stayed. */
export function CycleTable({ points, progress }: CycleProps) {
  const format = useFormat();
  const code = (id: string | null) => points.find((point) => point.id === id)?.code;
  const optional = (value: number | undefined, difference = true) =>
    value === undefined ? '–' : difference ? format.difference(value) : format.length(value);
  if (progress.length === 0) return <p className="text-soft">Not read yet.</p>;
  return (
    <table className="ruled mt-1 max-w-3xl">
      <thead>
        <tr>
          <th>Read</th>
          <th className="num">Before</th>
          <th className="num">Under load</th>
          <th className="num">Released</th>
          <th className="num">Spring-back</th>
          <th className="num">Gained</th>
          <th className="num">Left {format.unit}</th>
        </tr>
      </thead>
      <tbody>
        {progress.flatMap(({ subject, before, cycles, left }, i) =>
          cycles.map((cycle, k) => (
            <tr key={`${i}-${k}`}>
              <td>
                {[code(subject.pointId), code(subject.toPointId)].filter(Boolean).join(' – ')}{' '}
                {QUANTITY_WORD[subject.quantity]}
                {cycles.length > 1 ? `, ${k + 1}` : ''}
              </td>
              <td className="num">{optional(before, false)}</td>
              <td className="num">{optional(cycle.underLoad, false)}</td>
              <td className="num">{optional(cycle.released, false)}</td>
              <td className="num font-medium">{optional(cycle.springBack)}</td>
              <td className="num">{optional(cycle.gained)}</td>
              <td className="num">{k === cycles.length - 1 ? optional(left) : ''}</td>
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}
