import type { CutPage, ToldLoss, ToldPoint } from '@/core/report/pages/cut';
import { useFormat } from '../shell/preferences-context';

/** What leaves with each panel, and what is read of it while it is still there. */
export function Losses({ jobId, page: { panels, losses, round } }: { readonly jobId: string; readonly page: CutPage }) {
  if (panels.length === 0) return null;
  return (
    <section aria-label="What leaves with the metal" className="flex flex-col gap-4">
      <h2 className="text-xl">
        What leaves with the metal{' '}
        {round ? <span className="text-base text-soft">by the round “{round.name}”</span> : null}
      </h2>
      {round ? (
        losses.map((loss) => (
          <Loss
            key={loss.panelId}
            {...{ jobId, loss, round }}
            part={panels.find(({ id }) => id === loss.panelId)!.part}
          />
        ))
      ) : (
        <p>Nothing was read yet: measure the shell as found before anything is cut.</p>
      )}
    </section>
  );
}

interface LossProps {
  readonly jobId: string;
  readonly part: string;
  readonly loss: ToldLoss;
  readonly round: NonNullable<CutPage['round']>;
}

function Loss({ jobId, part: named, loss: { points, dimensions }, round }: LossProps) {
  const format = useFormat();
  const part = format.name(named);
  const wanted = points.reduce((sum, { take }) => sum + take.length, 0);
  return (
    <section aria-label={part} className="flex flex-col gap-2 border-t border-rule pt-3">
      <h3 className="text-lg font-medium">{part}</h3>
      <p>
        {points.length === 0
          ? 'No point leaves with it'
          : `${points.map(({ code }) => code).join(', ')} ${points.length === 1 ? 'leaves' : 'leave'} with it`}
        {dimensions.length > 0 ? `; ${dimensions.join(', ')} ${dimensions.length === 1 ? 'loses' : 'lose'} an end` : ''}
        .
      </p>
      {points.length > 0 ? (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label={`Points of ${part}`}>
          <table className="ruled">
            <thead>
              <tr>
                <th>Point</th>
                <th className="num">Wanted ± {format.unit}</th>
                <th className="num">Found again ± {format.unit}</th>
                <th>Read before the cut</th>
              </tr>
            </thead>
            <tbody>
              {points.map((point) => (
                <PointRow key={point.code} point={point} />
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      {wanted > 0 ? (
        <p className="no-print">
          <a className="underline" href={`/jobs/${jobId}/measure`}>
            {round.open ? 'Read them in the open round' : 'Begin a round to read them'}
          </a>
          : each of them is needed. A new panel is put where these have it.
        </p>
      ) : null}
    </section>
  );
}

function PointRow({ point: { code, limit, now, then, take, outcome } }: { point: ToldPoint }) {
  const format = useFormat();
  const figure = (mm: number | undefined) => (mm === undefined ? 'open' : format.length(mm));
  return (
    <tr data-leaves={code}>
      <td className="font-medium">{code}</td>
      <td className="num">{format.length(limit)}</td>
      <td className="num">
        {outcome === 'notLocated' ? '–' : figure(now)}
        {take.length > 0 ? ` → ${figure(then)}` : ''}
      </td>
      <td>
        {take.map(({ quantity, other, expected }) => (
          <span key={`${quantity} ${other}`} className="mr-4 inline-block">
            {quantity === 'height' ? 'its height' : `${code} to ${other}`}{' '}
            <span className="num text-soft">about {format.length(expected)}</span>
          </span>
        ))}
        {outcome === 'recorded' ? 'enough is recorded: its place is found again' : null}
        {outcome === 'notEnough' ? (
          <span className="text-minus">
            {take.length > 0 ? 'and still not enough: ' : ''}too few points stay near it: punch a mark on metal that
            stays, and locate it
          </span>
        ) : null}
        {outcome === 'notLocated' ? (
          <span className="text-minus">locate it first: two lengths and its height</span>
        ) : null}
      </td>
    </tr>
  );
}
