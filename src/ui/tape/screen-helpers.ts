'use client';

import { useEffect, useRef, useState } from 'react';

/** Keeps the screen awake while measuring, where the browser can. */
export function useAwake(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    const ask = () => {
      if (document.visibilityState === 'visible')
        navigator.wakeLock
          .request('screen')
          .then((got) => (lock = got))
          .catch(() => undefined);
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      document.removeEventListener('visibilitychange', ask);
      void lock?.release().catch(() => undefined);
    };
  }, [wanted]);
}

/** Keys that work wherever the focus is; the newest meaning of each counts. */
export function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const act = event.ctrlKey || event.altKey || event.metaKey ? undefined : latest.current[event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

const SPEECH_KEY = 'vinkel.speech';

export interface Speech {
  readonly can: boolean;
  readonly on: boolean;
  readonly toggle: () => void;
  readonly say: (text: string) => void;
}

/** Speaks each number as it is taken, if wanted. */
export function useSpeech(): Speech {
  const can = 'speechSynthesis' in window;
  const [on, setOn] = useState(() => can && localStorage.getItem(SPEECH_KEY) === 'on');
  return {
    can,
    on,
    toggle: () => {
      localStorage.setItem(SPEECH_KEY, on ? 'off' : 'on');
      setOn(!on);
    },
    say: (text) => {
      if (!on) return;
      speechSynthesis.cancel();
      speechSynthesis.speak(new SpeechSynthesisUtterance(text));
    },
  };
}
