'use client';

import { useEffect, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Agree } from '@/core/findings/analysis';
import type { AnalysisAnswer, AnalysisRequest } from '@/workers/analysis.worker';

/** Analyses a round in a worker; a newer question ends the one under way. */
export function useAnalysis(rows: JobRows, roundId: string, agree: Agree) {
  const [answer, setAnswer] = useState<AnalysisAnswer & { readonly of: JobRows; readonly agree: Agree }>();
  useEffect(() => {
    const started = new Worker(new URL('../../workers/analysis.worker.ts', import.meta.url), {
      type: 'module',
    });

    started.onmessage = ({ data }: MessageEvent<AnalysisAnswer>) => setAnswer({ ...data, of: rows, agree });
    const request: AnalysisRequest = { rows, roundId, agree };
    started.postMessage(request);
    return () => started.terminate();
  }, [rows, roundId, agree]);
  const current = answer?.of === rows && answer.agree === agree;
  return { analysis: answer?.analysis, milliseconds: answer?.milliseconds, busy: !current };
}

export type LiveAnalysis = ReturnType<typeof useAnalysis>;
