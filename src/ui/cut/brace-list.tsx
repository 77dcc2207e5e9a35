import { FileDown, Printer } from 'lucide-react';
import { angleText } from '@/core/maths/units/angle';
import type { SawnBrace } from '@/core/plan/cut/saw-list';
import type { CuttingPage } from '@/core/report/pages/cutting';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import type { BraceForce } from '@/core/plan/cut/worked-stages';
import type { BraceEvent } from '@/core/shell/job/entities';
import { Button, buttonClass } from '../kit/button';
import { Confirm } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import type { ItemEventInput } from '@/formats/inputs/work';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import type { CuttingActions } from './actions';
import { BraceDialog } from './brace-form';
import { TubeDialog } from './tube-form';

const NEXT: Readonly<Record<BraceEvent['kind'], BraceEvent['kind'] | undefined>> = {
  planned: 'fitted',
  fitted: 'removed',
  loosened: 'fitted',
  removed: undefined,
};

interface BraceListProps {
  readonly page: Pick<
    CuttingPage,
    | 'jobId'
    | 'points'
    | 'places'
    | 'dimensions'
    | 'sections'
    | 'stages'
    | 'braces'
    | 'latestRoundId'
    | 'bars'
    | 'usedCodes'
    | 'worked'
  >;
  readonly actions: Pick<CuttingActions, 'planBrace' | 'correctBrace' | 'recordItemEvent' | 'withdraw' | 'addSection'>;
}

/** The braces for the saw, in the order they are fitted: what is cut, where it goes, what it is there to hold. */
export function BraceList({ page, actions }: BraceListProps) {
  const format = useFormat();
  const recording = useAction(actions.recordItemEvent);
  const { braces, bars, jobId } = page;
  return (
    <section aria-label="Braces" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Braces, for the saw</h2>
        {braces.length > 0 ? (
          <span className="no-print ml-auto flex flex-wrap gap-2">
            <Button onClick={() => window.print()}>
              <Printer size={18} aria-hidden /> Print
            </Button>
            {(['csv', 'dxf'] as const).map((kind) => (
              <a key={kind} className={buttonClass()} href={`/api/jobs/${jobId}/braces/${kind}`}>
                <FileDown size={18} aria-hidden /> {kind.toUpperCase()}
              </a>
            ))}
          </span>
        ) : null}
        <TubeDialog addSection={actions.addSection} />
        <BraceDialog page={page} actions={actions} />
      </div>
      <Faults faults={recording.faults} />
      {braces.length === 0 ? (
        <Empty title="No brace is planned">
          Ask of each cut which dimension it will set free, and plan a brace for it.
        </Empty>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="List of braces">
          <table className="ruled">
            <thead>
              <tr>
                <th>Brace</th>
                <th>Between</th>
                <th className="num">Cut to {format.unit}</th>
                <th className="num">Between points {format.unit}</th>
                <th className="num">Rise, in plan</th>
                <th>Tube</th>
                <th>In, out</th>
                <th>Holds</th>
                <th>State</th>
                <th>
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {braces.map((sawn) => (
                <BraceRow key={sawn.brace.id} {...{ sawn, page, actions }} record={recording.run} />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {bars.map(({ section, bars: count, left }) => (
        <p key={section} className="text-soft">
          {count} {count === 1 ? 'bar' : 'bars'} of {format.name(section)}; {format.length(left)} {format.unit} left
          over.
        </p>
      ))}
    </section>
  );
}

interface Row extends BraceListProps {
  readonly sawn: SawnBrace;
  readonly record: Action<ItemEventInput>;
}

function BraceRow({ sawn, page, actions, record }: Row) {
  const format = useFormat();
  const { brace, from, to, between, sawn: cutTo, geometry, kilograms, climbed, holds } = sawn;
  return (
    <tr data-code={brace.code}>
      <td className="font-medium">{brace.code}</td>
      <td>
        {from} – {to}
        <span className="block text-sm text-soft">
          {[sawn.fromName, sawn.toName]
            .map((name) => format.name(name))
            .filter(Boolean)
            .join(' to ')}
        </span>
      </td>
      <td className="num font-medium">{cutTo === undefined ? '–' : format.length(cutTo)}</td>
      <td className="num">
        {between === undefined ? '–' : format.length(between)}
        {geometry?.from === 'reference' ? <span className="block text-xs text-soft">by the chart</span> : null}
      </td>
      <td className="num">{geometry ? `${angleText(geometry.rise, 1)}, ${angleText(geometry.heading, 1)}` : ''}</td>
      <td>
        {brace.kind === 'part' ? '' : format.name(brace.section)}
        <span className="block text-sm text-soft">
          {BRACE_WORD[brace.kind]}
          {kilograms === undefined ? '' : `, ${kilograms.toFixed(1)} kg`}
          {brace.threadPitch === null ? '' : `, thread ${format.fine(Math.abs(brace.threadPitch))} a turn`}
        </span>
        <InBrace {...{ brace, force: page.worked?.forces.find(({ braceId }) => braceId === brace.id) }} />
        {climbed !== undefined && climbed > 1 && brace.kind !== 'part' ? (
          <span className="block text-sm text-minus">bends if somebody climbs on it</span>
        ) : null}
      </td>
      <td className="text-sm">
        {sawn.goesIn ? `before ${format.name(sawn.goesIn)}` : 'first'}
        <span className="block text-soft">
          {sawn.comesOut ? `out before ${format.name(sawn.comesOut)}` : 'to the end'}
        </span>
      </td>
      <td>{holds.map(({ code }) => code).join(', ')}</td>
      <td>
        {sawn.state}
        <span className="block text-sm text-soft">
          {sawn.lastEvent ? `${sawn.lastEvent.author}, ${format.day(sawn.lastEvent.at)}` : ''}
        </span>
      </td>
      <td className="no-print">
        <BraceButtons {...{ sawn, page, actions, record }} />
      </td>
    </tr>
  );
}

/** What the hand brings into a brace after the stage in hand: a slip brace slides, a prop lets go. */
function InBrace({ brace, force }: { readonly brace: SawnBrace['brace']; readonly force: BraceForce | undefined }) {
  if (!force) return null;
  const slides = brace.kind === 'slip' && brace.force !== null && force.hand > brace.force;
  if (force.carries !== undefined)
    return (
      <span className={`block text-sm ${force.least === 0 ? 'text-minus' : 'text-soft'}`}>
        presses with {newtons(force.carries)}
        {force.least === 0
          ? ', lets go when the shell is pulled: wedge it tighter'
          : `, ${newtons(force.least!)} left under the hand`}
      </span>
    );
  return (
    <span className={`block text-sm ${slides ? 'text-minus' : 'text-soft'}`}>
      the hand brings {newtons(force.hand)} into it
      {slides ? `: it slides at ${newtons(brace.force!)}` : ''}
    </span>
  );
}

const newtons = (force: number) => `${Math.round(force)} N`;

const WORD_OF_EVENT = { planned: 'Planned', fitted: 'Fitted', loosened: 'Loosened', removed: 'Removed' } as const;

function BraceButtons({ sawn, page, actions, record }: Row) {
  const { brace, state, lastEvent, holds } = sawn;
  const held = holds.map(({ code }) => code).join(', ');
  const next = NEXT[state];
  const event = { itemId: brace.id, key: '', reason: '', value: null } as const;
  return (
    <>
      {next ? (
        <Confirm
          trigger={<Button>{WORD_OF_EVENT[next]}</Button>}
          yes={`Yes, ${next}`}
          title={next === 'fitted' ? `${brace.code} is fitted` : `Take ${brace.code} out?`}
          caution={
            next === 'fitted'
              ? 'Measure again what it holds: welding a brace in can itself pull a dimension.'
              : `It holds ${held || 'nothing named'}. Measure those first, and see that nothing cut depends on it.`
          }
          onYes={() => record({ id: crypto.randomUUID(), ...event, kind: next })}
        />
      ) : null}
      {brace.kind === 'slip' && state === 'fitted' ? (
        <Button onClick={() => record({ id: crypto.randomUUID(), ...event, kind: 'loosened' })}>Loosen to set</Button>
      ) : null}
      {lastEvent && state !== 'planned' ? (
        <TakeBack
          label={`Not ${state}`}
          what={`${brace.code} ${state}`}
          row={{ jobId: brace.jobId, tableName: 'work_event', rowId: lastEvent.id }}
          withdraw={actions.withdraw}
        />
      ) : null}
      <BraceDialog page={page} actions={actions} known={sawn} />
      <TakeBack
        what={brace.code}
        row={{ jobId: brace.jobId, tableName: 'work_item', rowId: brace.id }}
        withdraw={actions.withdraw}
      />
    </>
  );
}
