import { useCallback, useMemo } from 'react';
import { Job } from '@/core/shell/job/job';
import { spreadOf } from '@/core/shell/instruments';
import { unlikely, type Unlikely } from '@/core/walk/unlikely';
import { expectationOf } from '@/core/walk/wanted';
import type { LineWithNew } from '@/core/shell/shorthand/new-points';
import type { LengthUnit } from '@/core/maths/units/length';
import { unlikelyQuestion } from './reading-lines';
import type { MeasuringState } from './use-measuring';
import { useFormat } from '../shell/preferences-context';

const MM_PER: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 };

type Asking = Pick<MeasuringState, 'rows' | 'judgement' | 'instruments' | 'unit' | 'shownLines'>;

/** What is asked of a line before it is taken, and the lines that stay doubtful until somebody settles them. */
export function useDoubtful({ rows, judgement, instruments, unit, shownLines }: Asking) {
  const format = useFormat();
  const job = Job.of(rows);
  const question = useCallback(
    (parsed: LineWithNew): string | undefined => {
      if (!parsed.ok) return undefined;
      const inUnit = unit === 'ft' ? 'in' : unit;
      const asked = parsed.readings.flatMap((reading): Unlikely[] => {
        const sd = spreadOf(instruments.versionFor(reading.quantity), reading.value);
        const typed = { amount: reading.value / MM_PER[inUnit], unit: inUnit };
        const found = unlikely(reading, expectationOf(job, judgement, reading), sd, typed);
        return found ? [found] : [];
      });
      return asked[0] && unlikelyQuestion(asked[0], format);
    },
    [job, judgement, instruments, unit, format],
  );
  const lines = useMemo((): ReadonlySet<string> => {
    const doubted = new Set(judgement?.net.doubts.map(({ readingId }) => readingId));
    const isDoubtful = (reading: (typeof shownLines)[number]['readings'][number]) =>
      doubted.has(reading.id) ||
      (!job.isKept(reading.id) &&
        unlikely(
          reading,
          expectationOf(job, judgement, reading),
          spreadOf(job.version(reading.instrumentVersionId), reading.value),
        ) !== undefined);
    return new Set(
      shownLines.flatMap(({ lineId, strike, readings }) => (!strike && readings.some(isDoubtful) ? [lineId] : [])),
    );
  }, [job, judgement, shownLines]);
  return { question, lines };
}
