import type { SavedCrack, SavedStiffener, SavedWeldSeam, SetWeldMarks } from '@/formats/inputs/welding';
import type { ItemEventInput, StepsInTurn, WithdrawalInput } from '@/formats/inputs/work';
import type { Action } from '../kit/use-action';

/** What can be done to joints in the place for welding. */
export interface WeldActions {
  readonly saveWeldSeam: Action<SavedWeldSeam>;
  readonly setWeldMarks: Action<SetWeldMarks>;
  readonly saveCrack: Action<SavedCrack>;
  readonly saveStiffener: Action<SavedStiffener>;
  readonly addStepsInTurn: Action<StepsInTurn>;
  readonly recordItemEvent: Action<ItemEventInput>;
  readonly withdraw: Action<WithdrawalInput>;
}
