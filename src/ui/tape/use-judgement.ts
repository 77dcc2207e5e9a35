'use client';

import { useMemo } from 'react';
import type { MeasureProposal } from '@/core/plan/measure-next';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Aim, Target } from '@/core/walk/targets';
import type { People } from '@/core/walk/stretches';
import type { HandSpread } from '@/workers/tasks';
import { useSame } from '../kit/use-same';
import { askAhead, useTask } from '../kit/use-task';

export interface LiveJudgement {
  readonly judgement?: RoundJudgement;
  /** How long the last solution took in the worker, ms. */
  readonly milliseconds?: number;
  readonly walk?: readonly Target[];
  readonly helpful: readonly MeasureProposal[];
}

const PROPOSALS = 6;
/** What to measure next is worked out when no newer reading has come for so long, ms. */
const PAUSE = 60;
const NONE: readonly MeasureProposal[] = [];

/** What the measuring screen has in its hands and wants of them. */
export interface LiveAsk {
  readonly hands: HandSpread;
  /** Versions of the instruments in the hand. */
  readonly versionIds: readonly string[];
  readonly aim: Aim;
  readonly people: People;
}

const judgedBy = (roundId: string) => ({ roundId, warm: true });

/** Begins to judge a round before the page is drawn with what was typed. */
export const judgeAhead = (rows: JobRows, roundId: string): void => askAhead('judge', rows, judgedBy(roundId));

/**
 * Judges the round in a worker after every change of the tape; then, once the hand rests, works out what to measure
 * next. The walk hangs on nothing that is read, so that it is planned anew only when its own rows change.
 */
export function useJudgement(
  rows: JobRows,
  roundId: string,
  { hands, versionIds, aim, people }: LiveAsk,
): LiveJudgement {
  const judged = useTask('judge', rows, judgedBy(roundId));
  const walk = useTask('walk', useUnread(rows), { roundId, hands, people });
  const ready = !judged.busy && judged.value;
  const helpful = useTask('measureNext', rows, ready ? { roundId, versionIds, aim, count: PROPOSALS } : null, PAUSE);
  return {
    ...(judged.value ? { judgement: judged.value.value, milliseconds: judged.value.milliseconds } : {}),
    ...(walk.value ? { walk: walk.value } : {}),
    helpful: helpful.value ?? NONE,
  };
}

/** What the walk is planned from. */
const WALKED = [
  ...(['jobs', 'points', 'pointConditions', 'dimensions'] as const),
  ...(['referencePoints', 'referenceDimensions', 'references', 'referenceChoices'] as const),
] as const;

/** The rows the walk is planned from, the same ones for as long as these say the same, whatever is read meanwhile. */
function useUnread(rows: JobRows): JobRows {
  const unread = useMemo(() => withoutReadings(rows), [rows]);
  return useSame(unread, (a, b) =>
    WALKED.every((table) => a[table] === b[table] || JSON.stringify(a[table]) === JSON.stringify(b[table])),
  );
}

const withoutReadings = (rows: JobRows): JobRows => ({ ...rows, readings: [], readingStrikes: [], readingKeeps: [] });
