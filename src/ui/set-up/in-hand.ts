import type { Built } from '@/core/plan/set-up/build';
import type { PlannedSetUp, SetUpPage } from '@/core/report/pages/set-up';
import type { SetUpWords } from '@/core/report/set-up-words';
import type { MountPlan } from './use-plan';
import type { StackSearch } from './use-stacks';

/** What every part of the place is given. */
export interface InHand {
  readonly page: SetUpPage;
  readonly planned: PlannedSetUp;
  readonly plan: MountPlan;
  readonly built: Built;
  /** The search for the best stacks, where there are too many ways to say it at once. */
  readonly search: StackSearch;
  readonly words: SetUpWords;
}
