'use client';

import { useEffect, useRef, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import type { Aim, Target } from '@/core/walk/targets';
import type { JudgeAnswer, JudgeRequest } from '@/workers/judge.worker';

export interface LiveJudgement {
  readonly judgement?: RoundJudgement;
  /** How long the last solution took in the worker, ms. */
  readonly milliseconds?: number;
  readonly walk?: readonly Target[];
  readonly helpful: readonly Target[];
}

/**
 * Judges the round in a worker after every change of the tape. While one run is under way only the newest
 * state waits; those in between are dropped.
 */
export function useJudgement(
  rows: JobRows,
  roundId: string,
  { constant, perMetre, height }: JudgeRequest['hands'],
  planKey: string,
  { of, plusMinus }: Aim,
): LiveJudgement {
  const [live, setLive] = useState<LiveJudgement>({ helpful: [] });
  const worker = useRef<Worker | undefined>(undefined);
  const busy = useRef(false);
  const waiting = useRef<JudgeRequest | undefined>(undefined);

  useEffect(() => {
    const started = new Worker(new URL('../../workers/judge.worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current = started;
    busy.current = false;
    started.onmessage = ({ data }: MessageEvent<JudgeAnswer>) => {
      if (data.kind !== 'judged') {
        setLive((all) => ({ ...all, [data.kind]: data.targets }));
        return;
      }
      setLive((all) => ({
        ...all,
        judgement: data.judgement,
        milliseconds: data.milliseconds,
      }));
      const request = waiting.current;
      waiting.current = undefined;
      busy.current = request !== undefined;
      if (request) started.postMessage(request);
    };
    return () => started.terminate();
  }, []);

  useEffect(() => {
    const request: JudgeRequest = {
      rows,
      roundId,
      hands: { constant, perMetre, height },
      aim: { of, plusMinus },
      planKey,
    };
    if (busy.current) {
      waiting.current = request;
      return;
    }
    busy.current = true;
    worker.current?.postMessage(request);
  }, [rows, roundId, constant, perMetre, height, of, plusMinus, planKey]);

  return live;
}
