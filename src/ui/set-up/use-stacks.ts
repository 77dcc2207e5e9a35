'use client';

import { useMemo, useState } from 'react';
import { buildSetUp, type Built } from '@/core/plan/set-up/build';
import { plannedMounts, weightOf, type PlannedSetUp, type SetUpPage } from '@/core/report/pages/set-up';
import { emptyJobRows } from '@/core/shell/job/job-rows';
import { placementOf } from '@/core/shell/set-up';
import { useTask, type TaskState } from '../kit/use-task';
import type { MountPlan } from './use-plan';

/** A search for the best of all ways to build a set-up. */
export interface StackSearch {
  readonly task: TaskState<Built>;
  readonly asked: boolean;
  readonly cancel: () => void;
  readonly ask: () => void;
}

/** What is dragged is not searched for at every step, ms. */
const STANDS_STILL = 300;
/** A search needs none of the job's rows. */
const NO_ROWS = emptyJobRows();

/**
 * What stands on the bench as it is in hand: a quick answer at once, and the best in its place once it is found, where the
 * quick one is not shown to be it.
 */
export function useStacks(
  page: SetUpPage,
  planned: PlannedSetUp,
  { mounts, pieces, saved }: MountPlan,
): { readonly built: Built; readonly search: StackSearch } {
  const { setUp, bench } = planned;
  const input = useMemo(
    () => ({
      on: { version: bench.version, items: bench.items, placement: placementOf(setUp) },
      mounts: plannedMounts({ mounts, pieces }, page.points),
      weight: weightOf(setUp, page.estimated),
    }),
    [bench, setUp, mounts, pieces, page],
  );
  const quick = useMemo(
    () => (saved ? planned.built : buildSetUp(input.on, input.mounts, input.weight)),
    [saved, planned.built, input],
  );
  const [cancelled, cancel] = useState<string>();
  const question = JSON.stringify(input);
  const asked = !quick.proven && cancelled !== question;
  const task = useTask('bestStacks', NO_ROWS, asked ? input : null, STANDS_STILL);
  return {
    built: asked && !task.busy && !task.failure && task.value ? task.value : quick,
    search: { task, asked, cancel: () => cancel(question), ask: () => cancel(undefined) },
  };
}
