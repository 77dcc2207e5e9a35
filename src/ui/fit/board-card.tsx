import { useDraggable } from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import type { HeldJoint, HeldPanel } from '@/core/plan/panels/holding';
import type { FittingPage } from '@/core/report/pages/fitting';
import { HOLDING_WORD, holdingFaultText } from '@/core/report/fitting-words';
import { counted } from '@/core/report/vocabulary/words';
import { HOLDING_RUNGS, type CalledPanel, type HoldingRung } from '@/core/shell/job/entities';
import { heldAt } from '@/formats/inputs/fitting';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { BoardActions } from './actions';
import { AddFixing, LetGoTest, NameJoint } from './board-forms';

/** What goes: a joint by its name, or all of the panel (empty), from the rung it is on. */
export interface Part {
  readonly joint: string;
  readonly rung: HoldingRung;
}
export type Go = (held: HeldPanel, to: HoldingRung, part: Part) => void;
export const rungPlace = (rung: HoldingRung): number => HOLDING_RUNGS.indexOf(rung);

interface CardProps {
  readonly held: HeldPanel;
  readonly page: FittingPage;
  readonly actions: BoardActions;
  readonly go: Go;
}

/** A panel on the board, with every joint of it that goes up by itself. */
export function Card({ held, page, actions, go }: CardProps) {
  const format = useFormat();
  const { panel, rung, since, timesOff, joints } = held;
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: panel.id });
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
      {joints.length === 0 ? <WaitsFor {...held} /> : null}
      <Steps
        of={panel.code}
        go={(to) => go(held, to, { joint: '', rung })}
        {...{ rung, waits: held.waitsFor.length > 0 }}
      />
      <div className="flex flex-wrap gap-1">
        <NameJoint panel={panel} ofCut={page.joints} putPanelJoint={actions.putPanelJoint} />
        {joints.length === 0 ? <LetGoTest panel={panel} joint="" addLetGo={actions.addLetGo} /> : null}
        <AddFixing panel={panel} joints={joints.map(({ joint }) => joint.name)} addFixing={actions.addFixing} />
      </div>
      {joints.some(({ letGo }) => letGo) ? <p className="text-soft">Clamped in this order:</p> : null}
      {joints.length > 0 ? (
        <ol aria-label={`Joints of ${panel.code}`} className="flex flex-col gap-2">
          {joints.map((each) => (
            <JointLine key={each.joint.name} {...{ each, held, page, actions, go }} />
          ))}
        </ol>
      ) : null}
    </article>
  );
}

function JointLine({ each, held, page, actions, go }: CardProps & { readonly each: HeldJoint }) {
  const format = useFormat();
  const removing = useAction(actions.removePanelJoint);
  const { joint, rung, since, letGo, waitsFor } = each;
  const { panel } = held;
  const untouched = !since && !letGo && !page.closeOut.some(({ fixing }) => fixing.joint === joint.name);
  return (
    <li className="flex flex-col gap-1 border-t border-faint pt-1" data-joint={joint.name}>
      <p>
        <span className="font-semibold">{format.name(joint.name)}</span>: {HOLDING_WORD[rung]}
        {letGo ? `; sprang ${format.thin(letGo.sprung)} ${format.unit}` : ''}
      </p>
      <WaitsFor {...each} />
      <Steps
        of={format.name(joint.name)}
        go={(to) => go(held, to, { joint: joint.name, rung })}
        {...{ rung, waits: waitsFor.length > 0 }}
      />
      <div className="flex flex-wrap gap-1">
        <LetGoTest panel={panel} joint={joint.name} addLetGo={actions.addLetGo} />
        <NameJoint panel={panel} joint={joint} ofCut={page.joints} putPanelJoint={actions.putPanelJoint} />
        {untouched ? (
          <Button
            look="quiet"
            aria-label={`Take out ${format.name(joint.name)}`}
            onClick={() => removing.run({ hungId: panel.id, name: joint.name })}
          >
            Take out
          </Button>
        ) : null}
      </div>
      <Faults faults={removing.faults} />
    </li>
  );
}

/** What is still wanted before the next rung, and the gaps that are read again. */
function WaitsFor({ waitsFor, recheck, rung }: Pick<HeldJoint, 'waitsFor' | 'recheck' | 'rung'>) {
  const format = useFormat();
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  return (
    <>
      {/* It stands with its joint: whose it is need not be said. */}
      {waitsFor
        .map((fault) => holdingFaultText('joint' in fault ? { ...fault, joint: '' } : fault, words))
        .map((text) => (
          <p key={text}>{text}</p>
        ))}
      {recheck.length > 0 && rung !== 'off' ? <p className="text-soft">Read again: {recheck.join(', ')}</p> : null}
    </>
  );
}

interface StepsProps {
  readonly of: string;
  readonly rung: HoldingRung;
  readonly waits: boolean;
  readonly go: (to: HoldingRung) => void;
}

/** Up a rung, or back one. */
function Steps({ of, rung, waits, go }: StepsProps) {
  const next = HOLDING_RUNGS[rungPlace(rung) + 1];
  const before = HOLDING_RUNGS[rungPlace(rung) - 1];
  return (
    <div className="flex flex-wrap gap-1">
      {next ? (
        <Button look={waits ? 'quiet' : 'plain'} aria-label={`${of} to ${HOLDING_WORD[next]}`} onClick={() => go(next)}>
          To {HOLDING_WORD[next]}
        </Button>
      ) : null}
      {before ? (
        <Button look="quiet" aria-label={`${of} back to ${HOLDING_WORD[before]}`} onClick={() => go(before)}>
          Back
        </Button>
      ) : null}
    </div>
  );
}

export interface Back {
  readonly panel: CalledPanel;
  readonly to: HoldingRung;
  readonly joint: string;
}

interface BackProps extends Back {
  readonly holdPanel: BoardActions['holdPanel'];
  readonly onClose: () => void;
}

/** Going back a step is normal; why stays in the record. */
export function GoBack({ panel, to, joint, holdPanel, onClose }: BackProps) {
  const form = useEntryForm({
    schema: heldAt,
    action: holdPanel,
    defaults: { reason: '' },
    read: ({ reason }, faults, id) => {
      if (!reason.trim()) faults.push({ path: 'reason', message: 'say why it goes back' });
      return { id, hungId: panel.id, joint, to, reason: reason.trim() };
    },
    done: onClose,
  });
  return (
    <Dialog
      open
      title={`${joint || panel.code} back to ${HOLDING_WORD[to]}`}
      onOpenChange={(open) => (open ? undefined : onClose())}
    >
      <FormFields form={form} yes="Back it goes">
        <TextField label="Why" placeholder="rear edge proud, to be dressed" {...form.field('reason')} />
      </FormFields>
    </Dialog>
  );
}
