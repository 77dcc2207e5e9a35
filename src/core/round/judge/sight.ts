import type { Seam } from '../../shell/job/entities';

/** The lines people see count most: swage line and top edge, then shut lines, then what hides. */
export const SIGHT_WEIGHT: Readonly<Record<Seam['sight'], number>> = { line: 3, shut: 2, hidden: 1 };
