import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import { useState } from 'react';
import type { HeldPanel } from '@/core/plan/panels/holding';
import type { FittingPage } from '@/core/report/pages/fitting';
import { FIXING_WORD, HOLDING_WORD, holdingFaultText } from '@/core/report/fitting-words';
import { counted } from '@/core/report/vocabulary/words';
import { HOLDING_RUNGS, type HoldingRung } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { heldAt } from '@/formats/inputs/fitting';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { BoardActions } from './actions';
import { Allowances } from './allowances';
import { AddFixing, AddLap, LetGoTest } from './board-forms';

interface BoardProps {
  readonly rows: JobRows;
  readonly page: FittingPage;
  readonly actions: BoardActions;
}

/** A pointer that moves less than this presses a button and drags nothing, px. */
const DRAGS_FROM = 8;
const place = (rung: HoldingRung): number => HOLDING_RUNGS.indexOf(rung);

/** Every panel on the rung it is held at; dragged to another it asks for what that rung needs, and nothing else. */
export function Board({ rows, page, actions }: BoardProps) {
  const { run, faults } = useAction(actions.holdPanel);
  const [back, setBack] = useState<{ readonly held: HeldPanel; readonly to: HoldingRung }>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAGS_FROM } }));
  const go = (held: HeldPanel, to: HoldingRung) => {
    if (to === held.rung) return;
    if (place(to) < place(held.rung)) setBack({ held, to });
    else void run({ id: crypto.randomUUID(), hungId: held.panel.id, to, reason: '' });
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    const held = page.held.find(({ panel }) => panel.id === active.id);
    if (held && over) go(held, over.id as HoldingRung);
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
      <DndContext sensors={sensors} onDragEnd={dropped} id="fit-board">
        <ol className="grid gap-2 md:grid-cols-4 xl:grid-cols-7">
          {HOLDING_RUNGS.map((rung) => (
            <Rung key={rung} rung={rung}>
              {page.held
                .filter((held) => held.rung === rung)
                .map((held) => (
                  <Card key={held.panel.id} {...{ held, actions }} go={(to) => go(held, to)} />
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

interface CardProps {
  readonly held: HeldPanel;
  readonly actions: BoardActions;
  readonly go: (to: HoldingRung) => void;
}

function Card({ held, actions, go }: CardProps) {
  const format = useFormat();
  const { panel, rung, since, waitsFor, recheck, timesOff, fights } = held;
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: panel.id });
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const next = HOLDING_RUNGS[place(rung) + 1];
  const before = HOLDING_RUNGS[place(rung) - 1];
  return (
    <article
      ref={setNodeRef}
      className="flex flex-col gap-1 border border-ink bg-sheet p-2 text-sm"
      style={
        transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5, position: 'relative' } : {}
      }
      data-held={panel.code}
    >
      <div className="flex items-start justify-between gap-1">
        <h4 className="py-2 font-semibold">
          {panel.code} <span className="font-normal">{format.name(panel.name)}</span>
        </h4>
        <button
          type="button"
          {...attributes}
          {...listeners}
          aria-label={`Drag ${panel.code}`}
          className="min-h-11 min-w-11 cursor-grab touch-none text-soft"
        >
          <GripVertical size={18} aria-hidden className="mx-auto" />
        </button>
      </div>
      {since ? (
        <p className="text-soft">
          {since.author}, {format.day(since.at)}
          {timesOff > 1 ? `; off ${counted(timesOff, 'time')}` : ''}
        </p>
      ) : null}
      {waitsFor.map((fault) => (
        <p key={holdingFaultText(fault, words)}>{holdingFaultText(fault, words)}</p>
      ))}
      {recheck.length > 0 && rung !== 'off' ? <p className="text-soft">Read again: {recheck.join(', ')}</p> : null}
      <div className="flex flex-wrap gap-1">
        {next ? (
          <Button look={waitsFor.length > 0 ? 'quiet' : 'plain'} onClick={() => go(next)}>
            To {HOLDING_WORD[next]}
          </Button>
        ) : null}
        {before ? (
          <Button look="quiet" onClick={() => go(before)}>
            Back
          </Button>
        ) : null}
        <LetGoTest panel={panel} addLetGo={actions.addLetGo} />
        <AddFixing panel={panel} addFixing={actions.addFixing} />
      </div>
      {fights.length > 0 ? (
        <p className="text-soft">
          Clamp {fights.length > 1 ? 'in this order' : 'first'}:{' '}
          {fights.map(({ place: joint, sprung }) => `${joint} (sprang ${words.length(sprung)})`).join(', ')}
        </p>
      ) : null}
    </article>
  );
}

interface BackProps {
  readonly held: HeldPanel;
  readonly to: HoldingRung;
  readonly holdPanel: BoardActions['holdPanel'];
  readonly onClose: () => void;
}

/** Going back a step is normal; why stays in the record. */
function GoBack({ held: { panel }, to, holdPanel, onClose }: BackProps) {
  const form = useEntryForm({
    schema: heldAt,
    action: holdPanel,
    defaults: { reason: '' },
    read: ({ reason }, faults, id) => {
      if (!reason.trim()) faults.push({ path: 'reason', message: 'say why it goes back' });
      return { id, hungId: panel.id, to, reason: reason.trim() };
    },
    done: onClose,
  });
  return (
    <Dialog
      open
      title={`${panel.code} back to ${HOLDING_WORD[to]}`}
      onOpenChange={(open) => (open ? undefined : onClose())}
    >
      <FormFields form={form} yes="Back it goes">
        <TextField label="Why" placeholder="rear edge proud, to be dressed" {...form.field('reason')} />
      </FormFields>
    </Dialog>
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
              {fixing.place ? `, ${fixing.place}` : ''}
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
