import type { DecidedAdvice } from '@/formats/inputs/cut';
import type {
  CorrectedPull,
  ItemEventInput,
  ItemHoldsInput,
  ItemPlatesInput,
  NewPull,
  NewStroke,
  WithdrawalInput,
} from '@/formats/inputs/work';
import type { Action } from '../kit/use-action';

/** What can be done in the place for pulling. */
export interface PullActions {
  readonly planPull: Action<NewPull>;
  readonly correctPull: Action<CorrectedPull>;
  readonly setHolds: Action<ItemHoldsInput>;
  readonly setPlates: Action<ItemPlatesInput>;
  readonly recordItemEvent: Action<ItemEventInput>;
  readonly withdraw: Action<WithdrawalInput>;
  readonly decideAdvice: Action<DecidedAdvice>;
}

/** What can be done at the pump. */
export interface PumpActions extends Pick<PullActions, 'recordItemEvent' | 'withdraw'> {
  readonly setStroke: Action<NewStroke>;
}
