import { Job } from '@/core/shell/job/job';
import type { ReactNode } from 'react';
import type { Rung } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { ladderOf } from '@/core/days/ladder';
import { takenBack } from '@/core/report/taken-back';
import type { Withdrawal } from '@/core/shell/job/entities';
import { setTimer } from '@/server/actions/calendar';
import { addStep, correctStep, recordStepEvent } from '@/server/actions/steps';
import { withdraw } from '@/server/actions/work';
import { Steps } from '@/ui/ladder/steps';
import { TakenBackList } from '@/ui/work/take-back';
import { RUNG_WORD } from '@/core/report/vocabulary/words';

/** A rung of the ladder: the place to work in where it has one, its steps and cautions, then the work that belongs to it. */
export function RungPage({
  rows,
  rung,
  place,
  children,
}: {
  rows: JobRows;
  rung: Rung;
  place?: ReactNode;
  children?: ReactNode;
}) {
  const job = Job.of(rows);
  const { steps } = ladderOf(job).rungs.find((each) => each.rung === rung)!;
  return (
    <div className="flex flex-col gap-6">
      <h1 className="text-2xl">{RUNG_WORD[rung]}</h1>
      {place}
      <Steps
        jobId={job.row.id}
        rung={rung}
        steps={steps}
        actions={{ addStep, correctStep, recordStepEvent, setTimer }}
      />
      {children}
      <TakenBackList
        list={takenBack(job).filter(({ withdrawal }) => rungOf(job, withdrawal) === rung)}
        withdraw={withdraw}
      />
    </div>
  );
}

/** Where what was taken back can be put back; the log has its own list. */
function rungOf(job: Job, { tableName, rowId }: Withdrawal): Rung | undefined {
  if (tableName === 'seam') return 'fit';
  if (tableName !== 'work_item' && tableName !== 'work_event') return undefined;
  const itemId = tableName === 'work_item' ? rowId : job.rows.workEvents.find(({ id }) => id === rowId)?.itemId;
  const kind = job.rows.workItems.find(({ id }) => id === itemId)?.kind;
  if (kind === 'hung') return 'fit';
  if (kind === 'crack' || kind === 'stiffener') return 'weld';
  return kind === 'pull' ? 'pull' : 'brace';
}

export type JobParams = { readonly params: Promise<{ job: string }> };
