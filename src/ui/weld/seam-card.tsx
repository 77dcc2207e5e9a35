import { Link } from '../kit/link';
import { useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { JointView, SeamPlan, WeldingPage } from '@/core/report/pages/welding';
import {
  FREE_WORD,
  layoutFaultText,
  layoutNoteText,
  layoutText,
  PROCESS_WORD,
  SCHOOL_WORD,
  schoolText,
  WELD_WORD,
} from '@/core/report/weld-words';
import type { WeldPlan } from '@/core/plan/weld-order/schools';
import { Button, buttonClass } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TaskRunning } from '../kit/task-running';
import { useAction } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import type { WeldActions } from './actions';
import { Around } from './around';
import { chosen, numbersOf } from './chosen';
import { LayingControls, useLaying } from './laying';
import { NotHeld } from './not-held';
import { SeamForm } from './seam-form';
import { SeamStrip } from './seam-strip';
import { Shrinkage } from './shrinkage';

interface CardProps {
  readonly rows: JobRows;
  readonly view: JointView;
  readonly siblings: readonly { readonly id: string; readonly beside: string }[];
  readonly factor: WeldingPage['factor'];
  readonly points: WeldingPage['points'];
  readonly actions: WeldActions;
}

/** One joint: how it is marked out, in which order it is laid, and what speaks against it. */
export function JointCard(props: CardProps) {
  const { view } = props;
  const format = useFormat();
  const { joint, code, plan } = view;
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const sheets = [joint.thicknessA, joint.thicknessB].flatMap((each) => (each === null ? [] : [format.thin(each)]));
  return (
    <article className="flex flex-col gap-2 border-t-2 border-ink pt-2" data-joint={code}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h3 className="text-lg">{format.name(joint.beside)}</h3>
        <p className="text-soft">
          {plan
            ? `${format.name(WELD_WORD[plan.seam.kind])}${plan.seam.process ? `, ${PROCESS_WORD[plan.seam.process]}` : ''}`
            : 'not marked out yet'}
          {sheets.length > 0 ? `; sheets ${sheets.join(' and ')} ${format.unit}` : ''}
          {joint.factorySpots === null ? '' : `; ${joint.factorySpots} spots from the factory`}
        </p>
        <span className="ml-auto flex flex-wrap gap-2">
          <FormDialog
            wide
            title={`The joint at ${joint.beside}`}
            description="From its first end to its last, along a straight line; its sheets and the factory’s spots are said on Cut."
            trigger={<Button look={plan ? 'quiet' : 'main'}>{plan ? 'Change' : 'Mark it out'}</Button>}
          >
            {(close) => <SeamForm {...props} done={close} />}
          </FormDialog>
          {plan ? <Around view={{ ...view, plan }} addStepsInTurn={props.actions.addStepsInTurn} /> : null}
          {plan && plan.layout.places.length > 0 ? (
            <Link className={buttonClass()} href={`/jobs/${joint.jobId}/weld/${joint.id}`}>
              Card for the floor
            </Link>
          ) : null}
        </span>
      </div>
      {plan ? (
        <>
          <p data-layout={plan.layout.places.length}>
            {format.name(layoutText(plan.seam, plan.layout, words))}. {done(plan)}
          </p>
          <NotHeld view={view} />
          {plan.layout.faults.map((fault) => (
            <p key={fault.kind} role="alert" className="border-l-4 border-minus pl-3">
              {format.name(layoutFaultText(fault, words))}
            </p>
          ))}
          {plan.isLong ? (
            <LongOrder rows={props.rows} plan={plan} actions={props.actions} />
          ) : plan.plans.length > 0 ? (
            <Order key={plan.seam.school} plan={plan} actions={props.actions} />
          ) : null}
          <Shrinkage view={{ ...view, plan }} factor={props.factor} setWeldMarks={props.actions.setWeldMarks} />
          <ul className="list-inside list-disc text-sm text-soft">
            {plan.layout.notes.map((note) => (
              <li key={note.kind}>{format.name(layoutNoteText(note, words))}</li>
            ))}
          </ul>
        </>
      ) : null}
    </article>
  );
}

const done = ({ layout, done: ticked }: SeamPlan): string =>
  layout.places.length === 0 ? '' : `${ticked.length} of ${layout.places.length} laid.`;

interface OrderProps {
  readonly plan: SeamPlan;
  readonly actions: WeldActions;
}

/** Of a seam with so many places that its orders take a while: worked out beside the page, and left off where somebody cancels. */
function LongOrder({ rows, plan, actions }: OrderProps & { readonly rows: JobRows }) {
  const [asked, ask] = useState(true);
  const working = useTask('weldOrders', rows, asked ? { jointId: plan.seam.id } : null);
  const plans = working.busy ? undefined : working.value;
  return plans ? (
    <Order key={plan.seam.school} plan={{ ...plan, plans }} actions={actions} />
  ) : (
    <TaskRunning
      {...{ task: working, asked }}
      ask="Work out its order"
      doing={`Laying ${plan.layout.places.length} places by every school`}
      onCancel={() => ask(false)}
      onAsk={() => ask(true)}
    />
  );
}

function Order({ plan, actions }: OrderProps) {
  const format = useFormat();
  const saving = useAction(actions.saveWeldSeam);
  const { seam, plans, stretches } = plan;
  const by = chosen(plan);
  const laying = useLaying(by);
  const choose = (school: WeldPlan['school']) => saving.run({ seam: { ...seam, school }, stretches: [...stretches] });
  return (
    <div className="flex flex-col gap-2">
      <SeamStrip plan={plan} by={by} now={laying.now} />
      <div className="flex flex-wrap items-center gap-3">
        <LayingControls laying={laying} label="Moment of the welding" />
        {by.hottest ? (
          <span className="text-sm text-soft">
            A minute after the last the warmest is number {numbersOf(by).get(by.hottest.place)},{' '}
            {format.warmer(by.hottest.rise)} over its surroundings.
          </span>
        ) : null}
      </div>
      {plan.inTurnWith ? (
        <p data-turns>
          In turn with the joint at {format.name(plan.inTurnWith.beside)}, a place here and a place there; the count
          runs over both. <span className="text-soft">{schoolText(by)}</span>
        </p>
      ) : null}
      <fieldset className={plan.inTurnWith ? 'hidden' : 'flex flex-col'}>
        <legend className="caps">Order; {FREE_WORD[seam.freeEnd]} can still move</legend>
        {plans.map((each) => (
          <label key={each.school} className="flex min-h-11 flex-wrap items-center gap-x-3">
            <input
              type="radio"
              name={`order ${seam.id}`}
              className="size-5"
              checked={each.school === by.school}
              disabled={saving.pending}
              onChange={() => void choose(each.school)}
            />
            <span>{SCHOOL_WORD[each.school]}</span>
            <span className="text-soft" data-school={each.school}>
              {schoolText(each)}
            </span>
          </label>
        ))}
      </fieldset>
      <Faults faults={saving.faults} />
    </div>
  );
}
