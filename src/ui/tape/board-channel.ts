'use client';

import { useEffect, useRef, useState } from 'react';

/** What is read across the shop. */
export interface BoardState {
  readonly next: readonly string[];
  readonly last: string;
  readonly unit: string;
  readonly doubts: number;
}

type Message = { readonly kind: 'hello' } | { readonly kind: 'state'; readonly state: BoardState };
const name = (roundId: string) => `vinkel.board.${roundId}`;

/** Tells the boards of a round what the measuring screen shows, at every change and when one opens. */
export function useBoard(roundId: string, state: BoardState): void {
  const channel = useRef<BroadcastChannel | undefined>(undefined);
  const latest = useRef(state);
  const text = JSON.stringify(state);
  useEffect(() => {
    const opened = new BroadcastChannel(name(roundId));
    channel.current = opened;
    opened.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.kind === 'hello') opened.postMessage({ kind: 'state', state: latest.current });
    };
    return () => opened.close();
  }, [roundId]);
  useEffect(() => {
    latest.current = JSON.parse(text) as BoardState;
    channel.current?.postMessage({ kind: 'state', state: latest.current });
  }, [text]);
}

/** Follows the measuring screen of a round from another window. */
export function useFollowedBoard(roundId: string): BoardState | undefined {
  const [state, setState] = useState<BoardState>();
  useEffect(() => {
    const channel = new BroadcastChannel(name(roundId));
    channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.kind === 'state') setState(data.state);
    };
    channel.postMessage({ kind: 'hello' });
    return () => channel.close();
  }, [roundId]);
  return state;
}
