import type { Reading } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { correctedValue } from '@/core/round/observe/corrections';
import { Job } from '@/core/shell/job/job';
import { isPair, type SurveyReading } from '@/core/survey/survey';

const LETTER = { station: 'l', offset: 'w', height: 'h' } as const;
const shown = (mm: number): string => `${Math.round(mm * 10) / 10} mm`;

/**
 * The line that would have been typed had a reading been read right: its raw value, changed by what the
 * cause changes, before the instrument's own corrections.
 */
export function correctedText(rows: JobRows, reading: Reading, corrected: SurveyReading): string | undefined {
  if (corrected.kind === 'position' || corrected.kind === 'rise') return undefined;
  const job = Job.of(rows);
  const temperature = job.round(reading.roundId)?.temperature ?? null;
  const before = correctedValue(reading, job.version(reading.instrumentVersionId), temperature);
  const raw = reading.value + corrected.value - before;
  if (!isPair(corrected)) return `${job.code(corrected.point)} ${LETTER[corrected.kind]} ${shown(raw)}`;
  const pointers = corrected.pointers?.map((each) => Math.round(each * 10) / 10).join(' ');
  const level = corrected.kind === 'plan' ? ' level' : ' tip';
  return `${job.code(corrected.from)} ${job.code(corrected.to)} ${shown(raw)}${pointers ? ` p ${pointers}` : ''}${level}`;
}

/** A reading as one line, as if it were typed now. */
export function lineText(rows: Pick<JobRows, 'points'>, reading: Reading): string {
  const code = (id: string | null) => rows.points.find((point) => point.id === id)?.code ?? '';
  const amount = `${Math.round(reading.value * 1000) / 1000} mm`;
  const pointers = reading.pointerFrom !== null ? ` p ${reading.pointerFrom} ${reading.pointerTo ?? 0}` : '';
  return reading.toPointId
    ? `${code(reading.pointId)} ${code(reading.toPointId)} ${amount}${pointers} ${reading.measure ?? 'tip'}`
    : `${code(reading.pointId)} ${reading.quantity[0]} ${amount}`;
}
