import type {
  BookingInput,
  ClosedDayId,
  ClosedDaysInput,
  HeardTimer,
  NewTimer,
  PersonInput,
  PlannedStepInput,
} from '@/formats/inputs/calendar';
import type { StepEventInput } from '@/formats/inputs/work';
import type { Action } from '../kit/use-action';

/** What can be done in the calendar. */
export interface CalendarActions {
  readonly planStep: Action<PlannedStepInput>;
  readonly putPerson: Action<PersonInput>;
  readonly addClosedDays: Action<ClosedDaysInput>;
  readonly removeClosedDay: Action<ClosedDayId>;
  readonly book: Action<BookingInput>;
  readonly setTimer: Action<NewTimer>;
  readonly hearTimer: Action<HeardTimer>;
  readonly recordStepEvent: Action<StepEventInput>;
}
