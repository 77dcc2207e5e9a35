/** Minutes of what was typed, with what a day of it has. */
const UNIT: Readonly<Record<string, number>> = {
  ...{ min: 1, m: 1, minutes: 1, minute: 1, '': 1 },
  ...{ h: 60, hour: 60, hours: 60 },
};

const PART = /(\d+(?:[.,]\d+)?)\s*([a-z]*)/gi;

/**
 * Reads a duration: `45`, `45 min`, `3 h`, `3 h 30`, `1.5 h`, `2 d`, `3 weeks`.
 *
 * @param dayMinutes minutes of a day: 1440 by the clock, 480 of work
 * @returns minutes, whole; undefined where it says none
 */
export function parseDuration(text: string, dayMinutes: number): number | undefined {
  const said = text.trim().toLowerCase();
  const units: Readonly<Record<string, number>> = {
    ...UNIT,
    ...{ d: dayMinutes, day: dayMinutes, days: dayMinutes },
    ...{ w: dayWeek(dayMinutes), week: dayWeek(dayMinutes), weeks: dayWeek(dayMinutes) },
  };
  if (said === '' || said.replace(PART, '').trim() !== '') return undefined;
  let sum = 0;
  for (const [, figure, unit] of said.matchAll(PART)) {
    const of = units[unit!];
    if (of === undefined) return undefined;
    sum += Number(figure!.replace(',', '.')) * of;
  }
  return Math.round(sum);
}

/** A week by the clock has seven days, one of work five. */
const dayWeek = (dayMinutes: number): number => (dayMinutes === 1440 ? 7 : 5) * dayMinutes;
