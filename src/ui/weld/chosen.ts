import type { SeamPlan } from '@/core/report/pages/welding';
import type { WeldPlan } from '@/core/plan/weld-order/schools';

/** What each place is counted as, by its order in the layout. */
export const numbersOf = ({ order, numbers }: WeldPlan): ReadonlyMap<number, number> =>
  new Map(order.map(({ plug }, i) => [plug, numbers?.[i] ?? i + 1]));

/** The order that was chosen, or the usual one of its process. */
export const chosen = ({ seam, plans }: SeamPlan): WeldPlan =>
  plans.find(({ school }) => school === seam.school) ?? plans[0]!;
