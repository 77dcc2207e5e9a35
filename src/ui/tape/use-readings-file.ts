'use client';

import { useEffect, useRef, useState } from 'react';
import { readTable, type ReadingsTable } from '@/formats/readings-import';
import { markWorking } from '../kit/ready';

export interface ReadingsFile {
  readonly table?: ReadingsTable;
  /** How much of the file is read, 0 … 1, while it is being read. */
  readonly share?: number;
  readonly fault?: string;
  /** Reads the first thousand of another file, or of none. */
  choose(file: File | undefined): void;
  /** Reads another thousand of the same file. */
  turn(part: number): void;
  cancel(): void;
}

/** A file of readings, a thousand rows at a time, with how far it is read. */
export function useReadingsFile(): ReadingsFile {
  const file = useRef<File>(undefined);
  const running = useRef<AbortController>(undefined);
  const [state, setState] = useState<Pick<ReadingsFile, 'table' | 'share' | 'fault'>>({});
  useEffect(() => () => running.current?.abort(), []);

  const read = async (part: number) => {
    running.current?.abort();
    if (!file.current) return setState({});
    const { signal } = (running.current = new AbortController());
    setState({ share: 0 });
    const done = markWorking();
    const onProgress = (share: number) => {
      if (!signal.aborted) setState({ share });
    };
    try {
      const table = await readTable(file.current, { part, signal, onProgress });
      if (!signal.aborted) setState({ table });
    } catch {
      if (!signal.aborted) setState({ fault: 'This file cannot be read: choose it again, or save it anew as CSV.' });
    } finally {
      done();
    }
  };
  return {
    ...state,
    choose: (chosen) => {
      file.current = chosen;
      void read(0);
    },
    turn: (part) => void read(part),
    cancel: () => {
      file.current = undefined;
      void read(0);
    },
  };
}
