'use client';

import { useEffect, useState } from 'react';
import type { Timer } from '@/core/shell/job/entities';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';

interface BellProps {
  readonly timers: readonly Timer[];
  readonly hearTimer: CalendarActions['hearTimer'];
}

const LOOKS_EVERY = 1000;
/** It sounds again so often until somebody heard it, ms. */
const SOUNDS_EVERY = 4000;

/** Timers that are over: said on every page of the job, and sounded, until somebody heard them. */
export function Bell({ timers, hearTimer }: BellProps) {
  const format = useFormat();
  const { run, faults, pending } = useAction(hearTimer);
  // What has rung is known in the browser alone: the page as the server sends it is silent.
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (timers.length === 0) return;
    const tick = setInterval(() => setNow(Date.now()), LOOKS_EVERY);
    return () => clearInterval(tick);
  }, [timers]);
  const over = timers.filter(({ ringsAt }) => Date.parse(ringsAt) <= now);
  const isRinging = over.length > 0;
  useEffect(() => {
    if (!isRinging) return;
    sound();
    const again = setInterval(sound, SOUNDS_EVERY);
    return () => clearInterval(again);
  }, [isRinging]);
  if (!isRinging) return null;
  return (
    <div role="alert" aria-label="Timers that are over" className="no-print border-b-2 border-ink bg-lit px-4 py-2">
      {over.map(({ id, name, ringsAt }) => (
        <p key={id} className="flex flex-wrap items-center gap-3" data-rings={name}>
          <span className="font-semibold">{format.name(name)}</span>
          <span>since {format.time(ringsAt)}</span>
          <Button disabled={pending} aria-label={`Heard: ${name}`} onClick={() => run({ id })}>
            Heard
          </Button>
        </p>
      ))}
      <Faults faults={faults} />
    </div>
  );
}

/** Two short tones; silent where the browser lets no page sound that nobody touched yet. */
function sound(): void {
  try {
    const context = new AudioContext();
    const loudness = context.createGain();
    loudness.gain.value = 0.2;
    loudness.connect(context.destination);
    for (const start of [0, 0.35]) {
      const tone = context.createOscillator();
      tone.frequency.value = 880;
      tone.connect(loudness);
      tone.start(context.currentTime + start);
      tone.stop(context.currentTime + start + 0.2);
    }
    setTimeout(() => void context.close(), 1000);
  } catch {
    // It is said on the page all the same.
  }
}
