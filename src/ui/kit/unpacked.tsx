'use client';

import { useMemo, type ComponentType } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { unpackRows, type PackedRows } from '@/formats/packed-rows';

/** The same part of the screen, given its rows packed as they came from the server. */
export function unpacked<Props extends { readonly rows: JobRows }>(Part: ComponentType<Props>) {
  return function Unpacked({ rows: packed, ...rest }: Omit<Props, 'rows'> & { readonly rows: PackedRows }) {
    const rows = useMemo(() => unpackRows(packed), [packed]);
    return <Part {...({ ...rest, rows } as unknown as Props)} />;
  };
}
