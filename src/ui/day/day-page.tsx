'use client';

import { Printer } from 'lucide-react';
import { Link } from '../kit/link';
import type { ReactNode } from 'react';
import type { BeforeCut, DaySheet } from '@/core/days/day';
import type { Job, Round } from '@/core/shell/job/entities';
import type { TomorrowFirst } from '@/core/report/pages/calendar';
import { Button } from '../kit/button';
import { settledText } from '@/core/report/settle-words';
import { useSettleWords, type SettleNames } from '../sheet/use-settle-words';
import { useFormat } from '../shell/preferences-context';
import { BRACE_WORD, CAUTION_WORD, QUANTITY_WORD } from '@/core/report/vocabulary/words';
import { ChangeMark } from '../sheet/change-mark';
import type { JobFields as JobInput } from '@/formats/inputs/jobs';
import type { Action } from '../kit/use-action';
import type { NewMorning } from '@/formats/inputs/morning';
import { isBeyondNoise, tellingFirst } from '@/core/findings/change';
import { EditJob } from './edit-job';
import { Morning } from './morning';
import { Tomorrow } from './tomorrow';

export type DayView = Omit<DaySheet, 'latest'> & {
  readonly latestRound?: Round;
  /** What everybody does first on their next day; nothing where nothing is planned. */
  readonly planned?: readonly TomorrowFirst[];
};

export interface DayActions {
  readonly editJob: Action<JobInput, Job>;
  readonly writeMorning: Action<NewMorning>;
}

const MOST_ROWS = 6;

/** The page wanted at the end of a day: five questions, one screen, one printed sheet. */
export function DayPage({
  job,
  day,
  names,
  printedAt,
  staleBackup,
  actions,
}: {
  job: Job;
  day: DayView;
  names: SettleNames;
  printedAt: string;
  /** Where backups lie, where none was proved for too long, and when the last one was. */
  staleBackup?: { readonly folder: string; readonly provedAt?: string };
  actions: DayActions;
}) {
  const format = useFormat();
  return (
    <div className="flex flex-col gap-4 print:[zoom:0.78]">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-2xl">{job.name}</h1>
        <span className="no-print">
          <EditJob job={job} editJob={actions.editJob} />
        </span>
        <p className="text-soft">
          {[job.owner, job.bench].filter(Boolean).join(' · ')}
          <span className="hidden print:inline"> · printed {format.day(printedAt)}</span>
        </p>
        <Button className="no-print ml-auto" onClick={() => window.print()}>
          <Printer size={18} aria-hidden /> Print the day
        </Button>
      </div>
      {staleBackup ? (
        <p role="status" className="no-print border-l-4 border-minus bg-sheet px-3 py-2">
          The last backup that was proved is of {staleBackup.provedAt ? format.day(staleBackup.provedAt) : 'never'}.
          Backups lie in <span data-typed>{staleBackup.folder}</span>:{' '}
          <Link className="underline" href="/kept">
            see why, and take one
          </Link>
          .
        </p>
      ) : null}
      <div className="grid items-start gap-x-8 gap-y-4 lg:grid-cols-2 print:grid-cols-2">
        <div className="flex flex-col gap-4">
          <Question title="The morning three: did it stand still overnight?">
            <Morning
              jobId={job.id}
              morning={day.morning}
              mornings={day.mornings}
              names={names.codes}
              writeMorning={actions.writeMorning}
            />
          </Question>
          <Moved jobId={job.id} day={day} />
          <BeforeTheCut items={day.beforeCut} />
        </div>
        <div className="flex flex-col gap-4">
          <Holding jobId={job.id} day={day} />
          <Doubtful jobId={job.id} day={day} names={names} />
          <Question title="What is first tomorrow, what is curing, what is missing?">
            <Tomorrow tomorrow={day.tomorrow} planned={day.planned ?? []} />
          </Question>
        </div>
      </div>
    </div>
  );
}

function Question({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="break-inside-avoid border-t-2 border-ink pt-1.5">
      <h2 className="mb-1 text-lg">{title}</h2>
      {children}
    </section>
  );
}

const Nothing = ({ children }: { children: ReactNode }) => <p className="text-soft">{children}</p>;

function Moved({ jobId, day: { moved, latestRound } }: { jobId: string; day: DayView }) {
  const format = useFormat();
  if (!moved)
    return (
      <Question title="What moved, and after which step?">
        <Nothing>
          {latestRound
            ? `Only one round so far: “${latestRound.name}”. A second round will show what moved.`
            : 'Nothing has been measured yet.'}
        </Nothing>
      </Question>
    );
  const { change, after } = moved;
  const rows = tellingFirst(change.dimensions);
  const held = rows.filter((row) => row.verdict === 'held');
  const shown = rows.filter((row) => row.verdict !== 'held' || isBeyondNoise(row)).slice(0, MOST_ROWS);
  return (
    <Question title="What moved, and after which step?">
      <p className="text-sm">
        From{' '}
        <Link className="underline" href={`/jobs/${jobId}/verify?from=${change.earlier.id}&to=${change.later.id}`}>
          “{change.earlier.name}” to “{change.later.name}”
        </Link>
        {after.length > 0 ? `, after: ${after.map(format.name).join('; ')}.` : '.'}
      </p>
      {change.cautions.map((caution) => (
        <p key={caution} className="text-sm font-medium">
          {CAUTION_WORD[caution]}
        </p>
      ))}
      <table className="ruled">
        <tbody>
          {shown.map((row) => (
            <tr key={row.dimension.id}>
              <td className="whitespace-nowrap">
                <ChangeMark verdict={row.verdict} /> {row.dimension.code}
              </td>
              <td className="text-soft">{format.name(row.dimension.name)}</td>
              <td className="num font-medium">{format.difference(row.change)}</td>
              <td className="num text-soft">{format.plusMinus(2 * row.sd)}</td>
              <td>{isBeyondNoise(row) && row.verdict === 'held' ? 'moved, within its limit' : row.verdict}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-soft">
        {held.length} of {rows.length} dimensions held within their limits. Figures: {format.unit}.
      </p>
    </Question>
  );
}

function Holding({ jobId, day: { holding } }: { jobId: string; day: DayView }) {
  const format = useFormat();
  return (
    <Question title="What holds it tonight, and must stay?">
      {holding.length === 0 ? (
        <Nothing>No brace is fitted.</Nothing>
      ) : (
        <ul>
          {holding.map(({ brace, dimensions }) => (
            <li key={brace.id} className="border-b border-faint py-1">
              <Link className="font-medium underline" href={`/jobs/${jobId}/brace`}>
                {brace.code}
              </Link>{' '}
              {BRACE_WORD[brace.kind]}, {brace.section}: holds{' '}
              {dimensions
                .map((dimension) => `${dimension.code} (${format.name(dimension.name).toLowerCase()})`)
                .join(', ') || 'nothing named'}
            </li>
          ))}
        </ul>
      )}
    </Question>
  );
}

function BeforeTheCut({ items }: { items: readonly BeforeCut[] }) {
  const format = useFormat();
  const after = items.filter((item) => item.kind === 'afterBrace');
  return (
    <Question title="What must be measured or photographed before the next cut?">
      {items.length === 0 ? <Nothing>Nothing is noted.</Nothing> : null}
      <ul className="list-[square] pl-5">
        {items.map((item, i) => {
          if (item.kind === 'need')
            return (
              <li key={i}>
                {format.name(item.step.step.needs)}{' '}
                <span className="text-soft">(before: {format.name(item.step.step.title)})</span>
              </li>
            );
          if (item.kind === 'neverMeasured')
            return (
              <li key={i}>
                Never measured in any round:{' '}
                {item.dimensions
                  .slice(0, 8)
                  .map((dimension) => dimension.code)
                  .join(', ')}
                {item.dimensions.length > 8 ? ` and ${item.dimensions.length - 8} more` : ''}
              </li>
            );
          return item.kind === 'blasted' ? (
            <li key={i}>A round of all that stays: {format.name(item.name)} was blasted after the last one</li>
          ) : null;
        })}
        {after.length > 0 ? (
          <li>
            Again, since a brace was fitted after the last round: {after.map((item) => item.dimension.code).join(', ')}
          </li>
        ) : null}
      </ul>
    </Question>
  );
}

function Doubtful({
  jobId,
  day: { doubtful: doubts, contradicted, latestRound: round },
  names,
}: {
  jobId: string;
  day: DayView;
  names: SettleNames;
}) {
  const format = useFormat();
  const words = useSettleWords(names);
  // A contradicted reading takes two lines: what is undecided gives way.
  const most = Math.max(2, MOST_ROWS - 2 * contradicted.length);
  return (
    <Question title="Which numbers are doubtful, and what settles each?">
      {contradicted.length > 0 ? (
        <ul className="pb-1">
          {contradicted.map(({ round: of, subject, value, cause }) => (
            <li key={of.id + subject + value} className="border-b border-faint py-1">
              <Link className="font-medium underline" href={`/jobs/${jobId}/rounds/${of.id}`}>
                {subject} {format.length(value)}
              </Link>{' '}
              in “{of.name}” does not fit the rest
              {cause ? `; likely ${format.name(cause)}` : ''}: correct it, or measure it again.
            </li>
          ))}
        </ul>
      ) : null}
      {doubts.length === 0 ? (
        <Nothing>{round ? 'Every judged figure is decided.' : 'Nothing has been measured yet.'}</Nothing>
      ) : null}
      <table className="ruled">
        <tbody>
          {doubts.slice(0, most).map((doubt) => (
            <tr key={doubt.code + doubt.quantity}>
              <td>{doubt.quantity === 'distance' ? doubt.code : `${doubt.code} ${QUANTITY_WORD[doubt.quantity]}`}</td>
              <td className="num font-medium">{format.difference(doubt.deviation)}</td>
              <td className="num text-soft">{format.plusMinus(doubt.plusMinus)}</td>
              <td className="num text-soft">limit {format.length(doubt.limit)}</td>
              <td>{settledText(doubt.settledBy, words)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {doubts.length > most && round ? (
        <Link className="text-sm underline" href={`/jobs/${jobId}/rounds/${round.id}/sheet`}>
          and {doubts.length - most} more on the sheet
        </Link>
      ) : null}
    </Question>
  );
}
