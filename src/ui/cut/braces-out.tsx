import type { OutOfBraces } from '@/core/plan/cut/braces-out';
import { JOINT_ROWS } from '@/core/structure/joint-spring';
import { useFormat } from '../shell/preferences-context';
import { RangeCell } from './slack-table';

/** So many lengths are told one by one. */
const TOLD = 6;
/** So much more is told. */
const NOTICED = 1.1;

/** What the shell gives with the braces out, new metal tacked and welded: why they stay in until it is welded. */
export function WhenBracesComeOut({ lengths }: { readonly lengths: readonly OutOfBraces[] }) {
  const format = useFormat();
  if (lengths.length === 0) return null;
  const more = ({ tacked, welded }: OutOfBraces) => tacked.usual / welded.usual;
  const softer = lengths.filter((each) => more(each) > NOTICED).toSorted((a, b) => more(b) - more(a));
  const shown = softer.slice(0, TOLD);
  return (
    <section aria-label="When braces may come out" className="flex flex-col gap-2">
      <h2 className="text-xl">When braces may come out</h2>
      <p className="text-soft">
        When all new metal is welded, not tacked; then everything is read again, and again off the bench. With a tack
        every {format.length(JOINT_ROWS.tacked.pitch)} {format.unit} and the braces out{' '}
        {softer.length === 0
          ? 'every length gives about what it gives welded; a tack that tears lets go at once all the same.'
          : `${softer.length} of ${lengths.length} lengths give more than they do welded:`}
      </p>
      {shown.length > 0 ? (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Slack without braces">
          <table className="ruled">
            <thead>
              <tr>
                <th>Length</th>
                <th className="num">May give {format.unit}</th>
                <th>New metal tacked</th>
                <th>Welded</th>
              </tr>
            </thead>
            <tbody>
              {shown.map(({ lengthId, code, name, limit, tacked, welded }) => (
                <tr key={lengthId}>
                  <td>
                    <strong>{code}</strong> <span className="text-soft">{format.name(name)}</span>
                  </td>
                  <td className="num">{format.fine(limit)}</td>
                  <RangeCell range={tacked} />
                  <RangeCell range={welded} />
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </section>
  );
}
