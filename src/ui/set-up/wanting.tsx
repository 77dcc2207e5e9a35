import { lackingText, setUpFaultText } from '@/core/report/set-up-words';
import type { InHand } from './in-hand';

/** What stands in the way of the set-up, and what the shelf lacks. */
export function Wanting({ built, words, plan }: InHand) {
  const told = built.faults.filter(({ kind }) => kind !== 'notBuilt' || built.lacking.length === 0);
  if (plan.mounts.length === 0) return <p>Take a set of points, or choose points on the drawing.</p>;
  if (told.length === 0 && built.lacking.length === 0)
    return (
      <p role="status">
        Everything can be built from the shelf{built.proven ? '' : '; the best way is still being looked for'}.
      </p>
    );
  return (
    <section aria-label="In the way" className="flex flex-col gap-2">
      {told.length > 0 ? (
        <ul className="list-disc pl-5 text-minus">
          {told.map((fault, i) => (
            <li key={i}>{setUpFaultText(fault, words)}</li>
          ))}
        </ul>
      ) : null}
      {built.lacking.length > 0 ? (
        <>
          <h3 className="caps">To make or buy: the fewest pieces that build all mounts</h3>
          <ul className="list-disc pl-5">
            {built.lacking.map((each, i) => (
              <li key={i}>{lackingText(each, words)}</li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}
