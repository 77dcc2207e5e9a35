'use client';

import { useEffect, useRef, useState } from 'react';
import type { BoardState } from '@/formats/live';
import { useRoundChannel } from './round-channel';

/** Tells the boards of a round what the measuring screen shows, at every change and when one opens. */
export function useBoard(roundId: string, state: BoardState): void {
  const latest = useRef(state);
  const text = JSON.stringify(state);
  const tell = useRoundChannel(roundId, ({ kind }, answer) => {
    if (kind === 'hello') answer({ kind: 'board', roundId, state: latest.current });
  });
  useEffect(() => {
    latest.current = JSON.parse(text) as BoardState;
    tell({ kind: 'board', roundId, state: latest.current });
  }, [roundId, text, tell]);
}

/** Follows the measuring screen of a round from another window or another device. */
export function useFollowedBoard(roundId: string): BoardState | undefined {
  const [state, setState] = useState<BoardState>();
  const tell = useRoundChannel(roundId, (message) => {
    if (message.kind === 'board') setState(message.state);
  });
  useEffect(() => tell({ kind: 'hello', roundId }), [roundId, tell]);
  return state;
}
