'use client';

import { useState, type ComponentType } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { unpackRows, type PackedRows } from '@/formats/packed-rows';

/** The rows that came; those of the page before where nothing in them changed. */
function useUnpacked(packed: PackedRows): JobRows {
  const [kept, keep] = useState(() => ({ packed, rows: unpackRows(packed) }));
  if (kept.packed === packed) return kept.rows;
  const rows = unpackRows(packed, kept);
  keep({ packed, rows });
  return rows;
}

/** The same part of the screen, given its rows packed as they came from the server. */
export function unpacked<Props extends { readonly rows: JobRows }>(Part: ComponentType<Props>) {
  return function Unpacked({ rows: packed, ...rest }: Omit<Props, 'rows'> & { readonly rows: PackedRows }) {
    const rows = useUnpacked(packed);
    return <Part {...({ ...rest, rows } as unknown as Props)} />;
  };
}
