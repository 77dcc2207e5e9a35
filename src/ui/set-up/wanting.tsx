import { lackingText, setUpFaultText, tieText } from '@/core/report/set-up-words';
import { TaskRunning } from '../kit/task-running';
import { useFormat } from '../shell/preferences-context';
import type { InHand } from './in-hand';

/** What is asked of the support itself: metal that will be cut, a flange that is not there. */
function OfTheSupport({ page, planned: { tie, setUp, bench } }: Pick<InHand, 'page' | 'planned'>) {
  const format = useFormat();
  const code = new Map(page.gauges.points.map((point) => [point.id, point.code]));
  const clamps = bench.bench.kind === 'clamps';
  return (
    <>
      {tie ? (
        <p className={tie.tiedBy ? 'text-soft' : 'border-l-2 border-minus pl-3'}>
          {format.name(tieText(tie, (pointId) => code.get(pointId) ?? 'a point'))}
        </p>
      ) : null}
      {clamps && setUp.flange === 'hasNot' ? (
        <p className="border-l-2 border-minus pl-3">
          This car’s sills have no pinch flange to clamp: take heads in its datum holes, or stands under its
          crossmembers; or the adapter its maker says.
        </p>
      ) : null}
      {clamps && setUp.flange === null ? (
        <p className="text-soft">
          {format.name('Clamps hold a pinch flange: say under “how it stands” whether these sills have one')}.
        </p>
      ) : null}
    </>
  );
}

/** What stands in the way of the set-up, and what the shelf lacks. */
export function Wanting(inHand: InHand) {
  return (
    <>
      <OfTheSupport {...inHand} />
      <OfTheMounts {...inHand} />
      <BestWay {...inHand} />
    </>
  );
}

function OfTheMounts({ built, words, plan }: InHand) {
  const told = built.faults.filter(({ kind }) => kind !== 'notBuilt' || built.lacking.length === 0);
  if (plan.mounts.length === 0) return <p>Take a set of points, or choose points on the drawing.</p>;
  if (told.length === 0 && built.lacking.length === 0)
    return <p role="status">Everything can be built from the shelf.</p>;
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
          <h3 className="caps">
            To make or buy: {built.proven ? 'the fewest pieces that build all mounts' : 'fewer may do'}
          </h3>
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

/** The search for the best stacks, which can be stopped: what is shown then is a quick answer. */
function BestWay({ built, search }: InHand) {
  const { task, asked, cancel, ask } = search;
  if (built.proven) return null;
  return (
    <div className="no-print flex flex-col gap-1">
      {task.busy ? null : <p className="text-soft">These stacks are a quick answer: better ones may be there.</p>}
      <TaskRunning
        {...{ task, asked }}
        ask="Look for the best stacks"
        doing="Looking for the best stacks"
        onCancel={cancel}
        onAsk={ask}
      />
    </div>
  );
}
