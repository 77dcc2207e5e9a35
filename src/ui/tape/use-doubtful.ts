import { useCallback, useMemo } from 'react';
import { once } from '@/core/maths/once';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import type { Reading } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { JobTable } from '@/core/shell/job/job-rows';
import { spreadOf } from '@/core/shell/instruments';
import { unlikely, type Unlikely } from '@/core/walk/unlikely';
import { expectationOf } from '@/core/walk/wanted';
import type { LineWithNew } from '@/core/shell/shorthand/new-points';
import { MM_PER } from '@/core/maths/units/length';
import { unlikelyQuestion } from './reading-lines';
import type { MeasuringState } from './use-measuring';
import { useFormat } from '../shell/preferences-context';

/** What is expected of a reading hangs on the judged round, not on the readings that came since. */
const READ: readonly JobTable[] = ['readings', 'readingStrikes', 'readingKeeps'];

/** Whether a reading is far from what others than its own repeats and mirror image say of it; of each it is worked out once. */
function strangeBy(job: Job, judgement: RoundJudgement | undefined): (reading: Reading) => boolean {
  const known = new Map<string, boolean>();
  return (reading) =>
    once(known, reading.id, () => {
      const instrument = job.version(reading.instrumentVersionId);
      const sd = spreadOf(instrument, reading.value);
      const expected = expectationOf(job, judgement, reading, instrument);
      const byItsLike = expected?.from === 'readings' || expected?.from === 'otherSide';
      return !byItsLike && unlikely(reading, expected, sd) !== undefined;
    });
}

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
        const instrument = instruments.versionFor(reading.quantity);
        const sd = spreadOf(instrument, reading.value);
        const typed = { amount: reading.value / MM_PER[inUnit], unit: inUnit };
        const found = unlikely(reading, expectationOf(job, judgement, reading, instrument), sd, typed);
        return found ? [found] : [];
      });
      return asked[0] && unlikelyQuestion(asked[0], format);
    },
    [job, judgement, instruments, unit, format],
  );
  const unread = job.without(READ);
  const isStrange = useMemo(() => strangeBy(unread, judgement), [unread, judgement]);
  const lines = useMemo((): ReadonlySet<string> => {
    const doubted = new Set(judgement?.net.doubts.map(({ readingId }) => readingId));
    const isDoubtful = (reading: Reading) => doubted.has(reading.id) || (!job.isKept(reading.id) && isStrange(reading));
    return new Set(
      shownLines.flatMap(({ lineId, strike, readings }) => (!strike && readings.some(isDoubtful) ? [lineId] : [])),
    );
  }, [job, judgement, isStrange, shownLines]);
  return { question, lines };
}
