import { useEffect, useState } from 'react';

const BEAT = 60;

/** From −1 to 1 and back while it plays; all the way out while it does not. */
export function usePlaying() {
  const [playing, setPlaying] = useState(false);
  const [beat, setBeat] = useState(0);
  useEffect(() => {
    if (!playing) return undefined;
    const timer = setInterval(() => setBeat((last) => last + 1), BEAT);
    return () => clearInterval(timer);
  }, [playing]);
  return { playing, phase: playing ? Math.sin(beat / 6) : 1, toggle: () => setPlaying(!playing) };
}
