import type { CuttingPage, StageView } from '@/core/report/pages/cutting';
import type { RemovalOrder } from '@/core/plan/cut/removal-order';
import { loosenessText } from '@/core/report/cut-words';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { CuttingActions } from './actions';

interface OrderProps {
  readonly page: CuttingPage;
  readonly stage: StageView;
  /** What is proposed; not there while it is worked out, or where nothing is to be ordered. */
  readonly order?: RemovalOrder;
  readonly actions: Pick<CuttingActions, 'orderPanels'>;
}

/** The order in which the panels of a stage come out, and the one that keeps the shell tight the longest. */
export function PanelOrder({ page, stage, order, actions }: OrderProps) {
  const format = useFormat();
  const ordering = useAction(actions.orderPanels);
  const panels = page.panels.filter(({ panel }) => (panel.stageId ?? '') === stage.id).map(({ panel }) => panel);
  if (panels.length < 2) return null;
  const nameOf = new Map(page.worked?.slack.rows.map(({ lengthId, code }) => [lengthId, code]));
  const keep = (ids: readonly string[]) =>
    ordering.run({
      jobId: page.jobId,
      panels: ids.map((id) => ({ id, version: panels.find((panel) => panel.id === id)!.version })),
    });
  const moved = (i: number, by: -1 | 1) => {
    const ids = panels.map(({ id }) => id);
    [ids[i], ids[i + by]] = [ids[i + by]!, ids[i]!];
    return ids;
  };
  return (
    <section aria-label="Order of removal" className="flex flex-col gap-2">
      <h2 className="caps">Comes out in this order</h2>
      <ol>
        {panels.map(({ id, part }, i) => (
          <li key={id} className="flex min-h-11 items-center gap-2 border-b border-faint">
            <span className="figures w-6 text-soft">{i + 1}</span>
            <span className="min-w-0 flex-1">{format.name(part)}</span>
            {i > 0 ? (
              <Button look="quiet" disabled={ordering.pending} onClick={() => keep(moved(i, -1))}>
                Earlier<span className="sr-only">: {format.name(part)}</span>
              </Button>
            ) : null}
          </li>
        ))}
      </ol>
      <Faults faults={ordering.faults} />
      {order ? (
        <div className="flex flex-col gap-1 border-l-4 border-rule pl-3">
          <p>
            {order.asPlanned
              ? 'No other order keeps the shell tighter on the way.'
              : `Tighter on the way: ${order.panels.map(({ part }) => format.name(part)).join(', then ')}.`}
          </p>
          <ul className="text-sm text-soft">
            {order.panels.map(({ panelId, part, looseness, lengthId }) => (
              <li key={panelId}>
                after {format.name(part)}: {loosenessText(looseness, nameOf.get(lengthId ?? '') ?? '')}
              </li>
            ))}
          </ul>
          {order.asPlanned ? null : (
            <Button
              look="main"
              className="self-start"
              disabled={ordering.pending}
              onClick={() => keep(order.panels.map(({ panelId }) => panelId))}
            >
              Take this order
            </Button>
          )}
        </div>
      ) : null}
    </section>
  );
}
