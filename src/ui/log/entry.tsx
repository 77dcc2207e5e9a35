import type { LogEntry } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { detailSentences } from '@/formats/record-tables';
import type { WithdrawalInput } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import type { Corrected } from './entry-details';
import { EntryForm, type WriteLogEntry } from './entry-form';

/** What the log is shown from. */
export type LogRows = Pick<
  JobRows,
  | 'jobs'
  | 'points'
  | 'dimensions'
  | 'logEntries'
  | 'logSubjects'
  | 'photographs'
  | 'findingDetails'
  | 'decisionDetails'
  | 'partTags'
>;

export interface EntryActions {
  readonly writeLogEntry: WriteLogEntry;
  readonly withdraw: Action<WithdrawalInput>;
}

/** How an entry stands: as written, struck out by a later one, or taken back. */
export type Standing =
  { readonly kind: 'stands' | 'corrected' } | { readonly kind: 'takenBack'; readonly reason: string };

interface Shown {
  readonly entry: LogEntry;
  readonly rows: LogRows;
  readonly standing: Standing;
  readonly actions: EntryActions;
}

const subjectsOf = ({ logSubjects, points, dimensions }: LogRows, { id }: LogEntry) =>
  logSubjects
    .filter(({ entryId }) => entryId === id)
    .map((subject) => ({
      ...subject,
      code: [...points, ...dimensions].find((each) => each.id === (subject.pointId ?? subject.dimensionId))?.code ?? '',
    }));

const correctedOf = (rows: LogRows, entry: LogEntry): Corrected => {
  const finding = rows.findingDetails.find(({ entryId }) => entryId === entry.id);
  const decision = rows.decisionDetails.find(({ entryId }) => entryId === entry.id);
  const about = subjectsOf(rows, entry).map(({ code }) => code);
  return { entry, about: about.join(' '), ...(finding ? { finding } : {}), ...(decision ? { decision } : {}) };
};

/** One entry of the log, with what it is about and what can be done to it. */
export function Entry({ entry, rows, standing, actions }: Shown) {
  const format = useFormat();
  const { finding, decision } = correctedOf(rows, entry);
  const details = detailSentences({ finding, decision }, format);
  const struck = standing.kind === 'stands' ? '' : 'line-through opacity-70';
  return (
    <li
      className="grid gap-x-4 border-b border-rule py-3 sm:grid-cols-[8.5rem_1fr]"
      data-kind={entry.kind}
      data-standing={standing.kind}
    >
      <p className="text-sm text-soft">
        <span className="caps block text-ink">{entry.kind}</span>
        {format.day(entry.at)} {format.time(entry.at)}
        <br />
        {entry.author}
      </p>
      <div className="min-w-0">
        <p data-typed className={`whitespace-pre-wrap ${struck}`}>
          {format.name(entry.text)}
        </p>
        {entry.reason ? <p className="whitespace-pre-wrap text-soft">Because: {format.name(entry.reason)}</p> : null}
        {entry.overturnedBy ? <p className="text-soft">Overturned by: {format.name(entry.overturnedBy)}</p> : null}
        {details.length > 0 ? <p className="text-sm">{details.join(' ')}</p> : null}
        {standing.kind === 'takenBack' ? <p className="text-sm">Taken back: {format.name(standing.reason)}</p> : null}
        <Subjects rows={rows} entry={entry} />
        <Pictures rows={rows} entry={entry} />
        {standing.kind === 'stands' ? <EntryTools {...{ entry, rows, actions }} /> : null}
      </div>
    </li>
  );
}

function EntryTools({ entry, rows, actions }: Omit<Shown, 'standing'>) {
  return (
    <div className="flex">
      <FormDialog wide title="Correct the entry" trigger={<Button look="quiet">Correct …</Button>}>
        {(close) => (
          <EntryForm
            rows={rows}
            corrects={correctedOf(rows, entry)}
            writeLogEntry={actions.writeLogEntry}
            done={close}
          />
        )}
      </FormDialog>
      <TakeBack
        what={`the ${entry.kind}`}
        row={{ jobId: entry.jobId, tableName: 'log_entry', rowId: entry.id }}
        withdraw={actions.withdraw}
      />
    </div>
  );
}

function Subjects({ rows, entry }: Pick<Shown, 'rows' | 'entry'>) {
  const format = useFormat();
  const subjects = subjectsOf(rows, entry);
  if (subjects.length === 0) return null;
  return (
    <p className="text-sm">
      {subjects.map(({ id, code, acceptedDeviation }) => (
        <span key={id} className="mr-3">
          <span className="font-mono">{code}</span>
          {acceptedDeviation === null ? '' : ` accepted at ${format.difference(acceptedDeviation)} ${format.unit}`}
        </span>
      ))}
    </p>
  );
}

const Pictures = ({ rows, entry }: Pick<Shown, 'rows' | 'entry'>) => (
  <div className="mt-1 flex flex-wrap gap-2">
    {rows.photographs
      .filter(({ entryId }) => entryId === entry.id)
      .map(({ id, name }) => (
        <a key={id} href={`/api/photographs/${id}`}>
          <img src={`/api/photographs/${id}?preview`} alt={name} className="h-32 border border-rule" />
        </a>
      ))}
  </div>
);
