import { useState } from 'react';
import { waitText, workText } from '@/core/report/calendar-words';
import type { JointView, SeamPlan } from '@/core/report/pages/welding';
import { AROUND_WORD, aroundTitle } from '@/core/report/weld-words';
import { counted } from '@/core/report/vocabulary/words';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { WeldActions } from './actions';

interface AroundProps {
  readonly view: JointView & { readonly plan: SeamPlan };
  readonly addStepsInTurn: WeldActions['addStepsInTurn'];
}

/** What is done before and after a joint is made: what nobody reaches later first, then what protects it. */
export const Around = (props: AroundProps) => (
  <FormDialog
    wide
    title={`Before and after the joint at ${props.view.joint.beside}`}
    description="Times to begin with, for the joint as it is marked out; the maker’s sheet of each product rules. Each can be planned otherwise in the calendar."
    trigger={<Button look="quiet">Before and after</Button>}
  >
    {(close) => <AroundList {...props} done={close} />}
  </FormDialog>
);

function AroundList({ view, addStepsInTurn, done }: AroundProps & { readonly done: () => void }) {
  const format = useFormat();
  const { run, faults, pending } = useAction(addStepsInTurn);
  const { joint, plan, steps: there } = view;
  // Pressed twice they are put there once.
  const [ids] = useState(() => plan.around.map(() => crypto.randomUUID()));
  const put = async () => {
    const steps = plan.around.map(({ kind, beforeAccess: _, ...said }, i) => ({
      ...{ ...said, id: ids[i]!, itemId: joint.id, title: aroundTitle(kind, joint.beside).slice(0, 200) },
    }));
    if ((await run({ jobId: joint.jobId, rung: 'weld', steps })).ok) done();
  };
  return (
    <div className="flex flex-col gap-3">
      <ol className="flex flex-col">
        {plan.around.map(({ kind, minutes, waits, keeps, beforeAccess }) => (
          <li key={kind} className="border-b border-faint py-1" data-around={kind}>
            {format.name(AROUND_WORD[kind])}
            <span className="text-soft">
              , {workText(minutes)}
              {waits === null ? '' : `; then it waits ${waitText(waits)}`}
              {keeps === null ? '' : `, and keeps ${waitText(keeps)}`}
            </span>
            {beforeAccess ? <span className="font-semibold">. Nobody gets there afterwards</span> : null}
          </li>
        ))}
      </ol>
      <Faults faults={faults} />
      {there > 0 ? (
        <p role="status">{counted(there, 'step')} of the calendar are about this joint already.</p>
      ) : (
        <Button look="main" className="self-start" disabled={pending} onClick={() => void put()}>
          Put them in the calendar
        </Button>
      )}
    </div>
  );
}
