import {
  DndContext,
  PointerSensor,
  pointerWithin,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useState } from 'react';
import type { FittingPage } from '@/core/report/pages/fitting';
import { FIXING_WORD, HOLDING_WORD } from '@/core/report/fitting-words';
import { HOLDING_RUNGS, type HoldingRung } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import type { BoardActions } from './actions';
import { Allowances } from './allowances';
import { Card, GoBack, rungPlace, type Back, type Go } from './board-card';
import { AddLap } from './board-forms';

interface BoardProps {
  readonly rows: JobRows;
  readonly page: FittingPage;
  readonly actions: BoardActions;
}

/** A pointer that moves less than this presses a button and drags nothing, px. */
const DRAGS_FROM = 8;

/** Every panel on the rung it is held at; dragged to another it asks for what that rung needs, and nothing else. */
export function Board({ rows, page, actions }: BoardProps) {
  const { run, faults } = useAction(actions.holdPanel);
  const [back, setBack] = useState<Back>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAGS_FROM } }));
  const go: Go = ({ panel }, to, { joint, rung }) => {
    if (to === rung) return;
    if (rungPlace(to) < rungPlace(rung)) setBack({ panel, to, joint });
    else void run({ id: crypto.randomUUID(), hungId: panel.id, joint, to, reason: '' });
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    const held = page.held.find(({ panel }) => panel.id === active.id);
    if (held && over) go(held, over.id as HoldingRung, { joint: '', rung: held.rung });
  };
  return (
    <section aria-label="Fit board" className="flex flex-col gap-5">
      <h2 className="text-xl">Fit board</h2>
      {page.held.length === 0 ? (
        <Empty title="No panel is named">
          Name one under Panels: it then goes from rung to rung until it is welded.
        </Empty>
      ) : null}
      <Faults faults={faults} />
      <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={dropped} id="fit-board">
        <ol
          className="grid gap-2 md:grid-cols-2 lg:[grid-template-columns:var(--rungs)]"
          style={{ '--rungs': columnsFor(page.held) } as React.CSSProperties}
        >
          {HOLDING_RUNGS.map((rung) => (
            <Rung key={rung} rung={rung}>
              {page.held
                .filter((held) => held.rung === rung)
                .map((held) => (
                  <Card key={held.panel.id} {...{ held, page, actions, go }} />
                ))}
            </Rung>
          ))}
        </ol>
      </DndContext>
      {back ? <GoBack {...back} holdPanel={actions.holdPanel} onClose={() => setBack(undefined)} /> : null}
      <CloseOut {...{ rows, page, actions }} />
      <Laps {...{ rows, page, actions }} />
      <Allowances rows={rows} setAllowances={actions.setAllowances} />
    </section>
  );
}

/** A rung with panels on it is wider than one with none. */
const columnsFor = (held: FittingPage['held']): string =>
  HOLDING_RUNGS.map((rung) => (held.some((each) => each.rung === rung) ? 'minmax(0, 2.4fr)' : 'minmax(0, 1fr)')).join(
    ' ',
  );

function Rung({ rung, children }: { readonly rung: HoldingRung; readonly children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: rung });
  return (
    <li
      ref={setNodeRef}
      data-rung={rung}
      className={`flex min-h-28 flex-col gap-2 border p-2 ${isOver ? 'border-ink bg-faint' : 'border-faint'}`}
    >
      <h3 className="caps">{HOLDING_WORD[rung]}</h3>
      {children}
    </li>
  );
}

/** What was put in for a while and is still there. */
function CloseOut({ page, actions }: BoardProps) {
  const { run, faults } = useAction(actions.closeFixing);
  if (page.closeOut.length === 0) return null;
  return (
    <section aria-label="To be closed out">
      <h3 className="caps">To be closed out: welded up, ground or taken off</h3>
      <ul className="grid gap-x-6 sm:grid-cols-2">
        {page.closeOut.map(({ panel, fixing }) => (
          <li key={fixing.id} className="flex items-center gap-3">
            <span>
              {panel}: {FIXING_WORD[fixing.kind]} {fixing.name}
              {[fixing.joint, fixing.place].map((each) => (each ? `, ${each}` : '')).join('')}
            </span>
            <Button look="quiet" onClick={() => run({ id: fixing.id, open: false })}>
              Closed
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={faults} />
    </section>
  );
}

/** What lies under what: it comes first, nobody gets there afterwards. */
function Laps({ rows, page, actions }: BoardProps) {
  const putting = useAction(actions.putLap);
  const removing = useAction(actions.removeLap);
  const code = (id: string | null) => page.panels.find(({ panel }) => panel.id === id)?.panel.code ?? '';
  if (page.panels.length === 0) return null;
  return (
    <section aria-label="What lies under what" className="flex flex-col gap-1">
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="caps">What lies under what</h3>
        <AddLap {...{ page }} jobId={rows.jobs[0]!.id} putLap={actions.putLap} />
      </div>
      <ul>
        {rows.laps.map((lap) => (
          <li key={lap.id} className="flex flex-wrap items-center gap-3">
            <span>
              {lap.underId
                ? `${code(lap.underId)} goes under ${code(lap.overId)}`
                : `Under ${code(lap.overId)}: ${lap.what}`}
              {lap.underId === null && lap.done ? ', done' : ''}
            </span>
            {lap.underId === null ? (
              <Button look="quiet" onClick={() => putting.run({ ...lap, done: !lap.done })}>
                {lap.done ? 'Not done' : 'Done'}
              </Button>
            ) : null}
            <Button look="quiet" onClick={() => removing.run({ id: lap.id })}>
              Take out
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={[...putting.faults, ...removing.faults]} />
    </section>
  );
}
