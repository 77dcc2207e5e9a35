'use client';

import { Job } from '@/core/shell/job/job';
import { useMemo, useState } from 'react';
import type { Round } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { chartedTargets, openTargets, type Target } from '@/core/walk/targets';
import type { Relayed } from '@/formats/live';
import { useRoundChannel } from './round-channel';
import type { LiveJudgement } from './use-judgement';

export const SOURCES = ['walk', 'charted', 'helpful'] as const;
/** Where the next readings come from: the walk over the whole chart, its lengths, or what helps most. */
export type Source = (typeof SOURCES)[number];

const key = (roundId: string) => `vinkel.walk.${roundId}`;

interface Kept {
  readonly source: Source;
  readonly skipped: readonly string[];
}

function kept(roundId: string): Kept {
  try {
    return { source: 'walk', skipped: [], ...JSON.parse(localStorage.getItem(key(roundId)) ?? '{}') };
  } catch {
    return { source: 'walk', skipped: [] };
  }
}

/** The walk as other windows are told of it. */
const walkOf = (roundId: string, { source, skipped }: Kept, pressing: readonly Target[]): Relayed => ({
  ...{ kind: 'walk', roundId },
  state: { source, skipped: [...skipped], pressing: pressing.map((each) => ({ ...each, codes: [...each.codes] })) },
});

/** The readings still to take, in order, and the ways to change that order. */
export function useTargets(rows: JobRows, round: Round, live: LiveJudgement) {
  const [state, setState] = useState<Kept>(() => kept(round.id));
  const [pressing, setPressing] = useState<readonly Target[]>([]);
  const keep = (next: Kept) => {
    setState(next);
    localStorage.setItem(key(round.id), JSON.stringify(next));
  };
  // One calls out at the gauge and another types: both are asked for the same.
  const tell = useRoundChannel(round.id, (message, answer) => {
    if (message.kind === 'hello') answer(walkOf(round.id, state, pressing));
    if (message.kind !== 'walk') return;
    keep({ source: message.state.source, skipped: message.state.skipped });
    setPressing(message.state.pressing as unknown as readonly Target[]);
  });
  const tellWalk = (next: Kept, first: readonly Target[]) => tell(walkOf(round.id, next, first));
  const change = (some: Partial<Kept>) => {
    const next = { ...state, ...some };
    keep(next);
    tellWalk(next, pressing);
  };
  const press = (first: readonly Target[]) => {
    setPressing(first);
    tellWalk(state, first);
  };
  const listed = useMemo((): readonly Target[] => {
    const charted = chartedTargets(Job.of(rows), round);
    if (state.source === 'charted') return charted;
    const helpful = live.helpful.map(({ what }) => what);
    if (state.source === 'helpful') return helpful;
    // Nothing is led to before the walk is planned: a pair that changes under the hand is read wrongly.
    if (!live.walk) return [];
    return live.walk.length > 0 ? live.walk : charted;
  }, [rows, round, state.source, live.walk, live.helpful]);
  const skipped = useMemo(() => new Set(state.skipped), [state.skipped]);
  const open = useMemo(() => openTargets(Job.of(rows), round, listed, skipped), [rows, round, listed, skipped]);
  // Everything asked for is read: what helps most goes on from there.
  const queue = useMemo(
    () => [...pressing, ...(open.length > 0 || state.source !== 'walk' ? open : live.helpful.map(({ what }) => what))],
    [pressing, open, state.source, live.helpful],
  );
  const planning = state.source === 'walk' && !live.walk && pressing.length === 0;
  const leading = planning ? undefined : queue[0];
  const [pinned, pin] = useState<Target>();
  const current = pinned ?? leading;
  return {
    queue,
    current,
    planning,
    /** While a line is being typed, the target it answers stays, whatever is planned meanwhile. */
    typing: (busy: boolean) => pin(busy ? (pinned ?? leading) : undefined),
    total: listed.length,
    open: open.length,
    source: state.source,
    choose: (source: Source) => change({ source }),
    skip: () => {
      if (!current) return;
      pin(undefined);
      if (pressing.length > 0) press(pressing.slice(1));
      else change({ skipped: [...state.skipped.filter((each) => each !== current.key), current.key] });
    },
    /** The last one skipped comes back. */
    back: () => {
      pin(undefined);
      change({ skipped: state.skipped.slice(0, -1) });
    },
    canGoBack: state.skipped.length > 0,
    /** These come first, whatever the list says. */
    press: (targets: readonly Target[]) => {
      pin(undefined);
      press([...targets, ...pressing]);
    },
    /** A reading of this was taken: it is no longer pressing. */
    taken: (target: Pick<Target, 'key'>) =>
      setPressing((all) => {
        const i = all.findIndex((each) => each.key === target.key);
        return i < 0 ? all : [...all.slice(0, i), ...all.slice(i + 1)];
      }),
  };
}

export type Targets = ReturnType<typeof useTargets>;
