import { useState } from 'react';
import { turnsFor } from '@/core/plan/cut/trim';
import { parseLength } from '@/core/maths/units/length';
import type { TurnView, Worked } from '@/core/report/pages/cutting';
import type { ItemEventInput } from '@/formats/inputs/work';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { usePreferences } from '../shell/preferences-context';

interface TrimProps {
  readonly worked: Worked;
  readonly recordItemEvent: Action<ItemEventInput>;
}

/** What a quarter of a turn at each adjustable brace does, and which to turn so that a length comes right. */
export function TrimByTheTurn({ worked, recordItemEvent }: TrimProps) {
  const { format } = usePreferences();
  const noting = useAction(recordItemEvent);
  const { turns } = worked;
  if (turns.length === 0) return null;
  const told = [...new Map(turns.flatMap(({ moves }) => moves).map((move) => [move.lengthId, move])).values()];
  const moveOf = ({ moves }: TurnView, lengthId: string) => moves.find((move) => move.lengthId === lengthId)?.mm ?? 0;
  const note = (itemId: string, value: number) =>
    noting.run({ id: crypto.randomUUID(), itemId, kind: 'turned', key: '', reason: '', value });
  return (
    <section aria-label="Trim by the turn" className="flex flex-col gap-2">
      <h2 className="text-xl">Trim by the turn</h2>
      <p className="text-soft">
        What a quarter of a turn that lengthens the brace does to each length, in {format.unit}. Useful, and dangerous:
        it shows in a door gap, and everything else follows.
      </p>
      <Faults faults={noting.faults} />
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="What a quarter of a turn does">
        <table className="ruled">
          <thead>
            <tr>
              <th>Length</th>
              {turns.map(({ code }) => (
                <th key={code} className="num">
                  {code}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {told.map(({ lengthId, code }) => (
              <tr key={lengthId}>
                <td>{code}</td>
                {turns.map((turn) => (
                  <td key={turn.code} className="num">
                    {signed(moveOf(turn, lengthId), format.fine)}
                  </td>
                ))}
              </tr>
            ))}
            <tr>
              <td>Turned so far, quarters</td>
              {turns.map(({ code, itemId, turned }) => (
                <td key={code} className="num">
                  <span className="flex items-center justify-end gap-1">
                    <Button
                      aria-label={`${code} a quarter shorter`}
                      disabled={noting.pending}
                      onClick={() => note(itemId, turned - 1)}
                    >
                      −
                    </Button>
                    {turned}
                    <Button
                      aria-label={`${code} a quarter longer`}
                      disabled={noting.pending}
                      onClick={() => note(itemId, turned + 1)}
                    >
                      +
                    </Button>
                  </span>
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      <BringRight turns={turns} told={told} />
    </section>
  );
}

const signed = (mm: number, fine: (mm: number) => string): string =>
  Math.abs(mm) < 0.005 ? '0' : `${mm < 0 ? '−' : '+'}${fine(Math.abs(mm))}`;

/** Typed: how far lengths are to move. Told: which braces to turn, and what comes along. */
function BringRight({ turns, told }: { readonly turns: readonly TurnView[]; readonly told: TurnView['moves'] }) {
  const { format, preferences } = usePreferences();
  const [wanted, setWanted] = useState<Readonly<Record<string, string>>>({});
  const figures = told.map(({ lengthId }) => {
    const typed = (wanted[lengthId] ?? '').trim();
    const parsed = typed === '' ? undefined : parseLength(typed, typedUnit(preferences));
    return parsed?.ok ? parsed.mm : undefined;
  });
  const asked = figures.some((mm) => mm !== undefined);
  const effects = turns.map(({ moves }) => ({
    moves: told.map(({ lengthId }) => moves.find((move) => move.lengthId === lengthId)?.mm ?? 0),
  }));
  // What nobody asked for is to stay.
  const quarters = asked
    ? turnsFor(
        effects,
        figures.map((mm) => mm ?? 0),
        told.map(({ limit }) => limit),
      )
    : [];
  const comes = told.map((_, d) => quarters.reduce((sum, n, j) => sum + n * effects[j]!.moves[d]!, 0));
  return (
    <div className="flex flex-col gap-2">
      <h3 className="caps">Bring lengths right</h3>
      <div className="grid gap-2 sm:grid-cols-4">
        {told.slice(0, 8).map(({ lengthId, code }) => (
          <TextField
            key={lengthId}
            label={`${code} by, ${format.unit}`}
            placeholder="+1"
            value={wanted[lengthId] ?? ''}
            onChange={({ target }) => setWanted({ ...wanted, [lengthId]: target.value })}
          />
        ))}
      </div>
      {asked ? (
        <p role="status">
          {quarters.every((n) => n === 0)
            ? 'No whole quarter brings it nearer without taking others off.'
            : `Turn ${turns
                .flatMap(({ code }, j) =>
                  quarters[j]
                    ? [
                        `${code} ${Math.abs(quarters[j])} ${Math.abs(quarters[j]) === 1 ? 'quarter' : 'quarters'} ${quarters[j] > 0 ? 'longer' : 'shorter'}`,
                      ]
                    : [],
                )
                .join(', ')}: ${told.map(({ code }, d) => `${code} ${signed(comes[d]!, format.fine)}`).join(', ')}.`}
        </p>
      ) : null}
    </div>
  );
}
