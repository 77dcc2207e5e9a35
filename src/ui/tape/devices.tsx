'use client';

import { useEffect, useRef, useState } from 'react';
import { readDeviceLine, splitLines, USUAL_PATTERN } from '@/core/shell/shorthand/device-line';
import { seeded } from '@/core/maths/random/seeded';
import { simulateReading, type TrueShell } from '@/core/practice/instrument';
import { position, type Position, type Vector } from '@/core/maths/geometry/vector';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Target } from '@/core/walk/targets';
import { Button } from '../kit/button';
import { SelectField, TextField } from '../kit/field';

/** What the browser's serial port offers, as far as it is used here. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}
type WithSerial = Navigator & { readonly serial?: { requestPort(): Promise<SerialPort> } };

const PATTERN_KEY = 'vinkel.device.pattern';
const RATES = ['1200', '2400', '4800', '9600', '19200', '57600', '115200'];

/**
 * Instruments that type by themselves. One that acts as a keyboard needs nothing: its number lands in
 * the field. One on a serial line is read through a pattern; a simulated one sends the same kind of line.
 */
export function Devices({
  rows,
  jobId,
  target,
  sd,
  onAmount,
}: {
  rows: JobRows;
  jobId: string;
  target?: Target;
  sd: number;
  onAmount: (amount: string, takeIt: boolean) => void;
}) {
  const [pattern, setPattern] = useState(() => localStorage.getItem(PATTERN_KEY) ?? USUAL_PATTERN);
  const [sample, setSample] = useState('+01011.5 mm');
  const [takeIt, setTakeIt] = useState(true);
  const [said, setSaid] = useState('');
  const tried = readDeviceLine(sample, pattern);
  const arrive = (line: string) => {
    const read = readDeviceLine(line, pattern);
    setSaid(read.ok ? `“${line.trim()}” came: ${read.amount}` : read.reason);
    if (read.ok) onAmount(read.amount, takeIt);
  };
  return (
    <div className="grid gap-4 md:grid-cols-2">
      <section aria-label="Line pattern" className="flex flex-col gap-2">
        <TextField
          label="Pattern of a line: number in the first brackets, unit in the second"
          value={pattern}
          spellCheck={false}
          onChange={(event) => {
            setPattern(event.target.value);
            localStorage.setItem(PATTERN_KEY, event.target.value);
          }}
          error={tried.ok ? undefined : tried.reason}
        />
        <TextField
          label="Try it on"
          value={sample}
          onChange={(event) => setSample(event.target.value)}
          hint={tried.ok ? `would land as ${tried.amount}` : undefined}
        />
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5"
            checked={takeIt}
            onChange={(event) => setTakeIt(event.target.checked)}
          />{' '}
          take it at once, without Enter
        </label>
        <p role="status" className="text-sm">
          {said}
        </p>
      </section>
      <div className="flex flex-col gap-4">
        <Serial onLine={arrive} />
        <Simulated rows={rows} jobId={jobId} target={target} sd={sd} onLine={arrive} />
      </div>
    </div>
  );
}

function Serial({ onLine }: { onLine: (line: string) => void }) {
  const [rate, setRate] = useState('9600');
  const [state, setState] = useState<'idle' | 'open'>('idle');
  const [fault, setFault] = useState('');
  const port = useRef<SerialPort | undefined>(undefined);
  const reader = useRef<ReadableStreamDefaultReader<Uint8Array> | undefined>(undefined);
  const latest = useRef(onLine);
  useEffect(() => {
    latest.current = onLine;
  });
  useEffect(() => () => void reader.current?.cancel().catch(() => undefined), []);
  const { serial } = navigator as WithSerial;
  if (!serial)
    return (
      <p className="text-sm text-soft">
        This browser has no serial port. An instrument that acts as a keyboard works all the same.
      </p>
    );
  const connect = async () => {
    setFault('');
    try {
      const opened = await serial.requestPort();
      await opened.open({ baudRate: Number(rate) });
      port.current = opened;
      setState('open');
      reader.current = opened.readable!.getReader();
      const decoder = new TextDecoder();
      let buffer = '';
      for (;;) {
        const { value, done } = await reader.current.read();
        if (done) break;
        const { lines, rest } = splitLines(buffer + decoder.decode(value, { stream: true }));
        buffer = rest;
        lines.forEach((line) => latest.current(line));
      }
    } catch (error) {
      if ((error as Error).name !== 'NotFoundError')
        setFault('The instrument cannot be read: is another program using it?');
    } finally {
      reader.current?.releaseLock();
      await port.current?.close().catch(() => undefined);
      setState('idle');
    }
  };
  return (
    <section aria-label="Serial instrument" className="flex flex-wrap items-end gap-2">
      <SelectField
        label="Serial instrument, speed"
        value={rate}
        onChange={(event) => setRate(event.target.value)}
        options={RATES.map((each) => [each, each])}
      />
      {state === 'idle' ? (
        <Button onClick={() => void connect()}>Connect …</Button>
      ) : (
        <Button onClick={() => void reader.current?.cancel()}>Disconnect</Button>
      )}
      {fault ? (
        <p role="alert" className="w-full text-sm text-minus">
          {fault}
        </p>
      ) : null}
    </section>
  );
}

/** The true shell with the substitutes made since: each stands a little beside its point. */
function withSubstitutes(truth: TrueShell, { points }: Pick<JobRows, 'points'>): TrueShell {
  const codeOf = new Map(points.map(({ id, code }) => [id, code]));
  const added = points.flatMap(({ code, substituteForId }): [string, Position<'round'>][] => {
    const at = truth.get(codeOf.get(substituteForId ?? '') ?? '');
    return at && !truth.has(code) ? [[code, position([at[0] + 22, at[1] + 9, at[2] + 4])]] : [];
  });
  return new Map([...truth, ...added]);
}

/** Measures a hidden true shell, so that everything can be tried without hardware. */
function Simulated({
  rows,
  jobId,
  target,
  sd,
  onLine,
}: {
  rows: JobRows;
  jobId: string;
  target?: Target;
  sd: number;
  onLine: (line: string) => void;
}) {
  const [share, setShare] = useState(5);
  const [fault, setFault] = useState('');
  const truth = useRef<TrueShell | undefined>(undefined);
  const [random] = useState(() => seeded(Date.now()));
  const measure = async () => {
    if (!target) return setFault('Nothing is wanted: choose another order of reading.');
    try {
      if (!truth.current) {
        const response = await fetch(`/api/jobs/${jobId}/simulated-shell`);
        if (!response.ok) throw new Error();
        const places = (await response.json()) as Record<string, Vector>;
        truth.current = new Map(Object.entries(places).map(([code, at]) => [code, position<'round'>(at)]));
      }
    } catch {
      return setFault(
        'The simulated shell cannot be fetched: this job has no chart to make it from, or the server is away.',
      );
    }
    const reading = simulateReading(withSubstitutes(truth.current, rows), target, sd, share / 100, random);
    setFault(reading ? '' : 'The simulated shell has no such point.');
    if (reading) onLine(reading.line);
  };
  return (
    <section aria-label="Simulated instrument" className="flex flex-wrap items-end gap-2">
      <label className="flex flex-col">
        <span className="caps">Simulated instrument: mistakes {share} %</span>
        <input
          type="range"
          min={0}
          max={50}
          value={share}
          className="h-11 w-56"
          onChange={(event) => setShare(Number(event.target.value))}
        />
      </label>
      <Button look="main" onClick={() => void measure()}>
        Measure what is wanted
      </Button>
      {fault ? (
        <p role="alert" className="w-full text-sm text-minus">
          {fault}
        </p>
      ) : null}
    </section>
  );
}
