import { Link } from '../kit/link';
import { watchedIn } from '@/core/plan/pulls/worked-pull';
import type { PullingPage, PullView } from '@/core/report/pages/pulling';
import { ATTACH_RULE, ATTACH_WORD, goneText, partsText, whyNotText } from '@/core/report/pull-words';
import { counted, listed, PULL_STATE_WORD } from '@/core/report/vocabulary/words';
import type { PullState } from '@/core/shell/job/entities';
import { Button, buttonClass } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import type { PullActions } from './actions';
import { CycleTable } from './cycle-table';
import { Holds } from './holds';
import { Plates } from './plates';
import { CorrectPull } from './pull-form';
import { RigPanel } from './rig-panel';
import { WatchList } from './watch-list';

interface CardProps {
  readonly page: PullingPage;
  readonly view: PullView;
  readonly actions: PullActions;
}

/** One pull: what it is, what it did so far, where to pull to next, what to watch and what holds it. */
export function PullCard({ page, view, actions }: CardProps) {
  const format = useFormat();
  const { pull, point, against, distance, lastEvent, progress, worked, holds, offered, isOpen } = view;
  const codeOf = (id: string) => page.points.find((each) => each.id === id)?.code ?? '';
  const nodes = page.picture?.nodes ?? [];
  return (
    <article className="flex flex-col gap-2 border-t-2 border-ink pt-2" data-code={pull.code}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h3 className="text-lg">
          {pull.code} at {point}
          {against ? ` against ${against}` : ''}
        </h3>
        <p>
          {format.length(distance)} {format.unit}: {partsText([pull.aimX, pull.aimY, pull.aimZ], format.length)}
        </p>
        <p className="text-soft">
          {lastEvent ? `${eventWord(lastEvent.kind)}, ${lastEvent.author}, ${format.day(lastEvent.at)}` : ''}
        </p>
        {isOpen ? (
          <Link className={`${buttonClass('main')} ml-auto`} href={`/jobs/${page.jobId}/pull/${pull.id}`}>
            At the pump
          </Link>
        ) : null}
      </div>
      {pull.attach ? (
        <p className="text-sm">
          {ATTACH_WORD[pull.attach]}. <span className="text-soft">{ATTACH_RULE[pull.attach]}</span>
          {pull.together ? ` Loaded together with the others called “${pull.together}”, a little each in turn.` : ''}
        </p>
      ) : null}
      {pull.note ? <p className="text-sm text-soft">{format.name(pull.note)}</p> : null}
      <Warnings {...{ view, codeOf }} modelSays={!page.why} />
      <Plates {...{ pull, point }} plates={view.plates} points={page.points} setPlates={actions.setPlates} />
      <Holds {...{ pull, holds, offered }} points={page.points} setHolds={actions.setHolds} />
      <Going view={view} />
      <CycleTable points={page.points} progress={progress} />
      {worked && isOpen ? (
        <div className="grid gap-x-8 gap-y-3 lg:grid-cols-2">
          <WatchList stroke={watchedIn(worked, view.next, view.course.rested)} codeOf={codeOf} />
          <RigPanel {...{ pull, worked, nodes, codeOf }} />
        </div>
      ) : null}
      <CardActions {...{ page, view, actions }} />
    </article>
  );
}

const eventWord = (kind: PullState | 'cleared'): string =>
  kind === 'cleared' ? 'nobody in the way' : PULL_STATE_WORD[kind];

interface WarningsProps {
  readonly view: PullView;
  readonly modelSays: boolean;
  readonly codeOf: (pointId: string) => string;
}

/** What speaks against the pull, or against what was read of it. */
function Warnings({ view, modelSays, codeOf }: WarningsProps) {
  const format = useFormat();
  const { worked, contradicts, pull, holds, isOpen, course, why } = view;
  if (!isOpen) return null;
  const said: string[] = [];
  if (why && modelSays) said.push(whyNotText(why));
  if (worked?.gone) said.push(`Pulling will not do: ${goneText(worked.gone)}.`);
  if (worked?.isHeld)
    said.push('The point is held the way it is pulled: nothing can move there. Take its hold off, or pull elsewhere.');
  if (worked?.pastRating)
    said.push(
      'The model needs more than the rig or a hold is rated for: take a stronger rig, hold at more places, or pull nearer to the damage.',
    );
  if (worked && worked.tried === undefined && !worked.isHeld && pullLeft(view) > 1)
    said.push(
      'The model finds no force that leaves this point moved that way: turn the pull, or hold the shell nearer to the damage.',
    );
  if (worked?.tried && worked.tried.soundYields.length > 0)
    said.push(`It bends ${listed(worked.tried.soundYields)}, which was sound: hold nearer to the damage.`);
  const disturbs = (worked?.watch ?? []).filter(
    ({ wanted, loaded, stop }) => !wanted && Math.abs(loaded) > Math.abs(stop),
  );
  if (disturbs.length > 0) {
    const codes = disturbs.map(({ pointId }) => codeOf(pointId));
    said.push(
      `With it on, ${listed(codes)} would move further than they may: hold them too, or pull in smaller parts.`,
    );
  }
  if (holds.length === 0 && !pull.againstPointId)
    said.push('Nothing is named that holds the shell against this pull: what it stands on is taken to hold it.');
  if (contradicts.length > 0)
    said.push(
      `Stroke ${listed(contradicts.map((i) => String(i + 1)))} reads further after release than under load: one of the two is mistyped. It is left out of what is learned.`,
    );
  const rest = course.strokes.at(-1);
  if (rest && rest.gained < -1)
    said.push('The last stroke left the point further off than before it: stop, and look at the holds.');
  return said.map((text) => (
    <p key={text} role="alert" className="border-l-4 border-minus pl-3">
      {format.name(text)}
    </p>
  ));
}

const pullLeft = ({ distance, course }: PullView): number => distance - course.rested;

/** What comes home, and where to pull to next. */
function Going({ view }: { readonly view: PullView }) {
  const format = useFormat();
  const { spring, onTheCarBefore: before, next, course, distance, isOpen } = view;
  if (!isOpen) return null;
  const home = `${format.length(spring.by)} ${format.plusMinus(2 * spring.sd)} ${format.unit}`;
  const from =
    spring.strokes === 0
      ? 'before anything was tried here'
      : `from ${counted(spring.strokes, 'stroke')} in this region${before > 0 ? `, ${before === spring.strokes ? 'all' : before} of them on the car before` : ''}`;
  return (
    <p data-next={next ? next.target.toFixed(1) : 'done'}>
      Comes home by {home}, {from}.{' '}
      {next ? (
        <strong>
          Next: pull to {format.length(next.target)} under load, expect it to rest at {format.length(next.rest)}{' '}
          {format.plusMinus(next.plusMinus)} of {format.length(distance)}.
        </strong>
      ) : (
        <strong>
          It rests at {format.length(course.rested)} of {format.length(distance)}: no further stroke.
        </strong>
      )}
      {next?.isCut ? ' No further than a little beyond what was last held.' : ''}
    </p>
  );
}

function CardActions({ page, view: { pull, item, against, lastEvent, isOpen }, actions }: CardProps) {
  const recording = useAction(actions.recordItemEvent);
  const say = (kind: 'done' | 'abandoned') =>
    recording.run({ id: crypto.randomUUID(), itemId: pull.id, kind, key: '', reason: '', value: null });
  return (
    <div className="flex flex-wrap gap-2">
      {!isOpen && lastEvent ? (
        <TakeBack
          label={lastEvent.kind === 'done' ? 'Not done' : 'Not given up'}
          what={`${pull.code} ${eventWord(lastEvent.kind)}`}
          row={{ jobId: pull.jobId, tableName: 'work_event', rowId: lastEvent.id }}
          withdraw={actions.withdraw}
        />
      ) : (
        <>
          <Button look="quiet" onClick={() => say('done')}>
            Done
          </Button>
          <Button look="quiet" onClick={() => say('abandoned')}>
            Give it up
          </Button>
        </>
      )}
      <CorrectPull page={page} view={{ pull, item, ...(against ? { against } : {}) }} actions={actions} />
      <TakeBack
        what={pull.code}
        row={{ jobId: pull.jobId, tableName: 'work_item', rowId: pull.id }}
        withdraw={actions.withdraw}
      />
      <Faults faults={recording.faults} />
    </div>
  );
}
