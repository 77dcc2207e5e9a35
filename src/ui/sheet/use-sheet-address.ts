'use client';

import { useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { VIEWS, type ViewName, type Zoom } from '@/core/report/drawing/sheet';
import type { SheetFilter } from '@/core/report/drawing/sheet-filter';
import type { Vector } from '@/core/maths/geometry/vector';
import { SECTIONS } from '@/core/shell/sections';
import { SIDES } from '@/core/shell/job/entities';

export const PANELS = ['points', 'dimensions', 'pattern', 'control'] as const;
export type Panel = (typeof PANELS)[number];
export const SHOWN_VERDICTS = ['outside', 'undecided', 'inside', 'notJudged'] as const;
export type ShownVerdict = NonNullable<SheetFilter['verdict']>;

/** Everything of the sheet that an address can say, so that a link shows exactly this view. */
export interface SheetState extends SheetFilter {
  /** Code of the point or dimension in hand. */
  readonly point?: string;
  readonly dimension?: string;
  readonly factor?: number;
  readonly panel: Panel;
  /** Number of the round shown as a ghost. */
  readonly ghost?: number;
  readonly zoom?: Zoom;
  /** The one view that has the whole sheet. */
  readonly view?: ViewName;
  /** The lists stand beside the drawing, not below it. */
  readonly beside?: boolean;
}

const oneOf = <T extends string>(values: readonly T[], value: string | null): T | undefined =>
  values.find((each) => each === value);

const figure = (text: string | null): number | undefined => {
  const value = text === null || text === '' ? NaN : Number(text);
  return Number.isFinite(value) ? value : undefined;
};

/** Reads the state out of an address; what is not understood is left out. */
export function readSheetState(query: Pick<URLSearchParams, 'get'>): SheetState {
  const factor = figure(query.get('times'));
  const zoom = (query.get('zoom') ?? '').split(',').map(Number);
  return {
    point: query.get('point') ?? undefined,
    dimension: query.get('dimension') ?? undefined,
    factor: factor && factor >= 1 && factor <= 500 ? factor : undefined,
    panel: oneOf(PANELS, query.get('panel')) ?? 'points',
    verdict: oneOf(SHOWN_VERDICTS, query.get('verdict')),
    section: oneOf(SECTIONS, query.get('section')),
    side: oneOf(SIDES, query.get('side')),
    ghost: figure(query.get('ghost')),
    view: oneOf(VIEWS, query.get('view')),
    beside: query.get('lists') === 'beside' || undefined,
    zoom:
      zoom.length === 4 && zoom.every(Number.isFinite) && zoom[0]! > 1
        ? { times: zoom[0]!, focus: zoom.slice(1) as unknown as Vector }
        : undefined,
  };
}

/** The same state as an address's query. */
export function writeSheetState(state: SheetState): string {
  const query = new URLSearchParams();
  const put = (key: string, value: string | number | undefined) => value !== undefined && query.set(key, String(value));
  put('point', state.point);
  put('dimension', state.dimension);
  put('times', state.factor);
  put('panel', state.panel === 'points' ? undefined : state.panel);
  put('verdict', state.verdict);
  put('section', state.section);
  put('side', state.side);
  put('ghost', state.ghost);
  put('view', state.view);
  put('lists', state.beside ? 'beside' : undefined);
  put('zoom', state.zoom && [state.zoom.times.toFixed(2), ...state.zoom.focus.map((v) => v.toFixed(0))].join(','));
  return query.toString();
}

/**
 * The sheet's state, kept in the address. The router writes an address it was told of a moment ago once more when it has
 * drawn it: what changes meanwhile builds on what was said last, not on what stands in the address just then.
 */
export function useSheetAddress(): readonly [SheetState, (some: Partial<SheetState>) => void] {
  const query = useSearchParams();
  const state = useMemo(() => readSheetState(query), [query]);
  const latest = useRef(state);
  /** Addresses written here that the router has not caught up with. */
  const written = useRef<string[]>([]);
  useEffect(() => {
    const text = query.toString();
    if (text === written.current.at(-1)) written.current = [];
    else if (!written.current.includes(text)) latest.current = state;
  }, [query, state]);
  const change = useCallback((some: Partial<SheetState>) => {
    latest.current = { ...latest.current, ...some };
    const text = writeSheetState(latest.current);
    written.current.push(text);
    window.history.replaceState(null, '', text ? `?${text}` : window.location.pathname);
  }, []);
  return [state, change];
}

/** The exaggeration: as it slides, and in the address once it is let go. */
export function useFactor(state: SheetState, change: (some: Partial<SheetState>) => void, suggested: number) {
  const [sliding, slide] = useState<number>();
  const commit = useCallback(
    (factor: number) => {
      change({ factor });
      slide(undefined);
    },
    [change],
  );
  return { factor: sliding ?? state.factor ?? suggested, slide, commit };
}
