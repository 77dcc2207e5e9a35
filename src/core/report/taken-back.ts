import type { Withdrawal } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { WORK_WORD } from './vocabulary/words';

/** Something taken back, and what it was. */
export interface TakenBack {
  readonly what: string;
  readonly withdrawal: Withdrawal;
}

/** Whatever was taken back and not put back since: it is said, not wiped. */
export const takenBack = (job: Job): TakenBack[] =>
  job.rows.withdrawals
    .filter((each) => job.withdrawal(each.rowId) === each)
    .map((withdrawal) => ({ what: nameOf(job, withdrawal), withdrawal }));

/** What a taken back row was, in a few words. */
function nameOf({ rows }: Job, { tableName, rowId }: Withdrawal): string {
  const by = <Row extends { readonly id: string }>(list: readonly Row[]) => list.find(({ id }) => id === rowId);
  const code = (list: readonly { readonly id: string; readonly code: string }[], id: string | undefined) =>
    list.find((row) => row.id === id)?.code ?? '';
  switch (tableName) {
    case 'work_item':
      return `${WORK_WORD[by(rows.workItems)?.kind ?? 'panel']} ${by(rows.workItems)?.code ?? ''}`;
    case 'seam':
      return `seam ${code(rows.seams, rowId)}`;
    case 'part_tag':
      return `tag ${by(rows.partTags)?.number ?? ''}`;
    case 'log_entry':
      return `${by(rows.logEntries)?.kind ?? 'entry'} “${by(rows.logEntries)?.text ?? ''}”`;
    case 'work_event': {
      const event = by(rows.workEvents);
      const item = rows.workItems.find(({ id }) => id === event?.itemId);
      return `${WORK_WORD[item?.kind ?? 'panel']} ${item?.code ?? ''} ${event?.kind ?? ''}`;
    }
    case 'step_event': {
      const event = by(rows.stepEvents);
      return `“${rows.steps.find(({ id }) => id === event?.stepId)?.title ?? ''}” ${event?.kind ?? ''}`;
    }
  }
}
