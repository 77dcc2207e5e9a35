'use client';

import { useRouter } from 'next/navigation';
import { createContext, useContext, useEffect, useMemo, useRef, useState, useTransition, type ReactNode } from 'react';
import { WINDOW } from './window';
import { WINDOW_HEADER, type HereNow, type LiveEvent, type Relayed } from '@/formats/live';

type Hear = (event: LiveEvent) => void;

interface LiveValue {
  /** Hears everything until the way back is called. */
  readonly listen: (hear: Hear) => () => void;
  /** Tells the other windows of the job. */
  readonly tell: (message: Relayed) => void;
  /** This window shows the lines of a tape itself: it need not be fetched anew for each. */
  readonly takesLines: (takes: boolean) => void;
}

const NOTHING: LiveValue = { listen: () => () => undefined, tell: () => undefined, takesLines: () => undefined };
const Context = createContext<LiveValue>(NOTHING);
const Others = createContext<readonly HereNow[]>([]);

export const useLive = (): LiveValue => useContext(Context);

/** Who else has the job open. */
const useOthersHere = (): readonly HereNow[] => useContext(Others);

/** A moment that comes once. */
function aMoment() {
  let now = (): void => undefined;
  const then = new Promise<void>((resolve) => (now = resolve));
  return { now: () => now(), then };
}

/** What comes close together is fetched once, ms. */
const TOGETHER = 10;
/**
 * While others read line after line, a page that only looks on rests so many times as long as it took to fetch: twenty tapes
 * would have every open page made anew twenty times a second otherwise.
 */
const RESTS = 10;

interface LiveProps {
  readonly jobId: string;
  /** The state of the data the page was made of. */
  readonly revision: number;
  readonly children: ReactNode;
}

/**
 * Keeps an open page of a job as the job is: while the window is seen it hears what happens and fetches the page anew; what
 * is typed in it stays. A window that is not seen hears nothing and catches up when it is seen again.
 */
export function Live({ jobId, revision, children }: LiveProps) {
  const router = useRouter();
  const [others, setOthers] = useState<readonly HereNow[]>([]);
  const hearers = useRef(new Set<Hear>());
  const drawsLines = useRef(false);
  const shown = useRef(revision);
  const company = useRef(false);
  const [pending, start] = useTransition();
  const fetching = useRef(false);
  const fetched = useRef({ begun: 0, restsUntil: 0 });
  useEffect(() => {
    if (fetching.current && !pending) {
      const now = performance.now();
      fetched.current.restsUntil = now + RESTS * (now - fetched.current.begun);
    }
    fetching.current = pending;
  }, [pending]);
  const opened = useRef(aMoment());
  useEffect(() => {
    shown.current = revision;
  }, [revision]);

  useEffect(() => {
    let source: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let due = Infinity;
    const fetchAnew = (known: number, rests: boolean) => {
      // What may rest does not put off what is due before.
      const wait = rests ? fetched.current.restsUntil - performance.now() : 0;
      due = Math.min(due, performance.now() + Math.max(TOGETHER, wait));
      clearTimeout(timer);
      timer = setTimeout(() => {
        due = Infinity;
        // One after another: a page that takes long is not asked for again before it is there.
        if (fetching.current) return fetchAnew(known, rests);
        if (shown.current === known) return;
        fetched.current.begun = performance.now();
        start(() => router.refresh());
      }, due - performance.now());
    };
    const hear = (event: LiveEvent) => {
      opened.current.now();
      if (event.kind === 'here') {
        company.current = event.others.length > 0;
        // Told the same again, nothing is drawn anew: a page that is still coming would be begun from the start.
        setOthers((before) => (JSON.stringify(before) === JSON.stringify(event.others) ? before : event.others));
      }
      if (event.kind === 'rows' && event.revision !== shown.current && !(event.tape && drawsLines.current))
        fetchAnew(event.revision, event.tape);
      for (const hearer of hearers.current) hearer(event);
    };
    const follow = () => {
      const isSeen = document.visibilityState === 'visible';
      if (isSeen && !source) {
        source = new EventSource(`/api/jobs/${jobId}/live?window=${WINDOW}`);
        source.onmessage = ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as LiveEvent);
      }
      if (!isSeen) {
        source?.close();
        source = undefined;
        company.current = false;
        setOthers((before) => (before.length === 0 ? before : []));
      }
    };
    follow();
    document.addEventListener('visibilitychange', follow);
    return () => {
      clearTimeout(timer);
      source?.close();
      document.removeEventListener('visibilitychange', follow);
    };
  }, [jobId, router]);

  const value = useMemo(
    (): LiveValue => ({
      listen: (hear) => {
        hearers.current.add(hear);
        return () => void hearers.current.delete(hear);
      },
      tell: (message) => {
        const send = () =>
          void fetch(`/api/jobs/${jobId}/live`, {
            method: 'POST',
            headers: { 'content-type': 'application/json', [WINDOW_HEADER]: WINDOW },
            body: JSON.stringify(message),
          }).catch(() => undefined);
        // Whoever asks must be able to hear the answer; whoever is alone has nobody to tell.
        if (message.kind === 'hello') void opened.current.then.then(send);
        else if (company.current) send();
      },
      takesLines: (takes) => void (drawsLines.current = takes),
    }),
    [jobId],
  );
  return (
    <Context.Provider value={value}>
      <Others.Provider value={others}>{children}</Others.Provider>
    </Context.Provider>
  );
}

/** Who else has the job open, by name. */
export function OthersHere() {
  const others = useOthersHere();
  if (others.length === 0) return null;
  const names = others.map(({ name, windows }) => (windows > 1 ? `${name} ×${windows}` : name));
  return (
    <p className="no-print caps truncate" data-here role="status">
      Also here: {names.join(', ')}
    </p>
  );
}
