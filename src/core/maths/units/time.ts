/** Instants are ms since 1970, durations of work minutes. */
export const MS_PER_MINUTE = 60_000;
export const MS_PER_HOUR = 60 * MS_PER_MINUTE;
/** By the calendar; where clocks change a day of the shop is longer or shorter. */
export const MS_PER_DAY = 24 * MS_PER_HOUR;
