'use client';

import { ClientOnly } from '../kit/client-only';
import { useFollowedBoard } from './board-channel';

/** The next two readings and the last value heard, as large as the window: read across the shop. */
export function Board({ roundId, title }: { roundId: string; title: string }) {
  return (
    <ClientOnly waiting={<p className="p-6">Looking for the measuring screen …</p>}>
      <Following roundId={roundId} title={title} />
    </ClientOnly>
  );
}

function Following({ roundId, title }: { roundId: string; title: string }) {
  const state = useFollowedBoard(roundId);
  return (
    <main className="flex min-h-dvh flex-col justify-between p-[3vw]">
      <h1 className="text-[2.2vw] text-soft">{title}</h1>
      {state ? (
        <>
          <p data-board-next className="font-mono text-[10vw] leading-none font-semibold">
            {state.next[0] ?? 'All read'}
          </p>
          <p className="font-mono text-[4.5vw] leading-none text-soft">
            {state.next[1] ? `then ${state.next[1]}` : ''}
          </p>
          <p data-board-last className="border-t-4 border-ink pt-[2vw] font-mono text-[8vw] leading-none">
            {state.last || '–'}
            <span className="text-[3vw] text-soft"> {state.last ? state.unit : ''}</span>
          </p>
          <p className="text-[2.4vw]">
            {state.doubts > 0 ? `${state.doubts} doubtful: look at the measuring screen when you like.` : ''}
          </p>
        </>
      ) : (
        <p className="text-[3vw]">
          Waiting for the measuring screen: open the round in another window, on whatever device.
        </p>
      )}
    </main>
  );
}
