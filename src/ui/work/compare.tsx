'use client';

import { byCode } from '@/core/shell/by-code';
import { ownRounds } from '@/core/shell/job/job';
import { Link } from '../kit/link';
import { useRouter } from 'next/navigation';
import type { Tables } from '@/core/shell/job/job-rows';
import type { RoundChange } from '@/core/findings/change';
import type { Movement } from '@/core/findings/movement';
import { Empty } from '../kit/faults';
import { buttonClass } from '../kit/button';
import { SelectField } from '../kit/field';
import { movedWord, PointsMoved } from './points-moved';
import { ChangeMark } from '../sheet/change-mark';
import { VerdictMark } from '../sheet/mark';
import { useFormat } from '../shell/preferences-context';
import { CAUTION_WORD } from '@/core/report/vocabulary/words';
import type { DimensionJudgement } from '@/core/round/judge/judgement';

export interface CompareView {
  readonly change: RoundChange;
  readonly movement: Movement;
  /** The lengths of the later round against the reference. */
  readonly final: readonly DimensionJudgement[];
  readonly accepted: readonly string[];
}

/** A round against the reference and against an earlier round: held, moved or undecided. */
export function Compare({ rows, view }: { rows: Tables<'jobs' | 'rounds' | 'points'>; view?: CompareView }) {
  const router = useRouter();
  const jobId = rows.jobs[0]!.id;
  if (!view)
    return (
      <Empty title="Two rounds are needed">
        Measure the same points again, on the same support, and see here what moved.
      </Empty>
    );
  const { change, movement } = view;
  const moved = movedWord(movement);
  const go = (from: string, to: string) => router.push(`/jobs/${jobId}/verify?from=${from}&to=${to}`);
  const options = ownRounds(rows).map((round) => [round.id, `${round.number}. ${round.name}`] as const);
  const count = (verdict: string) => change.dimensions.filter((each) => each.verdict === verdict).length;
  return (
    <section aria-label="Verdict" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end gap-3">
        <h2 className="text-xl">What moved, and is it right?</h2>
        <div className="w-56">
          <SelectField
            label="From"
            value={change.earlier.id}
            onChange={(event) => go(event.target.value, change.later.id)}
            options={options}
          />
        </div>
        <div className="w-56">
          <SelectField
            label="To"
            value={change.later.id}
            onChange={(event) => go(change.earlier.id, event.target.value)}
            options={options}
          />
        </div>
      </div>
      {change.cautions.length > 0 ? (
        <aside aria-label="Cautions of the comparison" className="border-l-4 border-ink bg-sheet px-3 py-2">
          {change.cautions.map((caution) => (
            <p key={caution}>{CAUTION_WORD[caution]}</p>
          ))}
          <p className="text-sm">Below, “{moved}” is said where “moved” alone would claim too much.</p>
        </aside>
      ) : null}
      <p role="status">
        Of {change.dimensions.length} lengths {count('held')} changed within their limit, {count('moved')} beyond it,{' '}
        {count('undecided')} undecided; {movement.lengths.filter((test) => test.moved).length} by more than noise.
        {change.notCompared.length > 0
          ? ` Measured in one round only: ${change.notCompared.map((each) => each.code).join(', ')}.`
          : ''}
      </p>
      <ChangeTable view={view} jobId={jobId} />
      <PointsMoved
        rows={rows}
        movement={movement}
        limits={new Map(change.points.map(({ point, limit }) => [point.id, limit]))}
      />
    </section>
  );
}

/** Outside first, then what moved beyond noise, then the rest by their codes. */
function verifyOrder(
  changes: CompareView['change']['dimensions'],
  tests: ReadonlyMap<string, { readonly moved: boolean }>,
): CompareView['change']['dimensions'] {
  const rank = (each: CompareView['change']['dimensions'][number]) =>
    each.verdict === 'moved' ? 0 : tests.get(each.dimension.id)?.moved ? 1 : each.verdict === 'undecided' ? 2 : 3;
  return changes.toSorted((a, b) => rank(a) - rank(b) || byCode(a.dimension.code, b.dimension.code));
}

/** Every common length: before, now, and what that means. */
function ChangeTable({ view: { change, final, accepted, movement }, jobId }: { view: CompareView; jobId: string }) {
  const format = useFormat();
  const lengthTest = new Map(movement.lengths.map((test) => [test.dimension.id, test]));
  const finalOf = new Map(final.map((each) => [each.dimension.id, each]));
  const moved = movedWord(movement);
  return (
    <table className="ruled">
      <thead>
        <tr>
          <th>Dimension</th>
          <th className="num">Before</th>
          <th className="num">Now</th>
          <th className="num">Change</th>
          <th className="num">±</th>
          <th className="num">Limit</th>
          <th>More than noise</th>
          <th>Since then</th>
          <th className="num">Off the reference {format.unit}</th>
          <th>Against it</th>
          <th>
            <span className="sr-only">Actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {verifyOrder(change.dimensions, lengthTest).map((row) => {
          const judged = finalOf.get(row.dimension.id)?.judged;
          const isAccepted = accepted.includes(row.dimension.id);
          return (
            <tr key={row.dimension.id} data-code={row.dimension.code} data-verdict={row.verdict}>
              <td>
                {row.dimension.code}
                <span className="block text-sm text-soft">{format.name(row.dimension.name)}</span>
              </td>
              <td className="num">{format.length(row.earlier)}</td>
              <td className="num">{format.length(row.later)}</td>
              <td className="num font-medium">{format.difference(row.change)}</td>
              <td className="num text-soft">{format.uncertainty(2 * row.sd)}</td>
              <td className="num text-soft">{format.length(row.limit)}</td>
              <td data-moved={lengthTest.get(row.dimension.id)?.moved}>
                {lengthTest.get(row.dimension.id)?.moved ? (
                  <strong>{moved}</strong>
                ) : (
                  <span className="text-soft">no</span>
                )}
              </td>
              <td>
                <ChangeMark verdict={row.verdict} />{' '}
                {row.verdict === 'moved'
                  ? 'beyond the limit'
                  : row.verdict === 'held'
                    ? 'within the limit'
                    : row.verdict}
              </td>
              <td className="num">{judged ? format.difference(judged.deviation) : '–'}</td>
              <td>
                {judged ? (
                  <>
                    <VerdictMark verdict={judged.verdict} /> {judged.verdict}
                  </>
                ) : null}
              </td>
              <td className="py-0!">
                {isAccepted ? (
                  <span className="text-soft">accepted</span>
                ) : judged && (judged.verdict !== 'inside' || row.verdict !== 'held') ? (
                  <Link
                    className={buttonClass('quiet')}
                    href={`/jobs/${jobId}/log?round=${change.later.id}&dimension=${row.dimension.id}`}
                  >
                    Accept …
                  </Link>
                ) : null}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
