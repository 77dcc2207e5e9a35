import type { JobTable } from './job-rows';

/** What nothing measured and nothing of the structure hangs on: who does what when, what was written, photographed and signed. */
const OFFICE = [
  ...['people', 'closedDays', 'bookings', 'timers', 'steps', 'stepEvents', 'stepNeeds', 'stepPeople'],
  ...['photographs', 'signedRecords', 'changes', 'decisionDetails', 'partTags', 'adviceTaken'],
] as const satisfies readonly JobTable[];

/** How panels are hung, fitted and welded, and what is drawn for that. */
const FITTING = [
  ...['hungPanels', 'panelSeams', 'panelSettings', 'settingEffects', 'shims', 'bodyPackers', 'packerEffects'],
  ...['panelMeasures', 'openingCorners', 'laps', 'fitChecks', 'fitReadings', 'trims', 'panelJoints', 'letGos'],
  ...['fixings', 'weldSeams', 'weldStretches', 'weldMarks', 'cracks', 'templates', 'templatePoints', 'cutLines'],
] as const satisfies readonly JobTable[];

/** What the structure, what is cut of it and what holds it do not hang on: `job.without(APART_FROM_METAL)`. */
export const APART_FROM_METAL: readonly JobTable[] = [...OFFICE, ...FITTING];

/** What a round is not judged by. */
export const APART_FROM_ROUNDS: readonly JobTable[] = [
  ...APART_FROM_METAL,
  ...(['structures', 'nodes', 'members', 'shearPanels', 'pressTests', 'stiffeners', 'joints', 'panelParts'] as const),
  ...(['braces', 'braceDimensions', 'keepOuts', 'strokes', 'springBacks', 'removalChecks', 'removalReadings'] as const),
];
