'use client';

import type { JobRows } from '@/core/shell/job/job-rows';
import { OWN_SPREADS, type Agree, type ControlChoice } from '@/core/findings/analysis';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import type { LiveAnalysis } from './use-analysis';
import { Select } from '../kit/select';

/** How far undisturbed points may be off: the choices offered. */
export const AGREE: Readonly<Record<string, Agree>> = {
  own: OWN_SPREADS,
  '2': { mm: 2 },
  '2.5': { mm: 2.5 },
  '3': { mm: 3 },
  '4': { mm: 4 },
  '5': { mm: 5 },
};

const CHOICE_WORD: Readonly<Record<ControlChoice['name'], string>> = {
  held: 'Held now',
  undisturbed: 'Undisturbed',
  rival: 'Rival',
  all: 'All points',
};

/** Which points can be trusted, and what each choice of control points does to the deviations, side by side. */
export function ControlPanel({
  rows,
  live,
  agree,
  setAgree,
  onHold,
  control,
}: {
  rows: JobRows;
  live: LiveAnalysis;
  agree: string;
  setAgree: (agree: string) => void;
  onHold: (pointIds: readonly string[]) => void;
  control: readonly string[];
}) {
  const format = useFormat();
  const { analysis, busy } = live;
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  const codes = (ids: readonly string[]) => ids.map((id) => codeOf.get(id)).join(', ');
  const found = analysis?.undisturbed;
  const fitted = analysis?.choices.filter(({ result }) => result.ok) ?? [];
  return (
    <section aria-label="Undisturbed points" aria-busy={busy} className="flex flex-col gap-3 py-3">
      <label className="flex flex-wrap items-center gap-2">
        <span className="caps">Undisturbed points may be off by</span>
        <Select
          aria-label="How far undisturbed points may be off"
          value={agree}
          onChange={(event) => setAgree(event.target.value)}
          options={Object.entries(AGREE).map(([key, value]) => [
            key,
            'mm' in value ? `${format.length(value.mm)} ${format.unit}` : 'what each is known to',
          ])}
        />
      </label>
      {!found ? <p role="status">Looking for the undisturbed points …</p> : null}
      {found && !found.ok ? <p role="alert">{found.reason}</p> : null}
      {found?.ok ? (
        <>
          <p data-undisturbed={found.used.length}>
            {found.used.length} of {found.used.length + found.moved.length} located points agree with the reference and
            each other
            {found.proven ? '; no larger set does' : '; a larger set could not be ruled out'}. Moved, if so:{' '}
            {codes(found.moved) || 'none'}.
          </p>
          {found.rival.length >= 3 ? (
            <p>
              {found.rival.length} of the moved agree among themselves too ({codes(found.rival)}). The majority may be
              what moved: if these stood still, the others went.
            </p>
          ) : null}
        </>
      ) : null}
      {fitted.length > 0 ? (
        <>
          <ul aria-label="Choices of control points">
            {fitted.map((choice) => (
              <li key={choice.name} className="flex min-h-11 items-center justify-between gap-x-3 py-0.5">
                <span>
                  <strong>{CHOICE_WORD[choice.name]}</strong>: {choice.pointIds.length} points
                  {choice.result.ok ? `, agree within ${format.uncertainty(choice.result.rms)} ${format.unit}` : ''}
                </span>
                {sameSet(choice.pointIds, control) ? null : (
                  <Button
                    className="whitespace-nowrap"
                    aria-label={`Hold these ${choice.pointIds.length} as control`}
                    onClick={() => onHold(choice.pointIds)}
                  >
                    Hold these
                  </Button>
                )}
              </li>
            ))}
          </ul>
          <ChoiceTable rows={rows} fitted={fitted} />
        </>
      ) : null}
      <p className="text-sm text-soft">
        ▪ taken as control in that choice. The search proposes; you decide, and may tick points one by one under Points.
      </p>
    </section>
  );
}

const sameSet = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((each) => b.includes(each));

/** How far each point is off under each choice of control points. */
function ChoiceTable({ rows, fitted }: { rows: JobRows; fitted: readonly ControlChoice[] }) {
  const format = useFormat();
  const off = (choice: ControlChoice, id: string) => (choice.result.ok ? choice.result.deviations.get(id) : undefined);
  const listed = rows.points
    .filter(({ id }) => fitted.some((choice) => off(choice, id)))
    .map((point) => ({ point, values: fitted.map((choice) => off(choice, point.id)) }))
    .sort((a, b) => Math.max(...b.values.map((v) => v?.d ?? 0)) - Math.max(...a.values.map((v) => v?.d ?? 0)));
  return (
    <table className="ruled">
      <caption className="pb-1 text-left text-sm text-soft">
        How far each point is off under each choice, {format.unit}
      </caption>
      <thead className="sticky top-0 bg-paper">
        <tr>
          <th>Point</th>
          {fitted.map((choice) => (
            <th key={choice.name} className="num">
              {CHOICE_WORD[choice.name]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {listed.map(({ point, values }) => (
          <tr key={point.id}>
            <td>{point.code}</td>
            {values.map((value, i) => (
              <td
                key={fitted[i]!.name}
                className="num"
                title={value ? value.by.map((component) => format.difference(component)).join(' ') : ''}
              >
                {value ? format.length(value.d) : '–'}
                {fitted[i]!.pointIds.includes(point.id) ? ' ▪' : '\u2003'}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
