import { angleText } from '@/core/maths/units/angle';
import { useFormat } from '../shell/preferences-context';
import type { InHand } from './in-hand';

/** The line on the floor from two plumb marks, and where every stand is by it: by a square, or where two tapes cross. */
export function FloorLineCard({ page, planned: { line, setUp }, words }: InHand) {
  const format = useFormat();
  if (!line) return null;
  const code = new Map(page.gauges.points.map((point) => [point.id, point.code]));
  const [from, to] = [code.get(setUp.lineFromId ?? ''), code.get(setUp.lineToId ?? '')];
  const side = (mm: number) => (Math.abs(mm) < 0.05 ? 'on it' : mm < 0 ? 'left' : 'right');
  return (
    <section aria-label="Line on the floor" className="flex flex-col gap-2">
      <h2 className="text-xl">{format.name('Centre line on the floor')}</h2>
      <p>
        Plumb {from} and {to} to the floor and snap a line through the two marks. They are {format.length(line.length)}{' '}
        {format.unit} apart: tape it before anything is trusted. The line runs {angleText(Math.abs(line.turned), 2)}{' '}
        {line.turned < 0 ? 'to the left' : 'to the right'} of the middle of the shell towards the rear, and begins{' '}
        {format.length(Math.abs(line.beside))} {format.unit} {side(line.beside)} of it.
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Stands by the line">
        <table className="ruled">
          <thead>
            <tr>
              <th>Stand</th>
              <th className="num">Along, {format.unit}</th>
              <th className="num">Beside it, {format.unit}</th>
              <th className="num">
                From the mark of {from}, {format.unit}
              </th>
              <th className="num">
                and of {to}, {format.unit}
              </th>
            </tr>
          </thead>
          <tbody>
            {line.places.map(({ id, along, right, fromFirst, fromSecond }) => (
              <tr key={id}>
                <td className="font-medium">{words.mount(id)}</td>
                <td className="num">{format.length(along)}</td>
                <td className="num">
                  {format.length(Math.abs(right))} {side(right)}
                </td>
                <td className="num">{format.length(fromFirst)}</td>
                <td className="num">{format.length(fromSecond)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
