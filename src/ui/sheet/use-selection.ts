import { useCallback, useMemo } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import type { useSheetAddress, SheetState } from './use-sheet-address';
import type { SheetPair } from './view';
import type { Subject } from './subject';

/** The point or dimension the address names, as the sheet, the lists and the reasons need it. */
export function useSelection(
  rows: JobRows,
  judgement: RoundJudgement,
  state: SheetState,
  change: ReturnType<typeof useSheetAddress>[1],
) {
  const point = judgement.points.find((each) => each.point.code === state.point)?.point;
  const dimension = judgement.dimensions.find((each) => each.dimension.code === state.dimension)?.dimension;
  const lit = useMemo(
    () => (point ? [point.id] : dimension ? [dimension.fromPointId, dimension.toPointId] : []),
    [point, dimension],
  );
  const pairs = useMemo(
    (): readonly SheetPair[] =>
      dimension && !point ? [{ from: dimension.fromPointId, to: dimension.toPointId, strong: true }] : [],
    [dimension, point],
  );
  const subject = useMemo(
    (): Subject | undefined =>
      point ? { kind: 'point', id: point.id } : dimension && { kind: 'dimension', id: dimension.id },
    [point, dimension],
  );
  const selectPoint = useCallback((code: string) => change({ point: code, dimension: undefined }), [change]);
  const selectDimension = useCallback((code: string) => change({ dimension: code, point: undefined }), [change]);
  const selectId = useCallback(
    (id: string) => selectPoint(rows.points.find((each) => each.id === id)!.code),
    [rows, selectPoint],
  );
  return { lit, pairs, subject, selectPoint, selectDimension, selectId };
}
