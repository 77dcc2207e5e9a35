'use client';

import {
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState, type ReactNode } from 'react';
import { inputClass } from '../kit/field';

/** A sortable, searchable table of any length: only the rows in sight are in the page. */
export function EditableTable<Row extends { readonly id: string }>({
  rows,
  columns,
  searchLabel,
}: {
  rows: readonly Row[];
  columns: ColumnDef<Row>[];
  searchLabel: string;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [search, setSearch] = useState('');
  const scroller = useRef<HTMLDivElement>(null);
  const table = useReactTable({
    data: rows as Row[],
    columns,
    state: { sorting, globalFilter: search },
    onSortingChange: setSorting,
    onGlobalFilterChange: setSearch,
    getRowId: (row) => row.id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const { rows: shown } = table.getRowModel();
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 46,
    overscan: 8,
  });
  const items = virtual.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div className="flex flex-col gap-2">
      <input
        type="search"
        data-main-field
        aria-label={searchLabel}
        placeholder={searchLabel}
        value={search}
        onChange={(event) => setSearch(event.target.value)}
        className={`${inputClass} max-w-sm`}
      />
      <div
        ref={scroller}
        className="max-h-[58dvh] overflow-auto border-b border-rule"
        tabIndex={0}
        role="region"
        aria-label={`${shown.length} rows`}
      >
        <table className="ruled">
          <thead className="sticky top-0 z-10 bg-paper">
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id}>
                {group.headers.map((header) => (
                  <th
                    key={header.id}
                    aria-sort={ariaSort(header.column.getIsSorted())}
                    className={header.column.columnDef.meta === 'num' ? 'num' : ''}
                  >
                    {header.column.getCanSort() ? (
                      <button type="button" className="min-h-11" onClick={header.column.getToggleSortingHandler()}>
                        {flexRender(header.column.columnDef.header, header.getContext())}
                        {{ asc: ' ↑', desc: ' ↓' }[header.column.getIsSorted() as string] ?? ''}
                      </button>
                    ) : (
                      flexRender(header.column.columnDef.header, header.getContext())
                    )}
                  </th>
                ))}
              </tr>
            ))}
          </thead>
          <tbody>
            {before > 0 ? <tr style={{ height: before }} aria-hidden /> : null}
            {items.map((item) => {
              const row = shown[item.index]!;
              return (
                <tr key={row.id} data-row={row.id}>
                  {row.getVisibleCells().map((cell) => (
                    <td key={cell.id} className={cell.column.columnDef.meta === 'num' ? 'num' : ''}>
                      {drawn(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                </tr>
              );
            })}
            {after > 0 ? <tr style={{ height: after }} aria-hidden /> : null}
          </tbody>
        </table>
      </div>
    </div>
  );
}

/**
 * A cell called as a function, not drawn as a component: the columns are made anew when the page is fetched anew, and a form
 * open in a cell must stay open then.
 */
const drawn = <Context extends object>(
  cell: string | ((context: Context) => ReactNode) | undefined,
  context: Context,
): ReactNode => (typeof cell === 'function' ? cell(context) : cell);

const ariaSort = (sorted: false | 'asc' | 'desc') =>
  sorted === 'asc' ? ('ascending' as const) : sorted === 'desc' ? ('descending' as const) : undefined;
