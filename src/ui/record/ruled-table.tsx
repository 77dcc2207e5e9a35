'use client';

import { titleOf, type TableColumn } from '@/formats/record-tables';
import { useFormat } from '../shell/preferences-context';

/** A ruled table of columns that paper shares with the screen. */
export function RuledTable<Row>({
  columns,
  rows,
  keyOf,
}: {
  columns: readonly TableColumn<Row>[];
  rows: readonly Row[];
  keyOf: (row: Row) => string;
}) {
  const format = useFormat();
  return (
    <table className="ruled text-sm">
      <thead>
        <tr>
          {columns.map((column, i) => (
            <th key={i} className={column.right ? 'num' : undefined}>
              {titleOf(column, format)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={keyOf(row)}>
            {columns.map(({ text, also, right, strong }, i) => (
              <td key={i} className={`${right ? 'num' : ''} ${strong ? 'font-medium' : ''}`}>
                {text(row, format)}
                {also ? <span className="text-soft"> {also(row, format)}</span> : null}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
