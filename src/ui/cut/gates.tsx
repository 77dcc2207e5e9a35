import { GATE_WORD } from '@/core/report/cut-words';
import type { CuttingPage, StageView } from '@/core/report/pages/cutting';
import type { Gate } from '@/core/plan/cut/gates';
import type { ItemEventInput } from '@/formats/inputs/work';
import { itemEvent } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { Confirm, FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';

interface GatesProps {
  readonly page: CuttingPage;
  readonly stage: StageView;
  readonly gates: readonly Gate[];
  readonly recordItemEvent: Action<ItemEventInput>;
}

const STATE_MARK = { done: '●', passed: '◐', open: '○' } as const;
const STATE_WORD = { done: 'done', passed: 'passed over', open: 'open' } as const;

/** What is looked at before metal comes out: ticked, seen by the program, or passed over for a reason that is kept. */
export function Gates({ stage, gates, recordItemEvent }: GatesProps) {
  const format = useFormat();
  const telling = useAction(recordItemEvent);
  const open = gates.filter(({ state }) => state === 'open').length;
  const event = { itemId: stage.id, key: '', reason: '', value: null } as const;
  return (
    <section aria-label="Before the cut" className="flex flex-col gap-2">
      <h2 className="text-xl">
        Before “{format.name(stage.name)}”{' '}
        <span className="text-base text-soft">
          {open === 0 ? 'nothing is open' : `${open} of ${gates.length} are open`}
        </span>
      </h2>
      {stage.id === '' ? (
        <p className="text-soft">Give these panels a stage: then it can be ticked off what was seen to before it.</p>
      ) : null}
      <Faults faults={telling.faults} />
      <ul>
        {gates.map((gate) => (
          <li
            key={gate.key}
            data-gate={gate.key}
            data-state={gate.state}
            className="flex min-h-11 flex-wrap items-center gap-x-3 border-b border-faint py-1"
          >
            <span aria-hidden>{STATE_MARK[gate.state]}</span>
            <span className="min-w-0 flex-1">
              <span className="sr-only">{STATE_WORD[gate.state]}: </span>
              <span className={gate.state === 'open' ? 'font-medium' : ''}>
                {format.name(GATE_WORD[gate.key])}
              </span>{' '}
              {gate.open.length > 0 ? <span className="text-minus">{gate.open.join(', ')}</span> : null}
              {gate.last ? (
                <span className="text-sm text-soft">
                  {gate.last.reason ? `${format.name(gate.last.reason)} ` : ''}({gate.last.author},{' '}
                  {format.day(gate.last.at)})
                </span>
              ) : null}
            </span>
            {stage.id === '' ? null : <GateButtons {...{ stage, gate, recordItemEvent }} tell={telling.run} />}
          </li>
        ))}
      </ul>
      {stage.id !== '' && stage.state === 'planned' ? (
        <Confirm
          title={`The metal of “${stage.name}” is out`}
          caution={
            open > 0
              ? `${open} of what is looked at before is open. What is not recorded now is gone with the metal.`
              : 'Read the telling lengths next, before anything else is touched.'
          }
          yes="Yes, it is out"
          trigger={
            <Button look="main" className="self-start">
              Metal out
            </Button>
          }
          onYes={() => telling.run({ id: crypto.randomUUID(), ...event, kind: 'removed' })}
        />
      ) : null}
      {stage.state === 'out' ? (
        <Confirm
          title={`New metal is tacked in for “${stage.name}”`}
          caution="Tacks hold a fraction of what welds do: braces stay, and everything is read again before the first weld."
          yes="Yes, tacked"
          trigger={<Button className="self-start">New metal tacked</Button>}
          onYes={() => telling.run({ id: crypto.randomUUID(), ...event, kind: 'tacked' })}
        />
      ) : null}
      {stage.state === 'out' || stage.state === 'tacked' ? (
        <Confirm
          title={`New metal is in for “${stage.name}”`}
          caution="Welded, not tacked: the other side is not opened before, and braces stay in until it is so."
          yes="Yes, welded in"
          trigger={<Button className="self-start">New metal in</Button>}
          onYes={() => telling.run({ id: crypto.randomUUID(), ...event, kind: 'fitted' })}
        />
      ) : null}
    </section>
  );
}

interface ButtonsProps extends Pick<GatesProps, 'stage' | 'recordItemEvent'> {
  readonly gate: Gate;
  readonly tell: Action<ItemEventInput>;
}

function GateButtons({ stage, gate, tell, recordItemEvent }: ButtonsProps) {
  const event = { itemId: stage.id, key: gate.key, reason: '', value: null } as const;
  return (
    <span className="ml-auto flex gap-2">
      {gate.byHand ? (
        <Button
          onClick={() =>
            tell({ id: crypto.randomUUID(), ...event, kind: gate.state === 'done' ? 'unticked' : 'ticked' })
          }
        >
          {gate.state === 'done' ? 'Not so' : 'Done'}
        </Button>
      ) : null}
      {gate.state === 'open' ? (
        <FormDialog
          title={`Go on without: ${GATE_WORD[gate.key]}`}
          description="The reason is kept with who said it and when"
          trigger={<Button look="quiet">Pass over …</Button>}
        >
          {(close) => <PassForm {...{ stage, gate, recordItemEvent }} done={close} />}
        </FormDialog>
      ) : null}
    </span>
  );
}

function PassForm({ stage, gate, recordItemEvent, done }: Omit<ButtonsProps, 'tell'> & { readonly done: () => void }) {
  const form = useEntryForm({
    schema: itemEvent,
    action: recordItemEvent,
    defaults: { reason: '' },
    read: ({ reason = '' }, faults, id): ItemEventInput => {
      if (!reason.trim()) faults.push({ path: 'reason', message: 'say why' });
      return { id, itemId: stage.id, kind: 'passed', key: gate.key, reason, value: null };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Go on without it">
      <TextField label="Why" placeholder="held wrong on purpose until the pull" {...form.field('reason')} />
    </FormFields>
  );
}
