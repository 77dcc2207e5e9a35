import { Job } from '@/core/shell/job/job';
import type { ReactNode } from 'react';
import type { Rung } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { ladderOf } from '@/core/days/ladder';
import { addStep, recordStepEvent } from '@/server/actions/steps';
import { Steps } from '@/ui/ladder/steps';
import { RUNG_WORD } from '@/core/report/vocabulary/words';

/** A rung of the ladder: its steps and cautions, then the work that belongs to it. */
export function RungPage({ rows, rung, children }: { rows: JobRows; rung: Rung; children?: ReactNode }) {
  const { steps } = ladderOf(Job.of(rows)).rungs.find((each) => each.rung === rung)!;
  return (
    <div className="flex flex-col gap-6">
      <h1 className="text-2xl">{RUNG_WORD[rung]}</h1>
      <Steps jobId={rows.jobs[0]!.id} rung={rung} steps={steps} addStep={addStep} recordStepEvent={recordStepEvent} />
      {children}
    </div>
  );
}

export type JobParams = { readonly params: Promise<{ job: string }> };
