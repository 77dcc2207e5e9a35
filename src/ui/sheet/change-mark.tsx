import type { ChangeVerdict } from '@/core/maths/statistics/verdict';
import { VerdictMark } from './mark';

const AS_VERDICT = { held: 'inside', moved: 'outside', undecided: 'undecided' } as const;

/** Held, moved or undecided: the same shapes as inside, outside and undecided. */
export const ChangeMark = ({ verdict }: { verdict: ChangeVerdict }) => (
  <VerdictMark verdict={AS_VERDICT[verdict]} lacking={verdict} />
);
