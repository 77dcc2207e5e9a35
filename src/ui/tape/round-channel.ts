import { useCallback, useEffect, useRef } from 'react';
import type { Relayed } from '@/formats/live';
import { useLive } from '../live/live';

const name = (roundId: string) => `vinkel.round.${roundId}`;

type Tell = (message: Relayed) => void;

/**
 * What the windows of a round tell each other: those of this browser also while the program is away, those on other devices
 * through it.
 *
 * @param hear called with what another window told, and the way to answer
 * @returns the way to tell them
 */
export function useRoundChannel(roundId: string, hear: (message: Relayed, answer: Tell) => void): Tell {
  const live = useLive();
  const channel = useRef<BroadcastChannel | undefined>(undefined);
  const tell = useCallback<Tell>(
    (message) => {
      channel.current?.postMessage(message);
      live.tell(message);
    },
    [live],
  );
  const latest = useRef(hear);
  useEffect(() => {
    latest.current = hear;
  });
  useEffect(() => {
    const opened = new BroadcastChannel(name(roundId));
    channel.current = opened;
    const heard = (message: Relayed) => {
      if (message.roundId === roundId) latest.current(message, tell);
    };
    opened.onmessage = ({ data }: MessageEvent<Relayed>) => heard(data);
    const silence = live.listen((event) => {
      if (event.kind === 'hello' || event.kind === 'board' || event.kind === 'walk') heard(event);
    });
    return () => {
      opened.close();
      silence();
    };
  }, [roundId, live, tell]);
  return tell;
}
