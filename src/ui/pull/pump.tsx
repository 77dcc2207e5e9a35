'use client';

import { Link } from '../kit/link';
import { useState } from 'react';
import { watchedIn } from '@/core/plan/pulls/worked-pull';
import { isCleared, rigKey, RIG_CHECKS, strokeKey } from '@/core/plan/pulls/rig-check';
import type { PullGoing, PullingPage, PullPicture, PullView } from '@/core/report/pages/pulling';
import { ATTACH_RULE, goneText, partsText, wayText } from '@/core/report/pull-words';
import { directionOf } from '@/core/findings/strokes';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button, buttonClass } from '../kit/button';
import { ClientOnly } from '../kit/client-only';
import { Faults } from '../kit/faults';
import { unpacked } from '../kit/unpacked';
import { useAction } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { useTape } from '../tape/use-tape';
import { TakeBack } from '../work/take-back';
import type { PumpActions } from './actions';
import { RigPanel } from './rig-panel';
import { StrokeEntry } from './stroke-entry';
import { StrokeList } from './stroke-list';
import { WatchList } from './watch-list';

interface PumpProps {
  readonly rows: JobRows;
  readonly view: PullView;
  readonly points: PullingPage['points'];
  readonly nodes: PullPicture['nodes'];
  readonly actions: PumpActions;
}

/** One pull on the floor: cautions, then one stroke after the other, large enough to be read from the pump. */
export const Pump = unpacked(function PumpOfRows(props: PumpProps) {
  const { view } = props;
  const { pull, point, against, isOpen } = view;
  const format = useFormat();
  return (
    <section aria-label="At the pump" className="mx-auto flex max-w-5xl flex-col gap-4">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">
          {pull.code} at {point}
          {against ? ` against ${against}` : ''}
        </h1>
        <p>
          {wayText(directionOf(pull))}; wanted {partsText([pull.aimX, pull.aimY, pull.aimZ], format.length)}{' '}
          {format.unit}
        </p>
        <Link className={`${buttonClass('quiet')} ml-auto`} href={`/jobs/${pull.jobId}/pull`}>
          Back to the plan
        </Link>
      </div>
      {isOpen ? (
        <ClientOnly waiting={<p role="status">Fetching the readings …</p>}>
          <Strokes {...props} />
        </ClientOnly>
      ) : (
        <p role="status">This pull is over. On the plan it can be opened again.</p>
      )}
    </section>
  );
});

function Strokes(props: PumpProps) {
  const { rows: stored, view, points, nodes, actions } = props;
  const { pull, expected, worked } = view;
  const format = useFormat();
  const { rows, lines, put } = useTape(stored, pull.roundId);
  const asked = useTask('pullGoing', rows, { pullId: pull.id, expected });
  const going: PullGoing = asked.value ?? view;
  const codeOf = (id: string) => points.find((each) => each.id === id)?.code ?? '';
  const own = lines.filter(({ readings }) => readings[0]!.pullId === pull.id);
  const key = rigKey(
    pull,
    view.holds.map(({ hold }) => hold),
    view.plates.map(({ plate }) => plate),
  );
  const rigLooked = isCleared(stored.workEvents, pull.id, key);
  return (
    <>
      {worked?.gone ? (
        <p role="alert" className="border-l-4 border-minus pl-3 text-lg">
          {format.name(`Pulling will not do: ${goneText(worked.gone)}.`)}
        </p>
      ) : null}
      {rigLooked ? (
        <StrokeInHand {...props} {...{ rows, put, going, lines: own }} busy={asked.busy} />
      ) : (
        <RigCheck pull={pull} rigOf={key} actions={actions} />
      )}
      <StrokeList {...{ going, rows, put }} lines={own} marks={view.marks} view={view} />
      {worked ? (
        <div className="grid gap-x-8 gap-y-3 lg:grid-cols-2">
          <WatchList stroke={watchedIn(worked, going.next, going.course.rested)} codeOf={codeOf} />
          <RigPanel {...{ pull, worked, nodes, codeOf }} />
        </div>
      ) : null}
    </>
  );
}

interface RigCheckProps {
  readonly pull: PullView['pull'];
  readonly rigOf: string;
  readonly actions: Pick<PumpActions, 'recordItemEvent'>;
}

/** The full list, whenever rig or anchor changed: nothing is pulled before all of it is so. */
function RigCheck({ pull, rigOf, actions }: RigCheckProps) {
  const format = useFormat();
  const [ticked, tick] = useState<ReadonlySet<number>>(new Set());
  const clearing = useAction(actions.recordItemEvent);
  const [id] = useState(() => crypto.randomUUID());
  const turn = (i: number) => {
    const next = new Set(ticked);
    if (!next.delete(i)) next.add(i);
    tick(next);
  };
  const looked = ticked.size === RIG_CHECKS.length;
  return (
    <section aria-label="Before the first stroke with this rig" className="flex flex-col gap-2 border-2 border-ink p-4">
      <h2 className="text-xl">Before the first stroke with this rig</h2>
      <ul>
        {RIG_CHECKS.map((text, i) => (
          <li key={text}>
            <label className="flex min-h-11 items-center gap-3 text-lg">
              <input type="checkbox" className="size-6 shrink-0" checked={ticked.has(i)} onChange={() => turn(i)} />
              {format.name(text)}
            </label>
          </li>
        ))}
      </ul>
      {pull.attach ? <p className="text-soft">{ATTACH_RULE[pull.attach]}</p> : null}
      <p className="text-soft">
        The maker’s instructions, local rules and the licensed inspector decide. High-strength steel is not heated to
        pull it.
      </p>
      <Faults faults={clearing.faults} />
      <Button
        look="main"
        className="text-lg"
        disabled={!looked || clearing.pending}
        onClick={() => clearing.run({ id, itemId: pull.id, kind: 'cleared', key: rigOf, reason: '', value: null }, id)}
      >
        {looked ? 'All of it is so' : `${RIG_CHECKS.length - ticked.size} still to look at`}
      </Button>
    </section>
  );
}

interface InHandProps extends PumpProps {
  readonly going: PullGoing;
  readonly put: ReturnType<typeof useTape>['put'];
  readonly lines: ReturnType<typeof useTape>['lines'];
  readonly busy: boolean;
}

/** The stroke in hand: clear?, the mark, the reading under load, the reading after release. */
function StrokeInHand(props: InHandProps) {
  const { rows, view, going, actions } = props;
  const { pull } = view;
  const { course, next } = going;
  const ordinal = course.strokes.length;
  const cleared = isCleared(rows.workEvents, pull.id, strokeKey(ordinal));
  if (course.before === undefined) return <NotLoaded {...props} />;
  if (course.underLoad !== undefined) return <UnderLoad {...props} />;
  if (!next) return <Reached {...props} />;
  if (!cleared) return <Clear {...{ view, going, actions, ordinal }} />;
  return <PullTo {...props} />;
}

/** Where nobody read in this round where the point stands, that comes first. */
const NotLoaded = (props: InHandProps) => (
  <section aria-label="Before it is loaded" className="flex flex-col gap-3 border-2 border-ink p-4">
    <h2 className="text-xl">Before it is loaded</h2>
    <p className="text-lg">Nobody read in this round where it stands: read it once with nothing pulling.</p>
    <StrokeEntry {...props} asked={{ phase: 'released', label: 'Reads now', quiet: true }} />
  </section>
);

/** One answer for each stroke. */
function Clear({
  view,
  going,
  actions,
  ordinal,
}: Pick<InHandProps, 'view' | 'going' | 'actions'> & { ordinal: number }) {
  const clearing = useAction(actions.recordItemEvent);
  const marking = useAction(actions.setStroke);
  const [[eventId, strokeId]] = useState(() => [crypto.randomUUID(), crypto.randomUUID()] as const);
  const { pull } = view;
  const { next } = going;
  const clear = async () => {
    if (next) {
      const { target, rest, plusMinus } = next;
      const marked = await marking.run({ id: strokeId, pullId: pull.id, ordinal, target, rest, plusMinus }, strokeId);
      if (!marked.ok) return;
    }
    await clearing.run(
      { id: eventId, itemId: pull.id, kind: 'cleared', key: strokeKey(ordinal), reason: '', value: null },
      eventId,
    );
  };
  return (
    <section aria-label={`Stroke ${ordinal + 1}`} className="flex flex-col gap-3 border-2 border-ink p-4">
      <h2 className="text-xl">Stroke {ordinal + 1}</h2>
      <p className="text-3xl">Clear?</p>
      <p className="text-lg">
        Pointers set before the pull. Nobody in the chain’s sweep, under or inside the shell.
        {view.pull.attach === 'clamp' && ordinal > 0 ? ' Clamps tightened again.' : ''}
      </p>
      <Faults faults={[...marking.faults, ...clearing.faults]} />
      <Button
        look="main"
        className="min-h-16 text-2xl"
        disabled={clearing.pending || marking.pending}
        onClick={() => void clear()}
      >
        Clear
      </Button>
    </section>
  );
}

/** What the quantity that is read by should show at so much along the aim. */
function readAt({ course: { before, share } }: PullGoing, along: number): number | undefined {
  return before === undefined ? undefined : before + share * along;
}

function PullTo(props: InHandProps) {
  const { going, view } = props;
  const { next, course, spring } = going;
  const format = useFormat();
  if (!next) return null;
  const reads = readAt(going, next.target);
  const never = view.worked?.rig.never;
  return (
    <section
      aria-label={`Stroke ${course.strokes.length + 1}`}
      className="flex flex-col gap-3 border-2 border-ink p-4"
      data-target={next.target.toFixed(2)}
    >
      <h2 className="text-xl">Stroke {course.strokes.length + 1}: pull until it reads</h2>
      <p className="figures text-6xl leading-none" role="status">
        {reads === undefined ? `${format.difference(next.target)} from where it stood` : format.length(reads)}{' '}
        <span className="text-2xl">{format.unit}</span>
      </p>
      <p className="text-lg">
        {format.length(next.target)} along the aim; let go, it should rest at {format.length(next.rest)}{' '}
        {format.plusMinus(next.plusMinus)}: {format.length(spring.by)} comes home.
        {next.isCut ? ' A little beyond what was last held, no more.' : ''}
      </p>
      {never ? (
        <p className="text-lg font-medium">
          Never harder than {(never.newtons / 1000).toFixed(1)} kN
          {view.worked?.rig.pressure === undefined ? '' : `, ${view.worked.rig.pressure.toFixed(0)} bar at the pump`}.
        </p>
      ) : null}
      <p className="text-soft">Pump stopped and held while you read, from outside the chain’s sweep.</p>
      <StrokeEntry {...props} asked={{ phase: 'underLoad', label: 'Reads under load' }} />
    </section>
  );
}

/** Past its mark by more than this it was pulled too far, mm. */
const TOO_FAR = 1.5;

interface TapeLinkProps {
  readonly pull: PullView['pull'];
  readonly phase: 'underLoad' | 'released';
}

/** Readings of other points, on the tape of the round. */
const TapeLink = ({ pull, phase }: TapeLinkProps) => (
  <Link className="underline" href={`/jobs/${pull.jobId}/rounds/${pull.roundId}?pull=${pull.id}&phase=${phase}`}>
    watch list
  </Link>
);

function UnderLoad(props: InHandProps) {
  const { going, view } = props;
  const { pull } = view;
  const { course } = going;
  const format = useFormat();
  const mark = view.marks.find(({ ordinal }) => ordinal === course.strokes.length) ?? going.next;
  const past = mark ? course.underLoad! - mark.target : 0;
  return (
    <section
      aria-label={`Stroke ${course.strokes.length + 1} under load`}
      className="flex flex-col gap-3 border-2 border-ink p-4"
    >
      <h2 className="text-xl">Stroke {course.strokes.length + 1}: under load</h2>
      <p className="figures text-6xl leading-none" role="status">
        {format.length(course.underLoad!)} <span className="text-2xl">{format.unit} along the aim</span>
      </p>
      {past > TOO_FAR ? (
        <p role="alert" className="border-l-4 border-minus pl-3 text-lg">
          {format.length(past)} past its mark: let go, read, and look at what must not have moved.
        </p>
      ) : null}
      <p className="text-lg">
        Read the <TapeLink pull={pull} phase="underLoad" /> now. Then let go slowly, wait until nothing moves, and read
        again.
      </p>
      <StrokeEntry {...props} asked={{ phase: 'released', label: 'Reads after release' }} />
    </section>
  );
}

function Reached({ going, view, actions }: InHandProps) {
  const format = useFormat();
  const ending = useAction(actions.recordItemEvent);
  const [id] = useState(() => crypto.randomUUID());
  const { pull, distance } = view;
  return (
    <section aria-label="There" className="flex flex-col gap-3 border-2 border-ink p-4">
      <h2 className="text-xl">It is where it should be along this aim</h2>
      <p className="figures text-6xl leading-none">
        {format.length(going.course.rested)}{' '}
        <span className="text-2xl">
          of {format.length(distance)} {format.unit}
        </span>
      </p>
      <p className="text-lg">
        Take the load off whole and slowly, take the rig down, and measure the shell again: what came along, what must
        not have moved.
      </p>
      <Faults faults={ending.faults} />
      <span className="flex gap-2">
        <Button
          look="main"
          disabled={ending.pending}
          onClick={() => ending.run({ id, itemId: pull.id, kind: 'done', key: '', reason: '', value: null }, id)}
        >
          Done
        </Button>
        <TakeBack
          what={pull.code}
          row={{ jobId: pull.jobId, tableName: 'work_item', rowId: pull.id }}
          withdraw={actions.withdraw}
        />
      </span>
    </section>
  );
}
