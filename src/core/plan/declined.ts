import type { AdviceTaken } from '../shell/job/entities';
import type { Tables } from '../shell/job/job-rows';

/** What was proposed of a kind and declined: of each the last word holds. */
export const declinedAdvice = ({ adviceTaken }: Tables<'adviceTaken'>, kind: AdviceTaken['kind']): AdviceTaken[] => {
  const last = new Map(adviceTaken.flatMap((each) => (each.kind === kind ? [[each.key, each] as const] : [])));
  return [...last.values()].filter(({ choice }) => choice === 'declined');
};
