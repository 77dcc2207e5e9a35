'use client';

import type { Agree, RoundAnalysis } from '@/core/findings/analysis';
import type { JobRows } from '@/core/shell/job/job-rows';
import { useTask } from '../kit/use-task';

export interface LiveAnalysis {
  readonly analysis?: RoundAnalysis;
  readonly milliseconds?: number;
  readonly busy: boolean;
  readonly failure?: string;
}

/** What a round says beyond single figures, with the control points as they are ticked. */
export function useAnalysis(rows: JobRows, roundId: string, control: readonly string[], agree: Agree): LiveAnalysis {
  const { value, busy, failure } = useTask('analyse', rows, { roundId, control, agree });
  return {
    ...(value ? { analysis: value.value, milliseconds: value.milliseconds } : {}),
    busy,
    ...(failure ? { failure } : {}),
  };
}
