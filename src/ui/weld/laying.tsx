import { useEffect, useState } from 'react';
import { clock } from '@/core/report/weld-words';
import type { WeldPlan } from '@/core/plan/weld-order/schools';
import { Button } from '../kit/button';

/** So many seconds of welding to one of playing. */
const FASTER = 30;
/** It is looked at so long after the last, s. */
const AFTER = 60;

/** A moment of the welding of a seam, which moves by itself while it plays. */
export interface Laying {
  readonly now: number;
  readonly end: number;
  readonly playing: boolean;
  readonly toggle: () => void;
  readonly moveTo: (now: number) => void;
}

export function useLaying({ finished }: Pick<WeldPlan, 'finished'>): Laying {
  const [now, setNow] = useState(finished);
  const [playing, setPlaying] = useState(false);
  const end = finished + AFTER;
  useEffect(() => {
    if (!playing) return;
    const timer = setInterval(() => setNow((at) => (at + FASTER / 20 >= end ? end : at + FASTER / 20)), 50);
    return () => clearInterval(timer);
  }, [playing, end]);
  const toggle = () => {
    if (!playing && now >= finished) setNow(0);
    setPlaying(!playing);
  };
  return { now, end, playing, toggle, moveTo: setNow };
}

/** Plays a welding through, or puts it at a moment. */
export const LayingControls = ({ laying, label }: { readonly laying: Laying; readonly label: string }) => (
  <>
    <Button onClick={laying.toggle}>{laying.playing ? 'Stop' : 'Play it through'}</Button>
    <input
      type="range"
      className="min-h-11 w-64 accent-ink"
      aria-label={label}
      aria-valuetext={clock(laying.now)}
      min={0}
      max={laying.end}
      step={0.5}
      value={laying.now}
      onChange={({ target }) => laying.moveTo(Number(target.value))}
    />
    <span className="num">{clock(laying.now)}</span>
  </>
);
