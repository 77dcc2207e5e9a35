import type {
  DecidedAdvice,
  ImportedStructure,
  KeptStructure,
  NewBlasting,
  NewCheck,
  NewPressTest,
  NewSection,
  OrderedPanels,
  PunchedPoints,
  RemovedKeepOut,
  SavedKeepOut,
  SavedPanel,
  SavedStage,
  SavedTemplate,
} from '@/formats/inputs/cut';
import type { CorrectedBrace, ItemEventInput, NewBrace, WithdrawalInput } from '@/formats/inputs/work';
import type { Action } from '../kit/use-action';

/** What can be done in the place for bracing and cutting. */
export interface CuttingActions {
  readonly planBrace: Action<NewBrace>;
  readonly correctBrace: Action<CorrectedBrace>;
  readonly recordItemEvent: Action<ItemEventInput>;
  readonly withdraw: Action<WithdrawalInput>;
  readonly savePanel: Action<SavedPanel>;
  readonly saveStage: Action<SavedStage>;
  readonly keepStructure: Action<KeptStructure>;
  readonly importStructure: Action<ImportedStructure>;
  readonly addPressTest: Action<NewPressTest>;
  readonly addSection: Action<NewSection>;
  readonly saveKeepOut: Action<SavedKeepOut>;
  readonly removeKeepOut: Action<RemovedKeepOut>;
  readonly decideAdvice: Action<DecidedAdvice>;
  readonly addCheck: Action<NewCheck>;
  readonly saveTemplate: Action<SavedTemplate>;
  readonly orderPanels: Action<OrderedPanels>;
  readonly planBlasting: Action<NewBlasting>;
  readonly punchPoints: Action<PunchedPoints>;
}
