'use client';

import { Link } from '../kit/link';
import type { BoardCell, VerificationBoard } from '@/core/report/pages/verification';
import { beforeFinalText, CALL_TEXT, reasonText } from '@/core/report/verification-words';
import { STATE_WORD } from '@/core/report/vocabulary/words';
import { Empty } from '../kit/faults';
import { VerdictMark } from '../sheet/mark';
import { useFormat } from '../shell/preferences-context';

interface BoardProps {
  readonly jobId: string;
  readonly board: VerificationBoard;
}

const MOST_ROWS = 14;

/** The rungs of the welding against the telling dimensions: what moved at which, and whether to go on. */
export function Board({ jobId, board }: BoardProps) {
  const format = useFormat();
  const { rounds, rows, call, beforeFinal, welding } = board;
  const lengths = {
    difference: format.difference,
    plusMinus: (mm: number) => `${format.plusMinus(mm)} ${format.unit}`,
  };
  if (rows.length === 0)
    return (
      <Empty title="Nothing can be compared yet">
        As soon as two rounds have measured a dimension, it stands here with what it did at every rung.
      </Empty>
    );
  return (
    <section aria-label="Verification board" className="flex flex-col gap-3">
      <h2 className="text-xl">What every rung did to the dimensions that tell</h2>
      {welding ? null : (
        <p className="text-soft">
          No round is said to be clamped, tacked or welded yet: here are all of them. A round for each state tells which
          of them moved something.
        </p>
      )}
      {call ? (
        <div role="status" data-call={call.call} className="border-l-4 border-ink bg-sheet px-3 py-2">
          <p className="text-lg font-semibold">{CALL_TEXT[call.call]}</p>
          <ul>
            {call.reasons.slice(0, 8).map((reason) => (
              <li key={reasonText(reason, lengths)}>{format.name(reasonText(reason, lengths))}</li>
            ))}
          </ul>
          {call.accepted.length > 0 ? (
            <p className="text-soft">Accepted with a reason, as the log has it: {call.accepted.join(', ')}.</p>
          ) : null}
        </div>
      ) : null}
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="The board">
        <table className="border-collapse text-sm">
          <thead>
            <tr className="border-b-2 border-ink text-left">
              <th className="px-2 py-1">Dimension</th>
              {rounds.map(({ id, number, name, state }) => (
                <th key={id} className="px-2 py-1 font-normal">
                  <span className="font-semibold">{STATE_WORD[state]}</span>
                  <span className="block text-soft">
                    {number}. {format.name(name)}
                  </span>
                </th>
              ))}
              <th className="px-2 py-1">Moved, {format.unit}</th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, MOST_ROWS).map(({ dimension, cells, drift }) => (
              <tr key={dimension.id} className="border-b border-faint" data-row={dimension.code}>
                <th className="px-2 py-1 text-left font-normal">
                  <span className="font-semibold">{dimension.code}</span>{' '}
                  <span className="text-soft">{format.name(dimension.name)}</span>
                </th>
                {rounds.map(({ id }, i) => (
                  <td key={id} className="px-2">
                    {cells[i] ? (
                      <Cell jobId={jobId} cell={cells[i]} code={dimension.code} />
                    ) : (
                      <span className="text-soft">–</span>
                    )}
                  </td>
                ))}
                <td className="figures px-2">
                  {drift.kind === 'moved'
                    ? `${format.difference(drift.by)} ${format.plusMinus(2 * drift.sd)}`
                    : drift.kind === 'still'
                      ? 'still'
                      : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.some(({ cells }) => cells.some((cell) => cell?.expected)) ? (
        <p className="text-sm text-soft">
          Small below a change: what the welding since the round before was expected to do, at least and at most,{' '}
          {format.unit}.
        </p>
      ) : null}
      {rows.length > MOST_ROWS ? (
        <p className="text-sm text-soft">
          What moved and what is outside comes first; {rows.length - MOST_ROWS} more stand under{' '}
          <Link className="underline" href={`/jobs/${jobId}/time`}>
            Over time
          </Link>
          .
        </p>
      ) : null}
      <BeforeFinal still={beforeFinal} />
    </section>
  );
}

/** What must be so before the whole shell is judged for good. */
function BeforeFinal({ still }: { readonly still: VerificationBoard['beforeFinal'] }) {
  const format = useFormat();
  if (still.length === 0) return null;
  return (
    <div>
      <h3 className="caps">Before it is judged for good</h3>
      <ul className="list-inside list-disc">
        {still.map((each) => (
          <li key={each.kind}>{format.name(beforeFinalText(each))}</li>
        ))}
      </ul>
    </div>
  );
}

interface CellProps {
  readonly jobId: string;
  readonly cell: BoardCell;
  readonly code: string;
}

/** A mark with what it changed by: press it for the tape that says so. */
function Cell({ jobId, cell, code }: CellProps) {
  const format = useFormat();
  const { verdict, change, deviation, expected } = cell;
  return (
    <Link
      href={`/jobs/${jobId}/rounds/${cell.roundId}`}
      className="flex min-h-11 min-w-24 items-center gap-2 hover:bg-faint"
    >
      <span className="sr-only">{code}</span>
      <VerdictMark {...(verdict ? { verdict } : { read: true })} />
      <span className="figures">
        {change ? format.difference(change.by) : ''}
        {expected ? (
          <span className="block text-xs text-soft" data-expected>
            {format.thin(expected.low, true)} … {format.thin(expected.high, true)}
          </span>
        ) : null}
      </span>
      <span className="sr-only">
        {expected ? 'expected of what was welded before; ' : ''}
        {deviation === undefined ? '' : `${format.difference(deviation)} ${format.unit} off its reference; `}the tape of
        its round
      </span>
    </Link>
  );
}
