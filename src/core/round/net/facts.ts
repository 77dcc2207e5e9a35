import { parseLength } from '../../maths/units/length';
import type { Reading } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { ReadingFacts } from '../../survey/causes';
import type { SurveyReading } from '../../survey/survey';

/** What the job knows of a reading: how it was typed, the holes at its ends, the points opposite. */
export function factsFor(job: Job): (reading: SurveyReading) => ReadingFacts {
  const { points } = job.rows;
  const holes = new Map(points.flatMap(({ id, holeDiameter }) => (holeDiameter ? [[id, holeDiameter] as const] : [])));
  const opposite = new Map(points.map(({ id }) => [id, job.opposite(id)?.id] as const));
  return (reading) => {
    const row = job.reading(reading.id);
    const typed = row && typedAmount(row);
    return { holes, opposite, name: (id) => job.code(id), ...(typed ? { typed } : {}) };
  };
}

/** The last amount of a typed line and its unit, where it is that reading's own. */
function typedAmount(reading: Reading): ReadingFacts['typed'] {
  const words = reading.raw.trim().split(/\s+/);
  const amount = words.at(-1) ?? '';
  const unit = /("|in)$/i.test(reading.raw.trim()) ? 'in' : /cm$/i.test(amount) ? 'cm' : 'mm';
  const per = { mm: 1, cm: 10, in: 25.4 }[unit];
  const parsed = parseLength(amount, unit);
  return parsed.ok && Math.abs(Math.abs(parsed.mm) - Math.abs(reading.value)) < 0.06
    ? { amount: reading.value / per, unit }
    : undefined;
}
