import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { JointView, SeamPlan, WeldingPage } from '@/core/report/pages/welding';
import {
  clock,
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
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { WeldActions } from './actions';
import { Around } from './around';
import { NotHeld } from './not-held';
import { SeamForm } from './seam-form';
import { SeamStrip } from './seam-strip';

interface CardProps {
  readonly view: JointView;
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
          {plan.plans.length > 0 ? <Order key={plan.seam.school} plan={plan} actions={props.actions} /> : null}
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

/** So many seconds of welding to one of playing. */
const FASTER = 30;

function Order({ plan, actions }: { plan: SeamPlan; actions: WeldActions }) {
  const format = useFormat();
  const saving = useAction(actions.saveWeldSeam);
  const { seam, plans, stretches } = plan;
  const by = chosen(plan);
  const [now, setNow] = useState(by.finished);
  const [playing, setPlaying] = useState(false);
  const end = by.finished + 60;
  useEffect(() => {
    if (!playing) return;
    const timer = setInterval(() => setNow((at) => (at + FASTER / 20 >= end ? end : at + FASTER / 20)), 50);
    return () => clearInterval(timer);
  }, [playing, end]);
  const choose = (school: WeldPlan['school']) => saving.run({ seam: { ...seam, school }, stretches: [...stretches] });
  return (
    <div className="flex flex-col gap-2">
      <SeamStrip plan={plan} by={by} now={now} />
      <div className="flex flex-wrap items-center gap-3">
        <Button
          onClick={() => {
            if (!playing && now >= by.finished) setNow(0);
            setPlaying(!playing);
          }}
        >
          {playing ? 'Stop' : 'Play it through'}
        </Button>
        <input
          type="range"
          className="min-h-11 w-64 accent-ink"
          aria-label="Moment of the welding"
          aria-valuetext={clock(now)}
          min={0}
          max={end}
          step={0.5}
          value={now}
          onChange={({ target }) => setNow(Number(target.value))}
        />
        <span className="num">{clock(now)}</span>
        {by.hottest ? (
          <span className="text-sm text-soft">
            A minute after the last the warmest is number{' '}
            {by.order.findIndex(({ plug }) => plug === by.hottest!.place) + 1}, {format.warmer(by.hottest.rise)} over
            its surroundings.
          </span>
        ) : null}
      </div>
      <fieldset className="flex flex-col">
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

/** The order that was chosen, or the usual one of its process. */
export const chosen = ({ seam, plans }: SeamPlan): WeldPlan =>
  plans.find(({ school }) => school === seam.school) ?? plans[0]!;
