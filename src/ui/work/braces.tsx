'use client';

import { useState, type FormEvent } from 'react';
import type { Brace, BraceEvent } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { lineGeometry } from '@/core/findings/brace-pull';
import type { BracesPage } from '@/core/report/pages/braces';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { BRACE_WORD } from '@/core/report/vocabulary/words';

const NEXT: Readonly<Record<BraceEvent['kind'], BraceEvent['kind'] | undefined>> = {
  planned: 'fitted',
  fitted: 'removed',
  removed: undefined,
};

/** Braces planned, fitted, removed; each with what it is there to hold. */
export function Braces({
  rows,
  braces,
  positions,
  latestRoundId,
  planBrace,
  recordBraceEvent,
}: {
  rows: JobRows;
  planBrace: Action;
  recordBraceEvent: Action;
} & BracesPage) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const recording = useAction(recordBraceEvent);
  const degrees = (value: number) => `${value < 0 ? '−' : ''}${Math.abs(value).toFixed(1)}°`;
  return (
    <section aria-label="Braces" className="flex flex-col gap-3">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Braces</h2>
        <PlanBrace rows={rows} positions={positions} latestRoundId={latestRoundId} planBrace={planBrace} />
      </div>
      <Faults faults={recording.faults} />
      {braces.length === 0 ? (
        <Empty title="No brace is planned">
          Ask of each cut which dimension it will set free, and plan a brace for it.
        </Empty>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="List of braces">
          <table className="ruled">
            <thead>
              <tr>
                <th>Brace</th>
                <th>Between</th>
                <th className="num">Length {format.unit}</th>
                <th className="num">Rise</th>
                <th className="num">In plan</th>
                <th>Kind, section</th>
                <th>Holds</th>
                <th>State</th>
                <th>
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {braces.map(({ brace, from, to, geometry, state, lastEvent, holds }) => {
                const next = NEXT[state];
                return (
                  <tr key={brace.id} data-code={brace.code}>
                    <td className="font-medium">{brace.code}</td>
                    <td>
                      {from} – {to}
                    </td>
                    <td className="num">
                      {geometry ? format.length(geometry.length) : '–'}
                      {geometry?.from === 'reference' ? (
                        <span className="block text-xs text-soft">by the chart</span>
                      ) : null}
                    </td>
                    <td className="num">{geometry ? degrees(geometry.rise) : ''}</td>
                    <td className="num">{geometry ? degrees(geometry.heading) : ''}</td>
                    <td>
                      {BRACE_WORD[brace.kind]}
                      <span className="block text-sm text-soft">{brace.section}</span>
                    </td>
                    <td>{holds.map((dimension) => dimension.code).join(', ')}</td>
                    <td>
                      {state}
                      <span className="block text-sm text-soft">
                        {lastEvent ? `${lastEvent.author}, ${format.day(lastEvent.at)}` : ''}
                      </span>
                    </td>
                    <td>
                      {next ? (
                        <ConfirmEvent
                          text={next === 'fitted' ? 'Fitted' : 'Removed'}
                          title={next === 'fitted' ? `${brace.code} is fitted` : `Take ${brace.code} out?`}
                          caution={
                            next === 'fitted'
                              ? 'Measure again what it holds: welding a brace in can itself pull a dimension.'
                              : `It holds ${holds.map((dimension) => dimension.code).join(', ') || 'nothing named'}. Measure those first, and see that nothing cut depends on it.`
                          }
                          onYes={() =>
                            recording.run({
                              id: crypto.randomUUID(),
                              braceId: brace.id,
                              kind: next,
                              author: preferences.person || 'unnamed',
                              note: '',
                            })
                          }
                        />
                      ) : null}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
      <p className="text-sm text-soft">
        Lengths are between the points themselves; pads and threaded ends are taken off by whoever makes the brace.
      </p>
    </section>
  );
}

/** Asks once, because metal is about to be held or let go. */
export function ConfirmEvent({
  text,
  title,
  caution,
  onYes,
}: {
  text: string;
  title: string;
  caution: string;
  onYes: () => Promise<unknown>;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog title={title} open={open} onOpenChange={setOpen} trigger={<Button>{text}</Button>}>
      <p>{caution}</p>
      <Button
        look="main"
        className="self-start"
        onClick={async () => {
          await onYes();
          setOpen(false);
        }}
      >
        Yes, {text.toLowerCase()}
      </Button>
    </Dialog>
  );
}

function PlanBrace({
  rows,
  positions,
  latestRoundId,
  planBrace,
}: {
  rows: JobRows;
  positions: BracesPage['positions'];
  latestRoundId: string | null;
  planBrace: Action;
}) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const [open, setOpen] = useState(false);
  const [ends, setEnds] = useState({ from: '', to: '' });
  const [error, setError] = useState<Readonly<Record<string, string>>>({});
  const { run, faults, pending } = useAction(planBrace);
  const find = (code: string) => rows.points.find((point) => point.code.toLowerCase() === code.trim().toLowerCase());
  const [from, to] = [find(ends.from), find(ends.to)];
  const line =
    from && to && positions[from.id] && positions[to.id]
      ? lineGeometry(positions[from.id]!, positions[to.id]!)
      : undefined;
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const found: Record<string, string> = {};
    if (!from) found.from = `no point "${ends.from}"`;
    if (!to) found.to = `no point "${ends.to}"`;
    if (from && from === to) found.to = 'a brace has two ends';
    const codes = String(form.get('holds') ?? '')
      .split(/[\s,;]+/)
      .filter(Boolean);
    const held = codes.map((code) =>
      rows.dimensions.find((dimension) => dimension.code.toLowerCase() === code.toLowerCase()),
    );
    const unknown = codes.filter((_, i) => !held[i]);
    if (unknown.length > 0) found.holds = `no dimension ${unknown.join(', ')}`;
    if (!String(form.get('code')).trim()) found.code = 'mark it with a code';
    setError(found);
    if (Object.keys(found).length > 0) return;
    const outcome = await run({
      brace: {
        id: crypto.randomUUID(),
        jobId: rows.jobs[0]!.id,
        code: String(form.get('code')).trim(),
        fromPointId: from!.id,
        toPointId: to!.id,
        kind: form.get('kind'),
        section: String(form.get('section')),
        roundId: latestRoundId,
        note: '',
      },
      dimensionIds: held.map((dimension) => dimension!.id),
      author: preferences.person || 'unnamed',
    });
    if (outcome.ok) setOpen(false);
  };
  const short = line !== undefined && line.length <= 1200;
  return (
    <Dialog
      title="Plan a brace"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button look="main" className="ml-auto">
          Plan a brace
        </Button>
      }
    >
      <form onSubmit={submit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <TextField
          label="Code"
          name="code"
          defaultValue={`X${rows.braces.length + 1}`}
          error={error.code ?? faults.find((fault) => fault.path === 'code')?.message}
        />
        <SelectField
          label="Kind"
          name="kind"
          options={(Object.keys(BRACE_WORD) as Brace['kind'][]).map((kind) => [kind, BRACE_WORD[kind]])}
        />
        <TextField
          label="From point"
          value={ends.from}
          onChange={(event) => setEnds({ ...ends, from: event.target.value })}
          error={error.from}
        />
        <TextField
          label="To point"
          value={ends.to}
          onChange={(event) => setEnds({ ...ends, to: event.target.value })}
          error={error.to}
        />
        <TextField
          key={String(short)}
          label="Section"
          name="section"
          defaultValue={short || !line ? 'square tube 25×25×2' : 'square tube 40×40×3'}
        />
        <TextField label="Dimensions it holds" name="holds" placeholder="DL1 DL2" error={error.holds} />
        <p role="status" className="sm:col-span-2">
          {line
            ? `${format.length(line.length)} ${format.unit} between the points, rising ${line.rise.toFixed(1)}°, ${line.heading.toFixed(1)}° in plan.`
            : 'Name two points to see the length and the angles.'}
        </p>
        <p className="text-sm text-soft sm:col-span-2">
          Weld or bolt it to metal that stays, on doubled metal, out of the way of the new panel, where it can be
          reached and removed at the end.
        </p>
        <div className="sm:col-span-2">
          <Faults faults={faults} />
        </div>
        <Button type="submit" look="main" disabled={pending} className="justify-self-start">
          Plan it
        </Button>
      </form>
    </Dialog>
  );
}
