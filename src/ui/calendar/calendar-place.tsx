'use client';

import { useEffect, useMemo, useState } from 'react';
import { schedule, WorkTimes, type CalendarTask, type PlannedStep } from '@/core/days/calendar/schedule';
import { criticalPath, slackOf } from '@/core/days/calendar/slack';
import { today } from '@/core/days/calendar/today';
import { MS_PER_DAY } from '@/core/maths/units/time';
import { bookedText, noScheduleText, type CalendarNames } from '@/core/report/calendar-words';
import { bookedAgainstPlan, type CalendarPage } from '@/core/report/pages/calendar';
import { Button } from '../kit/button';
import { ClientOnly } from '../kit/client-only';
import { Empty, Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';
import { axisOf } from './axis';
import { Bars } from './bars';
import { lanesOf, LANE_VIEWS, type LaneView } from './lanes';
import { NowList } from './now-list';
import { People } from './people';
import { StepInHand } from './step-in-hand';
import { Timers } from './timers';
import { ClosedDays } from './closed-days';

interface PlaceProps {
  readonly jobId: string;
  readonly page: CalendarPage;
  readonly actions: CalendarActions;
}

const VIEW_WORD: Readonly<Record<LaneView, string>> = {
  people: 'By person',
  panels: 'By panel',
  steps: 'Step by step',
};
/** Of a day, px: far and near. */
const WIDTHS = [44, 96] as const;

/** The calendar: when every step can be done, by whom, what waits, and what can be done now. */
export function CalendarPlace(props: PlaceProps) {
  return (
    <div className="flex flex-col gap-5">
      {props.page.rows.steps.length === 0 ? (
        <Empty title="No step is named">
          Name what is to be done on its rung of the ladder: it then has its time here.
        </Empty>
      ) : (
        <ClientOnly waiting={<p className="text-soft">The calendar is being worked out …</p>}>
          <Planned {...props} />
        </ClientOnly>
      )}
      <Timers jobId={props.jobId} timers={props.page.timers} actions={props.actions} />
      <div className="grid gap-6 lg:grid-cols-2">
        <People people={props.page.people} putPerson={props.actions.putPerson} />
        <ClosedDays days={props.page.closedDays} actions={props.actions} />
      </div>
    </div>
  );
}

function Planned({ jobId, page, actions }: PlaceProps) {
  const format = useFormat();
  const [view, setView] = useState<LaneView>('people');
  const [width, setWidth] = useState<number>(WIDTHS[0]);
  const [inHand, setInHand] = useState<string>();
  const [dragged, setDragged] = useState<{ readonly id: string; readonly at: number }>();
  const moving = useAction(actions.planStep);
  const { clock } = format;
  const now = useNow();
  // When people are there does not change while something is dragged.
  const times = useMemo(() => new WorkTimes({ ...page.rows, clock }), [page.rows, clock]);
  const task: CalendarTask = useMemo(
    () => ({
      ...{ ...page.rows, clock },
      steps: page.rows.steps.map((step) => (step.id === dragged?.id ? { ...step, notBefore: dragged.at } : step)),
    }),
    [page.rows, clock, dragged],
  );
  const planned = useMemo(() => schedule(task, times), [task, times]);
  const names = {
    step: (id: string) => format.name(page.steps.find(({ step }) => step.id === id)?.step.title ?? ''),
    moment: (at: number) => format.moment(new Date(at).toISOString()),
  };
  if (!Array.isArray(planned)) return <p role="alert">{noScheduleText(planned, names)}</p>;
  const put = async (id: string, at: number) => {
    const { step, needs, people } = page.steps.find((each) => each.step.id === id)!;
    setDragged({ id, at });
    await moving.run({
      step: { ...step, notBefore: new Date(at).toISOString() },
      needs: [...needs],
      people: [...people],
    });
    setDragged(undefined);
  };
  const booked = bookedAgainstPlan(page.steps);
  const from = Math.min(task.now, ...planned.map(({ starts }) => starts));
  const until = Math.max(...planned.map(({ ready }) => ready)) + 6 * MS_PER_DAY;
  // What is past for long is not drawn: the calendar begins with the week before.
  const axis = axisOf(clock, Math.max(from, task.now - 7 * MS_PER_DAY), until, width);
  const drawn = planned.filter(({ ready }) => ready >= clock.at(axis.days[0]!, 0));
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        {LANE_VIEWS.map((each) => (
          <Button
            key={each}
            look={each === view ? 'main' : 'plain'}
            aria-pressed={each === view}
            onClick={() => setView(each)}
          >
            {VIEW_WORD[each]}
          </Button>
        ))}
        <Button look="quiet" onClick={() => setWidth(width === WIDTHS[0] ? WIDTHS[1] : WIDTHS[0])}>
          {width === WIDTHS[0] ? 'Nearer' : 'Farther'}
        </Button>
        <a className="ml-auto underline" href={`/api/jobs/${jobId}/calendar`} download>
          Take it to another calendar (.ics)
        </a>
      </div>
      <End planned={planned} />
      {booked.planned > 0 ? <p className="text-soft">{bookedText(booked)}</p> : null}
      <Faults faults={moving.faults} />
      <Bars
        {...{ page, axis, inHand }}
        lanes={lanesOf(view, page, drawn)}
        now={now}
        critical={new Set(criticalPath(planned))}
        moves={{ take: setInHand, over: (id, at) => setDragged({ id, at }), put: (id, at) => void put(id, at) }}
      />
      {/* Not worked out anew while a bar is dragged. */}
      {dragged ? null : <Beside {...{ jobId, page, actions, inHand, names }} plan={{ task, planned, times }} />}
    </>
  );
}

/** It goes on by itself, ms. */
const NOW_EVERY = 60_000;

function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), NOW_EVERY);
    return () => clearInterval(tick);
  }, []);
  return now;
}

function End({ planned }: { readonly planned: readonly PlannedStep[] }) {
  const format = useFormat();
  const end = Math.max(...planned.map(({ ready }) => ready));
  return (
    <p data-end={format.date(new Date(end).toISOString())}>
      All of it is done on {format.day(new Date(end).toISOString())}. Drag a bar, or take it in hand and press an arrow
      key: what follows moves with it. Hatched it only waits; heavy outlines set the end.
    </p>
  );
}

interface BesideProps extends PlaceProps {
  readonly plan: { readonly task: CalendarTask; readonly planned: readonly PlannedStep[]; readonly times: WorkTimes };
  readonly inHand: string | undefined;
  readonly names: CalendarNames;
}

/** What can be done now, and the step in hand. */
function Beside({ jobId, page, actions, plan: { task, planned, times }, inHand, names }: BesideProps) {
  const step = page.steps.find((each) => each.step.id === inHand);
  const slacks = slackOf(task, planned, times);
  return (
    <div className="grid items-start gap-6 lg:grid-cols-2">
      <NowList {...{ page, task, names, actions }} now={today(task, planned, slacks)} />
      {step ? (
        <StepInHand
          key={step.step.id}
          {...{ jobId, page, step, actions, names }}
          at={planned.find(({ id }) => id === inHand)}
          slack={slacks.find(({ id }) => id === inHand)}
        />
      ) : (
        <p className="text-soft">Take a step in hand: press its bar, or its name in the list.</p>
      )}
    </div>
  );
}
