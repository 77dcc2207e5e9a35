import type {
  AllowancesInput,
  BodyPackersInput,
  ClosedFixing,
  FitChecksInput,
  FitReadingInput,
  TrimInput,
  CorrectedHungPanel,
  HeldAt,
  RowId,
  LapInput,
  LetGoInput,
  NewFixing,
  PanelJointInput,
  PanelJointKey,
  NewHungPanel,
  PanelMeasuresInput,
  PanelSettingsInput,
  ShimsInput,
} from '@/formats/inputs/fitting';
import type { WithdrawalInput } from '@/formats/inputs/work';
import type { Action } from '../kit/use-action';

/** What can be done to panels in the place for fitting. */
export interface PanelActions {
  readonly addHungPanel: Action<NewHungPanel>;
  readonly correctHungPanel: Action<CorrectedHungPanel>;
  readonly setPanelSettings: Action<PanelSettingsInput>;
  readonly setPanelMeasures: Action<PanelMeasuresInput>;
  readonly setShims: Action<ShimsInput>;
  readonly setBodyPackers: Action<BodyPackersInput>;
  readonly putTrim: Action<TrimInput>;
  readonly removeTrim: Action<RowId>;
  readonly withdraw: Action<WithdrawalInput>;
}

/** What can be done on the board. */
export interface BoardActions {
  readonly holdPanel: Action<HeldAt>;
  readonly putPanelJoint: Action<PanelJointInput>;
  readonly removePanelJoint: Action<PanelJointKey>;
  readonly addLetGo: Action<LetGoInput>;
  readonly addFixing: Action<NewFixing>;
  readonly closeFixing: Action<ClosedFixing>;
  readonly putLap: Action<LapInput>;
  readonly removeLap: Action<RowId>;
  readonly setAllowances: Action<AllowancesInput>;
}

/** What can be done to what is read besides gap and flush. */
export interface CheckActions {
  readonly addFitChecks: Action<FitChecksInput>;
  readonly removeFitCheck: Action<RowId>;
  readonly readFitCheck: Action<FitReadingInput>;
}
