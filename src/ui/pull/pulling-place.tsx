'use client';

import { useState } from 'react';
import type { PullingPage } from '@/core/report/pages/pulling';
import { whyNotText } from '@/core/report/pull-words';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Empty } from '../kit/faults';
import { TaskRunning } from '../kit/task-running';
import { unpacked } from '../kit/unpacked';
import { useTask } from '../kit/use-task';
import type { PullActions } from './actions';
import { PullCard } from './pull-card';
import { PlanPull } from './pull-form';
import { PullPlans } from './pull-plans';

interface PlaceProps {
  readonly rows: JobRows;
  readonly page: PullingPage;
  readonly actions: PullActions;
}

/** The one place for pulls: the shell as it is, what is proposed, and what every planned pull does. */
export const PullingPlace = unpacked(Place);

function Place({ rows, page, actions }: PlaceProps) {
  const { pulls, picture } = page;
  const [asked, ask] = useState(true);
  const advising = useTask('advisePulls', rows, picture && !page.why && asked ? undefined : null);
  const advice = advising.value?.ok ? advising.value.advice : undefined;
  const why = page.why ?? (advising.value?.ok === false ? advising.value : undefined);
  return (
    <section aria-label="Pulling" className="flex flex-col gap-6">
      {why ? (
        <p role="status" className="border-l-4 border-rule pl-3">
          {whyNotText(why)}
        </p>
      ) : null}
      {picture ? <PullPlans {...{ rows, page, picture, actions, advice }} /> : null}
      {picture && !page.why ? (
        <TaskRunning
          {...{ task: advising, asked }}
          ask="Propose pulls"
          doing="Trying pulls on the structure"
          onCancel={() => ask(false)}
          onAsk={() => ask(true)}
        />
      ) : null}
      <section aria-label="Pulls" className="flex flex-col gap-4">
        <div className="flex items-center gap-3">
          <h2 className="text-xl">Pulls</h2>
          <PlanPull {...{ page, actions }} />
        </div>
        {pulls.length === 0 ? (
          <Empty title="No pull is planned">
            {page.roundId
              ? 'Take one that is proposed, or plan one at a point that deviates.'
              : 'Measure and align a round first: a pull starts from a deviation.'}
          </Empty>
        ) : null}
        {pulls.map((view) => (
          <PullCard key={view.pull.id} {...{ page, view, actions }} />
        ))}
      </section>
    </section>
  );
}
