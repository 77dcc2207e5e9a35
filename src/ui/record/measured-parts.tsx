import { suggestFactor } from '@/core/report/drawing/sheet';
import { norm } from '@/core/maths/geometry/vector';
import type { RecordDocument } from '@/core/shell/record-document';
import { foundSentences } from '@/core/report/record/found';
import { figureOfRecord } from '@/core/report/record/record';
import {
  cautionSentences,
  CHANGE_COLUMNS,
  DIMENSION_COLUMNS,
  GAP_COLUMNS,
  POINT_COLUMNS,
  ROUND_COLUMNS,
} from '@/formats/record-tables';
import { RuledTable } from './ruled-table';
import { useFormat } from '../shell/preferences-context';
import { layoutOf, Sheet } from '../sheet/sheet';
import { Part } from './part';

interface PartProps {
  readonly record: RecordDocument;
}

export const Rounds = ({ record }: PartProps) => (
  <Part title="Rounds of measuring">
    <RuledTable columns={ROUND_COLUMNS} rows={record.rounds} keyOf={({ number }) => String(number)} />
  </Part>
);

/** What became of the shell, in sentences. */
export function Found({ record: { found } }: PartProps) {
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

export function Final({ record }: PartProps) {
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
      <div className="flex flex-col gap-3">
        {figure.points.length > 0 ? (
          <Sheet drawn={{ figure, factor, title: [record.job.name, `Round ${final.round}`] }} />
        ) : null}
        <RuledTable columns={DIMENSION_COLUMNS} rows={final.dimensions} keyOf={({ code }) => code} />
        {final.points.length > 0 ? (
          <RuledTable columns={POINT_COLUMNS} rows={final.points} keyOf={({ code }) => code} />
        ) : null}
      </div>
    </Part>
  );
}

export function Changes({ record }: PartProps) {
  const { changes } = record;
  if (!changes || changes.rows.length === 0) return null;
  return (
    <Part title={`What changed from round ${changes.earlier} to round ${changes.later}`}>
      {cautionSentences(record).map((caution) => (
        <p key={caution}>{caution}</p>
      ))}
      <RuledTable columns={CHANGE_COLUMNS} rows={changes.rows} keyOf={({ code }) => code} />
    </Part>
  );
}

export function Gaps({ record: { final } }: PartProps) {
  if (!final || final.gaps.length === 0) return null;
  return (
    <Part title="Gaps and flushness">
      <RuledTable
        columns={GAP_COLUMNS}
        rows={final.gaps}
        keyOf={({ seam, station, quantity }) => `${seam}${station}${quantity}`}
      />
    </Part>
  );
}
