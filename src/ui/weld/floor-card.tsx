'use client';

import { Link } from '../kit/link';
import { isLaid, placeKey, tooWarmBeside, type JointView, type SeamPlan } from '@/core/report/pages/welding';
import { betweenKey } from '@/core/plan/weld-order/between';
import { BETWEEN_WORD, clock, layoutFaultText, layoutNoteText, placeWord, SCHOOL_WORD } from '@/core/report/weld-words';
import { DEFERENCE, CAUTIONS } from '@/core/days/ladder';
import { useEffect, useState } from 'react';
import { Button, buttonClass } from '../kit/button';
import { ClientOnly } from '../kit/client-only';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { WeldActions } from './actions';
import { NotHeld } from './not-held';
import { chosen } from './chosen';
import { TrueScale } from './true-scale';

interface FloorProps {
  readonly view: JointView & { readonly plan: SeamPlan };
  readonly joints: readonly JointView[];
  readonly actions: Pick<WeldActions, 'recordItemEvent'>;
}

/** A joint on the floor: cautions, the next place large, every place with its tick; on paper a strip at true scale. */
export function FloorCard({ view, joints, actions }: FloorProps) {
  const format = useFormat();
  const { joint, panel, plan } = view;
  const { layout, seam } = plan;
  const ticking = useAction(actions.recordItemEvent);
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const by = chosen(plan);
  const rows = by.order.map(({ plug, begun }, i) => ({
    ...{ place: layout.places[plug]!, begun, turn: by.numbers?.[i] ?? i + 1 },
    then: plan.between.filter(({ after }) => after === i + 1),
  }));
  const isDone = (along: number) => isLaid(plan, along);
  const next = rows.find(({ place }) => !isDone(place.along));
  const tickAs = (key: string, done: boolean) =>
    ticking.run({
      ...{ id: crypto.randomUUID(), itemId: joint.id, key, reason: '', value: null },
      kind: done ? ('unticked' as const) : ('ticked' as const),
    });
  const tick = (along: number) => tickAs(placeKey(along), isDone(along));
  const laid = rows.filter(({ place }) => isDone(place.along)).length;
  const open = plan.between.find((step) => isDue(step, laid, plan));
  return (
    <section aria-label="Card for the floor" className="mx-auto flex max-w-5xl flex-col gap-4">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">
          {format.name(panel)}, {format.name(joint.beside)}
        </h1>
        <p>{plan.inTurnWith ? `in turn with ${format.name(plan.inTurnWith.beside)}` : SCHOOL_WORD[by.school]}</p>
        <span className="no-print ml-auto flex gap-2">
          <Button onClick={() => window.print()}>Print</Button>
          <Link className={buttonClass('quiet')} href={`/jobs/${joint.jobId}/weld`}>
            Back to the plan
          </Link>
        </span>
      </div>
      <ul className="border-l-4 border-ink bg-sheet px-3 py-1">
        {(CAUTIONS.weld ?? []).map((caution) => (
          <li key={caution}>{format.name(caution)}</li>
        ))}
        <li className="text-sm text-soft">{DEFERENCE}</li>
      </ul>
      {layout.faults.map((fault) => (
        <p key={fault.kind} role="alert" className="border-l-4 border-minus pl-3">
          {format.name(layoutFaultText(fault, words))}
        </p>
      ))}
      <NotHeld view={view} />
      <ClientOnly waiting={null}>
        <Beside view={view} joints={joints} />
      </ClientOnly>
      {open ? (
        <p role="status" className="border-l-4 border-plus pl-3 text-lg" data-first={betweenKey(open)}>
          First: {BETWEEN_WORD[open.kind]}.
        </p>
      ) : null}
      {next ? (
        <div className="no-print flex flex-wrap items-end gap-x-6 gap-y-2" data-next={next.turn}>
          <p className="num text-8xl leading-none">{next.turn}</p>
          <p className="text-xl">
            {placeWord(seam)} {next.turn}
            {plan.inTurnWith ? `, the others with ${format.name(plan.inTurnWith.beside)}` : ` of ${rows.length}`}:{' '}
            {words.length(next.place.along)} from the first end
            {seam.kind === 'plug' ? `, hole ${words.length(next.place.size)}` : ''}
            {next.place.sheets === 3 ? ', through three sheets' : ''}.{' '}
            <span className="text-soft">Not before {clock(next.begun)} from the first.</span>
          </p>
          <Button
            look="main"
            className="text-lg"
            disabled={ticking.pending}
            onClick={() => void tick(next.place.along)}
          >
            It is laid
          </Button>
        </div>
      ) : (
        <p role="status" className="text-lg">
          Every {placeWord(seam)} is laid. Let it cool, then read what it was to keep.
        </p>
      )}
      <Faults faults={ticking.faults} />
      <Places plan={plan} rows={rows} tick={tickAs} pending={ticking.pending} />
      <ul className="list-inside list-disc text-sm">
        {layout.notes.map((note) => (
          <li key={note.kind}>{format.name(layoutNoteText(note, words))}</li>
        ))}
      </ul>
      <TrueScale plan={plan} turns={rows.map(({ place, turn }) => ({ place, turn }))} />
    </section>
  );
}

interface PlacesProps {
  readonly plan: SeamPlan;
  readonly rows: readonly FloorRow[];
  readonly tick: (key: string, done: boolean) => unknown;
  readonly pending: boolean;
}

/** A place in its turn, and what is done before the next one. */
interface FloorRow {
  readonly place: SeamPlan['layout']['places'][number];
  readonly begun: number;
  readonly turn: number;
  readonly then: SeamPlan['between'];
}

/** Every place with its tick, in their order. */
function Places({ plan, rows, tick, pending }: PlacesProps) {
  const format = useFormat();
  return (
    <ol className="grid gap-x-6 sm:grid-cols-2 lg:grid-cols-3" aria-label="In this order">
      {rows.map(({ place, begun, turn, then }) => (
        <li key={place.number}>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-6 shrink-0"
              checked={isLaid(plan, place.along)}
              disabled={pending}
              onChange={() => void tick(placeKey(place.along), isLaid(plan, place.along))}
            />
            <span className="num w-8 text-right">{turn}</span>
            <span>
              at {format.thin(place.along)} {format.unit}
              <span className="text-soft">, {clock(begun)}</span>
            </span>
          </label>
          {then.map((step) => (
            <label key={step.kind} className="ml-9 flex min-h-11 items-center gap-3 text-soft">
              <input
                type="checkbox"
                className="size-6 shrink-0"
                checked={plan.betweenDone.includes(betweenKey(step))}
                disabled={pending}
                onChange={() => void tick(betweenKey(step), plan.betweenDone.includes(betweenKey(step)))}
              />
              {BETWEEN_WORD[step.kind]}
            </label>
          ))}
        </li>
      ))}
    </ol>
  );
}

/** It is to be done before the next place is laid. */
const isDue = (step: SeamPlan['between'][number], laid: number, { betweenDone }: SeamPlan): boolean =>
  laid >= step.after && !betweenDone.includes(betweenKey(step));

/** It is looked again how warm it is beside, ms. */
const LOOK_EVERY = 5000;

/** Never beside hot metal: what was laid on the same panel a moment ago. */
function Beside({ view, joints }: Pick<FloorProps, 'view' | 'joints'>) {
  const format = useFormat();
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_EVERY);
    return () => clearInterval(timer);
  }, []);
  return tooWarmBeside(joints, view, now).map(({ beside, rise }) => (
    <p key={beside} role="alert" className="border-l-4 border-minus pl-3">
      {format.name(beside)} on the same panel is still {format.warmer(rise)} over its surroundings: let it cool first.
    </p>
  ));
}
