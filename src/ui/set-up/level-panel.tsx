'use client';

import { angleText } from '@/core/maths/units/angle';
import type { Levelling, Measured, SupportMove } from '@/core/plan/set-up/level';
import { levelFaultText } from '@/core/report/set-up-words';
import type { Levelled } from '@/core/report/pages/levelling';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { TickInput } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { unpacked } from '../kit/unpacked';
import { useAction, type Action } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { useTape } from '../tape/use-tape';
import { Heights } from './heights';
import type { InHand } from './in-hand';
import { SimulatedStick, useSimulatedShell } from './simulated-stick';

export interface LevelPanelProps extends Pick<InHand, 'planned' | 'words'> {
  readonly rows: JobRows;
  readonly levelling: Levelled;
  readonly noteSetUp: Action<TickInput>;
}

/** What to turn at each mount, how far and which way, live as heights of undisturbed points are read. */
function LevelPart({ rows: stored, planned, words, levelling: asSent, noteSetUp }: LevelPanelProps) {
  const { rows, lines, put } = useTape(stored, asSent.roundId);
  const { value } = useTask('level', rows, rows === stored ? null : undefined);
  const format = useFormat();
  const noting = useAction(noteSetUp);
  const levelling = (rows === stored ? undefined : value) ?? asSent;
  const { result, points } = levelling;
  const read = points.filter(({ height }) => height !== undefined).length;
  const simulated = useSimulatedShell({ planned, rows, levelling, put });
  const adjusted = async () => {
    const moves = result.ok ? result.levelling.moves : [];
    const event = { id: crypto.randomUUID(), itemId: planned.setUp.id, kind: 'adjusted', key: '', reason: '' } as const;
    const outcome = await noting.run({ ...event, value: null });
    if (outcome.ok) simulated.turn(moves);
  };
  return (
    <section aria-label="Levelling" className="no-print flex flex-col gap-3">
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 className="text-xl">{format.name('Level and centre')}</h2>
        <span className="text-soft">
          by {read} of {points.length} heights of undisturbed points
        </span>
        {result.ok && levelling.open ? (
          <Button className="ml-auto" disabled={noting.pending} onClick={() => void adjusted()}>
            The mounts are turned: read again
          </Button>
        ) : null}
      </div>
      <Faults faults={noting.faults} />
      {result.ok ? (
        <Found
          levelling={result.levelling}
          words={words}
          codes={new Map(points.map(({ id, code }) => [id, code]))}
          onFelt={(key, kind) =>
            noting.run({ id: crypto.randomUUID(), itemId: planned.setUp.id, kind, key, reason: '', value: null })
          }
        />
      ) : (
        <p>To say what to turn: {levelFaultText(result.reason)}.</p>
      )}
      {levelling.open ? (
        <>
          <Heights {...{ rows, levelling, put }} waiting={lines.filter(({ state }) => state === 'waiting').length} />
          {points.length > 0 ? <SimulatedStick simulated={simulated} words={words} /> : null}
        </>
      ) : (
        <p className="text-soft">
          The last round is closed.{' '}
          <a href={`/jobs/${planned.setUp.jobId}/measure`} className="underline">
            Begin a round for levelling
          </a>{' '}
          to read heights here.
        </p>
      )}
    </section>
  );
}

export const LevelPanel = unpacked(LevelPart);

function Found({
  levelling,
  words,
  codes,
  onFelt,
}: {
  levelling: Levelling;
  codes: ReadonlyMap<string, string>;
  /** Somebody has felt whether a mount carries. */
  onFelt: (mountId: string, kind: 'idle' | 'carrying') => void;
} & Pick<InHand, 'words'>) {
  const { moves, twist, strange } = levelling;
  const still = moves.every(
    ({ raise, across, along, takeUp }) => raise === 0 && across === 0 && along === 0 && !takeUp,
  );
  return (
    <>
      <Lies levelling={levelling} />
      {twist?.sure ? (
        <p className="border-l-2 border-minus pl-3">
          Its own support twists the shell by <Figure of={twist} /> at a corner: that corner only follows. Undo the
          twist before anything is judged.
        </p>
      ) : null}
      {strange.length > 0 ? (
        <p className="border-l-2 border-minus pl-3">
          {strange.map(({ id }) => codes.get(id) ?? 'a point').join(', ')} does not go with the rest: read it again, or
          take it out of the control points.
        </p>
      ) : null}
      {still ? <p role="status">Level and straight as far as these readings tell. Read again to be sure.</p> : null}
      <ol className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        {moves.map((move, i) => (
          <Corner
            key={move.id}
            order={i + 1}
            move={move}
            name={words.mount(move.id)}
            onFelt={(kind) => onFelt(move.id, kind)}
          />
        ))}
      </ol>
    </>
  );
}

/** How the shell lies against the bench. */
function Lies({ levelling: { lies } }: { levelling: Levelling }) {
  const shown: readonly (readonly [string, Measured | undefined, tilt: boolean])[] = [
    ['rear up', lies.pitch, true],
    ['right side up', lies.roll, true],
    ['turned', lies.yaw, true],
    ['too far right', lies.across, false],
    ['too far back', lies.along, false],
  ];
  return (
    <dl className="flex flex-wrap gap-x-6 gap-y-1">
      {shown.map(([what, of, tilt]) =>
        of ? (
          <div key={what} className="flex items-baseline gap-2">
            <dt className="text-soft">{what}</dt>
            <dd className="num">{tilt ? <Tilt of={of} /> : <Figure of={of} />}</dd>
          </div>
        ) : null,
      )}
    </dl>
  );
}

/** A small slope, millimetres in a metre, as the angle it is. */
function Tilt({ of: { value, uncertainty } }: { of: Measured }) {
  const degrees = (slope: number) => angleText((Math.abs(slope) / 1000) * (180 / Math.PI), 2);
  return (
    <>
      {value < 0 ? '−' : '+'}
      {degrees(value)} ±{degrees(uncertainty)}
    </>
  );
}

function Figure({ of: { value, uncertainty } }: { of: Measured }) {
  const format = useFormat();
  return (
    <>
      {format.difference(value)} {format.plusMinus(uncertainty)} {format.unit}
    </>
  );
}

interface CornerProps {
  /** Which to loosen first. */
  readonly order: number;
  readonly move: SupportMove;
  readonly name: string;
  readonly onFelt: (kind: 'idle' | 'carrying') => void;
}

function Corner({ order, move, name, onFelt }: CornerProps) {
  const format = useFormat();
  const size = (mm: number) => `${format.length(Math.abs(mm))} ${format.unit}`;
  const { raise, across, along, turns, shims, beyond, takeUp, jack } = move;
  const felt = takeUp ? 'after all' : 'nothing';
  return (
    <li className="flex flex-col gap-1 border border-rule bg-sheet p-3" data-corner={name}>
      <span className="caps">
        {order}. {name}
      </span>
      {takeUp ? <span>bring it up until it just carries, then</span> : null}
      <strong className="text-2xl">
        {raise === 0 ? 'leave it' : `${raise > 0 ? '▲ raise' : '▼ lower'} ${size(raise)}`}
      </strong>
      {raise !== 0 ? <span className="num text-soft">{format.plusMinus(move.raiseUncertainty)}</span> : null}
      {shims ? (
        <span>
          {shims.names.length > 0 ? `put in ${shims.names.join(' + ')}` : 'no shim is so thin'}
          {Math.abs(shims.off) >= 0.05 ? `, ${size(shims.off)} ${shims.off > 0 ? 'too much' : 'too little'}` : ''}
        </span>
      ) : null}
      {turns && raise !== 0 ? <span>{Math.abs(turns).toFixed(2)} turns of its thread</span> : null}
      {across !== 0 ? (
        <span>
          {size(across)} to the {across > 0 ? 'right' : 'left'}
        </span>
      ) : null}
      {along !== 0 ? (
        <span>
          {size(along)} {along > 0 ? 'back' : 'forward'}
        </span>
      ) : null}
      {beyond !== 0 ? <span className="text-minus">{size(beyond)} beyond its travel: change the stack</span> : null}
      {jack && raise !== 0 ? <span className="text-sm">A jack beside it carries while it is loose.</span> : null}
      <Button
        className="mt-auto self-start"
        aria-label={`${name} carries ${felt}`}
        onClick={() => onFelt(takeUp ? 'carrying' : 'idle')}
      >
        carries {felt}
      </Button>
    </li>
  );
}
