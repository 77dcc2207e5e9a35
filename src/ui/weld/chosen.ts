import type { SeamPlan } from '@/core/report/pages/welding';
import type { WeldPlan } from '@/core/plan/weld-order/schools';

/** What a place is counted as, by its order in the layout. */
export const numberOf = ({ order, numbers }: WeldPlan, place: number): number => {
  const i = order.findIndex(({ plug }) => plug === place);
  return numbers?.[i] ?? i + 1;
};

/** The order that was chosen, or the usual one of its process. */
export const chosen = ({ seam, plans }: SeamPlan): WeldPlan =>
  plans.find(({ school }) => school === seam.school) ?? plans[0]!;
