import { suggestFactor } from '@/core/report/drawing/sheet';
import { norm } from '@/core/maths/geometry/vector';
import type { RecordDocument } from '@/core/shell/record-document';
import { foundSentences } from '@/core/report/record/found';
import { figureOfRecord } from '@/core/report/record/record';
import { CAUTION_WORD, STATE_WORD, SUPPORT_WORD, SUSPENSION_WORD } from '@/core/report/vocabulary/words';
import { useFormat } from '../shell/preferences-context';
import { layoutOf, Sheet } from '../sheet/sheet';
import { Part } from './part';

type FinalRound = NonNullable<RecordDocument['final']>;

export function Rounds({ record }: { record: RecordDocument }) {
  const format = useFormat();
  return (
    <Part title="Rounds of measuring">
      <table className="ruled text-sm">
        <thead>
          <tr>
            <th>Round</th>
            <th>State, support</th>
            <th>Instruments</th>
            <th>When, who</th>
            <th className="num">Readings</th>
            <th>Aligned on</th>
          </tr>
        </thead>
        <tbody>
          {record.rounds.map((round) => (
            <tr key={round.number}>
              <td>
                {round.number}. {round.name}
              </td>
              <td>
                {STATE_WORD[round.state as 'cold'] ?? round.state};{' '}
                {SUPPORT_WORD[round.support as 'stands'] ?? round.support},{' '}
                {SUSPENSION_WORD[round.suspension as 'off'] ?? round.suspension}
                {round.temperature === null ? '' : `; ${round.temperature} °C`}
              </td>
              <td>{round.instruments.join(', ')}</td>
              <td>
                {format.day(round.startedAt)}, {round.author}
              </td>
              <td className="num">
                {round.readings}
                {round.struck > 0 ? `, ${round.struck} struck` : ''}
              </td>
              <td>
                {round.control.join(', ') || '–'}
                {round.rms === undefined ? '' : ` (${format.length(round.rms)} ${format.unit} rms)`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

/** What became of the shell, in sentences. */
export function Found({ record: { found } }: { record: RecordDocument }) {
  const format = useFormat();
  if (!found) return null;
  return (
    <Part title={`What was found: round ${found.round}, ${found.roundName}`}>
      {foundSentences(found, format).map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
    </Part>
  );
}

export function Final({ record }: { record: RecordDocument }) {
  const { final } = record;
  if (!final) return null;
  const figure = figureOfRecord(record);
  const factor =
    figure.points.length > 0
      ? suggestFactor(
          figure.points.map((point) => norm(point.movement!)),
          layoutOf(figure),
        )
      : 1;
  return (
    <Part title={`Where the shell is: round ${final.round}`}>
      {figure.points.length > 0 ? (
        <Sheet figure={figure} factor={factor} title={[record.job.name, `Round ${final.round}`]} />
      ) : null}
      <DimensionTable rows={final.dimensions} />
      {final.points.length > 0 ? <PointTable rows={final.points} /> : null}
    </Part>
  );
}

function DimensionTable({ rows }: { rows: FinalRound['dimensions'] }) {
  const format = useFormat();
  return (
    <table className="ruled mt-3 text-sm">
      <thead>
        <tr>
          <th>Dimension</th>
          <th>Name</th>
          <th className="num">Reference</th>
          <th className="num">Measured</th>
          <th className="num">Deviation</th>
          <th className="num">±</th>
          <th className="num">Limit {format.unit}</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.code}>
            <td>{row.code}</td>
            <td>
              {format.name(row.name)}{' '}
              <span className="text-soft">
                {row.ends}
                {row.measure === 'level' ? ', level' : ''}
              </span>
            </td>
            <td className="num">{format.length(row.reference)}</td>
            <td className="num">{format.length(row.measured)}</td>
            <td className="num font-medium">{format.difference(row.deviation)}</td>
            <td className="num">{format.length(row.plusMinus)}</td>
            <td className="num">{format.length(row.limit)}</td>
            <td>
              {row.verdict}
              {row.accepted ? ', accepted' : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function PointTable({ rows }: { rows: FinalRound['points'] }) {
  const format = useFormat();
  return (
    <table className="ruled mt-3 text-sm">
      <thead>
        <tr>
          <th>Point</th>
          <th className="num">Length</th>
          <th className="num">Width</th>
          <th className="num">Height {format.unit}</th>
          <th className="num">Worst ±</th>
          <th className="num">Limit</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.code}>
            <td>
              {row.code} <span className="text-soft">{format.name(row.name)}</span>
            </td>
            {row.deviation.map((value, i) => (
              <td key={i} className="num">
                {format.difference(value)}
              </td>
            ))}
            <td className="num">{format.length(Math.max(...row.plusMinus))}</td>
            <td className="num">{format.length(row.limit)}</td>
            <td>
              {row.verdict}
              {row.control ? ', control' : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export function Changes({ record: { changes } }: { record: RecordDocument }) {
  const format = useFormat();
  if (!changes || changes.rows.length === 0) return null;
  return (
    <Part title={`What changed from round ${changes.earlier} to round ${changes.later}`}>
      {changes.cautions.map((caution) => (
        <p key={caution}>{CAUTION_WORD[caution]}</p>
      ))}
      <table className="ruled text-sm">
        <tbody>
          {changes.rows.map((row) => (
            <tr key={row.code}>
              <td>{row.code}</td>
              <td className="text-soft">{format.name(row.name)}</td>
              <td className="num font-medium">{format.difference(row.change)}</td>
              <td className="num">{format.plusMinus(row.plusMinus)}</td>
              <td>{row.verdict}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

export function Gaps({ record: { final } }: { record: RecordDocument }) {
  const format = useFormat();
  if (!final || final.gaps.length === 0) return null;
  return (
    <Part title="Gaps and flushness">
      <table className="ruled text-sm">
        <tbody>
          {final.gaps.map((gap) => (
            <tr key={`${gap.seam}${gap.station}${gap.quantity}`}>
              <td>
                {gap.seam}.{gap.station} {gap.quantity}
              </td>
              <td className="text-soft">
                {format.name(gap.name)}, {gap.side}
              </td>
              <td className="num">
                {gap.quantity === 'flush' ? format.difference(gap.measured) : format.length(gap.measured)}
              </td>
              <td className="num text-soft">wanted {format.length(gap.target)}</td>
              <td className="num">{format.plusMinus(gap.plusMinus)}</td>
              <td>{gap.verdict}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}
