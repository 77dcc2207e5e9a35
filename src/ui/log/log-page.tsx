'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { TakenBack } from '@/core/report/taken-back';
import type { LogEntry } from '@/core/shell/job/entities';
import { ClientOnly } from '../kit/client-only';
import { Empty } from '../kit/faults';
import { Tab, TabList, TabPanel, Tabs } from '../kit/tabs';
import { TakenBackList } from '../work/take-back';
import { Entry, type EntryActions, type LogRows, type Standing } from './entry';
import { EntryForm, type Acceptance } from './entry-form';
import { PartTags, type TagActions } from './part-tags';

interface LogPageProps {
  readonly rows: LogRows;
  readonly takenBack: readonly TakenBack[];
  readonly acceptance?: Acceptance;
  readonly actions: EntryActions & TagActions;
}

/** Findings, decisions and assumptions with their reasons and photographs, the newest first; the parts on the shelf. */
export function LogPage({ rows, takenBack, acceptance, actions }: LogPageProps) {
  const router = useRouter();
  const [written, setWritten] = useState(0);
  const standing = standings(rows.logEntries, takenBack);
  const lists = listsOf(rows, standing);
  const tags = rows.partTags.filter(({ id }) => !takenBack.some(({ withdrawal }) => withdrawal.rowId === id));
  const done = () => {
    setWritten(written + 1);
    router.replace(`/jobs/${rows.jobs[0]!.id}/log`);
  };
  return (
    <div className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(20rem,26rem)_1fr]">
      <ClientOnly waiting={<div />}>
        <EntryForm
          key={written}
          rows={rows}
          acceptance={acceptance}
          writeLogEntry={actions.writeLogEntry}
          done={done}
        />
      </ClientOnly>
      <Tabs defaultValue="all">
        <TabList label="The log" className="mb-2">
          {lists.map(({ name, entries }) => (
            <Tab key={name} value={name}>
              {LIST_WORD[name]} ({entries.length})
            </Tab>
          ))}
          <Tab value="parts">Parts taken off ({tags.length})</Tab>
        </TabList>
        {lists.map(({ name, entries }) => (
          <TabPanel key={name} value={name} aria-label="Entries">
            {entries.length === 0 ? <Empty title={NOTHING[name].title}>{NOTHING[name].text}</Empty> : null}
            <ol className="border-t-2 border-ink">
              {entries.map((entry) => (
                <Entry key={entry.id} {...{ entry, rows, actions }} standing={standing.get(entry.id)!} />
              ))}
            </ol>
          </TabPanel>
        ))}
        <TabPanel value="parts">
          <PartTags jobId={rows.jobs[0]!.id} tags={tags} actions={actions} />
        </TabPanel>
        <TakenBackList list={takenBack} withdraw={actions.withdraw} />
      </Tabs>
    </div>
  );
}

type ListName = 'all' | 'assumptions' | 'otherSide';
const LIST_WORD: Readonly<Record<ListName, string>> = {
  all: 'The log',
  assumptions: 'Assumptions',
  otherSide: 'Look at the other side',
};
const NOTHING: Readonly<Record<ListName, { readonly title: string; readonly text: string }>> = {
  all: { title: 'Nothing is written down yet', text: 'Findings keep being added: write each where it was found.' },
  assumptions: {
    title: 'Nothing is assumed',
    text: 'What is called close, or taken to be sound, belongs here: with the reason, and with what would overturn it.',
  },
  otherSide: {
    title: 'Nothing waits for its other side',
    text: 'A finding seen on one side is listed here until the other was looked at.',
  },
};

function standings(entries: readonly LogEntry[], takenBack: readonly TakenBack[]): Map<string, Standing> {
  const corrected = new Set(entries.map(({ supersedes }) => supersedes));
  return new Map(
    entries.map(({ id }): [string, Standing] => {
      const back = takenBack.find(({ withdrawal }) => withdrawal.rowId === id);
      if (back) return [id, { kind: 'takenBack', reason: back.withdrawal.reason }];
      return [id, { kind: corrected.has(id) ? 'corrected' : 'stands' }];
    }),
  );
}

function listsOf(rows: LogRows, standing: ReadonlyMap<string, Standing>) {
  const newest = rows.logEntries.toReversed();
  const stands = newest.filter(({ id }) => standing.get(id)?.kind === 'stands');
  const oneSided = new Set(rows.findingDetails.filter(({ otherSide }) => otherSide).map(({ entryId }) => entryId));
  return [
    { name: 'all', entries: newest },
    { name: 'assumptions', entries: stands.filter(({ kind }) => kind === 'assumption') },
    { name: 'otherSide', entries: stands.filter(({ id }) => oneSided.has(id)) },
  ] as const satisfies readonly { name: ListName; entries: readonly LogEntry[] }[];
}
