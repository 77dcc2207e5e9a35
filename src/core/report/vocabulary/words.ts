import type { CauseKind } from '../../survey/slips';
import type { RecordOpen } from '../../shell/record-document';
import type {
  WorkItem,
  Brace,
  FindingDetail,
  PointCondition,
  PointKind,
  PullState,
  Hold,
  Reading,
  Reference,
  Rung,
  Seam,
  StateKind,
  StepEvent,
  Support,
} from '../../shell/job/entities';
import type { StepState } from '../../days/ladder';
import type { MorningWay } from '../../plan/morning';
import type { Caution } from '../../findings/change';
import type { Lacking } from '../../round/judge/judgement';
import type { Target } from '../../walk/targets';

/** What the program's own names are called on the screen and in print. */
export const RUNG_WORD: Readonly<Record<Rung, string>> = {
  look: 'Look',
  setUp: 'Set up',
  measure: 'Measure',
  brace: 'Brace',
  cut: 'Cut',
  pull: 'Pull',
  fit: 'Fit',
  weld: 'Weld',
  verify: 'Verify',
};

/** The address of a rung's page. */
export const RUNG_PATH: Readonly<Record<Rung, string>> = {
  look: 'look',
  setUp: 'set-up',
  measure: 'measure',
  brace: 'brace',
  cut: 'cut',
  pull: 'pull',
  fit: 'fit',
  weld: 'weld',
  verify: 'verify',
};

/** What an item of work is. */
export const WORK_WORD: Readonly<Record<WorkItem['kind'], string>> = {
  setUp: 'set-up',
  panel: 'panel',
  stage: 'stage',
  brace: 'brace',
  joint: 'joint',
  pull: 'pull',
  hung: 'panel that is fitted',
  crack: 'crack',
  stiffener: 'stiffener',
  blasting: 'blasting of',
};

export const STATE_WORD: Readonly<Record<StateKind, string>> = {
  asFound: 'as found',
  stripped: 'stripped',
  braced: 'braced',
  cut: 'cut',
  pulled: 'pulled',
  fitted: 'fitted',
  clamped: 'clamped',
  tacked: 'tacked',
  oneSide: 'first side welded',
  welded: 'all welded',
  cold: 'cold',
  bracesOut: 'cold, braces out',
  onWheels: 'on its wheels',
};

export const SUPPORT_WORD: Readonly<Record<Support['kind'], string>> = {
  fixtureBench: 'fixture bench',
  sillClamps: 'clamps on the pinch flange',
  ownFrame: 'own frame',
  spit: 'roll-over spit',
  stands: 'stands or dollies',
};

export const SUSPENSION_WORD: Readonly<Record<Support['suspension'], string>> = {
  off: 'suspension off',
  onUnloaded: 'suspension on, not carrying',
  loaded: 'suspension carrying the shell',
};

export const REFERENCE_WORD: Readonly<Record<Reference['kind'], string>> = {
  chart: 'maker’s chart',
  sisterCar: 'sister car',
  mirroredSide: 'mirrored side',
  earlierRound: 'this shell earlier',
  keptPart: 'kept part',
  plannedChange: 'planned change',
};

export const POINT_KIND_WORD: Readonly<Record<PointKind, string>> = {
  shell: 'hole, edge or joint',
  bolt: 'threaded hole',
  punch: 'punch mark',
  drawn: 'drawn mark',
};

export const BRACE_WORD: Readonly<Record<Brace['kind'], string>> = {
  weldedTube: 'welded tube',
  adjustable: 'adjustable, threaded end',
  boltedFrame: 'bolted inner frame',
  slip: 'slip brace, clamped',
  prop: 'prop, presses alone',
  part: 'a part that stays',
};

export const STEP_STATE_WORD: Readonly<Record<StepState, string>> = {
  open: 'open',
  begun: 'begun',
  curing: 'curing',
  missing: 'waiting for parts',
  done: 'done',
  dropped: 'dropped',
};

export const STEP_EVENT_WORD: Readonly<Record<StepEvent['kind'], string>> = {
  begun: 'Begin',
  curing: 'Curing until',
  missing: 'Waiting for',
  done: 'Done',
  dropped: 'Drop',
  reopened: 'Open again',
};

export const CONDITION_WORD: Readonly<Record<PointCondition['kind'], string>> = {
  buried: 'Buried',
  suspension: 'Suspension',
  gone: 'Gone',
  worn: 'Worn',
  oval: 'Oval',
  rusty: 'Rusty',
  rebuilt: 'Rebuilt',
  clear: 'Clear',
};

export const WHY_WORD: Readonly<Record<Target['why'], string>> = {
  diagonal: 'diagonal',
  width: 'width',
  length: 'length',
  height: 'height',
  again: 'a second time, as a check',
  charted: 'on the chart',
  uncertain: 'makes the least sure point surer',
  unchecked: 'checks what nothing checks yet',
};

export const QUANTITY_WORD: Readonly<Record<Reading['quantity'], string>> = {
  length: 'length',
  width: 'width',
  height: 'height',
  distance: 'distance',
  gap: 'gap',
  flush: 'flush',
  fixture: 'fixture head',
};

export const CAUTION_WORD: Readonly<Record<Caution, string>> = {
  support: 'The shell stood on a different support.',
  suspension: 'The suspension carried the shell differently.',
  instrument: 'Not the same instruments were used.',
  control: 'The rounds are aligned on different control points.',
};

export const LACKING_WORD: Readonly<Record<Lacking, string>> = {
  notMeasured: 'not measured',
  notLocated: 'not located',
  noReference: 'no reference',
  onSpit: 'on the spit: no verdict',
  notAligned: 'not aligned',
};

export const AXIS_WORD = { x: 'length', y: 'width', z: 'height' } as const;

/** Which way a signed component points, in plain words. */
export function directionWord(axis: 'x' | 'y' | 'z', sign: number, y = 0): string {
  if (axis === 'x') return sign >= 0 ? 'rearward' : 'forward';
  if (axis === 'z') return sign >= 0 ? 'up' : 'down';
  if (y === 0) return sign >= 0 ? 'to the right' : 'to the left';
  return sign * y >= 0 ? 'outward' : 'inward';
}

/** A slip of a number, as a question puts it. */
export const SLIP_WORD: Readonly<Record<CauseKind, string>> = {
  startMark: 'the 100 mm mark',
  otherStartMark: 'the 50 mm mark',
  inchStartMark: 'the one-inch mark',
  startMarkTwice: 'the start mark taken off twice',
  edgeForCentre: 'an edge for a centre',
  misheard: 'misheard',
  tenMiscounted: 'ten miscounted',
  digitsExchanged: 'digits exchanged',
  unit: 'another unit',
  sidesExchanged: 'the other side',
  neighbouringHole: 'the hole beside',
  pointers: 'the pointers',
  sign: 'the sign',
  eighthForSixteenth: '1/8 for 1/16',
};

/** `F1L, F1R and S2L`. */
export const listed = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;

/** The same where there may be many: `F1L, F1R and 4 more`. */
export const listedUpTo = (most: number, parts: readonly string[]): string =>
  parts.length > most ? `${parts.slice(0, most).join(', ')} and ${parts.length - most} more` : listed(parts);

/** `1 point`, `3 points`: a number of things whose plural takes an s. */
export const counted = (count: number, thing: string): string =>
  `${count} ${count === 1 ? thing : /[^aeiou]y$/.test(thing) ? `${thing.slice(0, -1)}ies` : `${thing}s`}`;

/** `Maker’s chart (maker’s chart, edition 2)`: a reference as a record names it. */
export const referenceText = ({ name, kind, edition = 1 }: { name: string; kind: string; edition?: number }): string =>
  `${name} (${REFERENCE_WORD[kind as Reference['kind']] ?? kind}${edition > 1 ? `, edition ${edition}` : ''})`;

export const SORT_WORD: Readonly<Record<FindingDetail['sort'], string>> = {
  other: 'other',
  oldWeld: 'old weld',
  metalThickness: 'thickness of the metal',
  coatingThickness: 'thickness of the coating',
  crease: 'crease',
  crack: 'crack',
  rust: 'rust',
  filler: 'filler',
  notSeen: 'hidden part, not seen',
  pressTest: 'press test by hand',
};

export const GRADE_WORD: Readonly<Record<NonNullable<FindingDetail['grade']>, string>> = {
  fused: 'fused',
  lyingOnTop: 'lying on top',
  cracked: 'cracked',
};

export const PULL_STATE_WORD: Readonly<Record<PullState, string>> = {
  planned: 'only planned',
  loaded: 'under load',
  released: 'released',
  done: 'done',
  abandoned: 'given up',
};

/** What it means that something is open when a record is signed. */
export const OPEN_WORD: Readonly<Record<RecordOpen['kind'], string>> = {
  openRound: 'round not closed',
  doubt: 'doubtful reading, left out',
  undecided: 'undecided',
  unmeasured: 'on the chart, not measured',
  loose: 'read, but not located',
  plannedBrace: 'brace only planned',
  braceIn: 'brace still in',
  closeOut: 'put in for a while and still there',
  unreadPull: 'pull not finished, or not read after release',
  notSeen: 'hidden, counts as weak until seen',
  otherSide: 'the other side still to be looked at',
  openStep: 'step not done',
};

export const MORNING_WAY_WORD: Readonly<Record<MorningWay, string>> = {
  diamond: 'diamond',
  twist: 'twist',
  mash: 'length',
  sway: 'sway',
  sag: 'sag',
};

export const MORNING_VERDICT_WORD = { still: 'nothing moved', moved: 'something moved' } as const;

export const HOLD_WORD: Readonly<Record<Hold['kind'], string>> = {
  clamp: 'clamp',
  head: 'fixture head',
  chain: 'chain',
  bolt: 'bolt',
  weld: 'welded plate',
  stand: 'stand',
};

export const SIGHT_WORD: Readonly<Record<Seam['sight'], string>> = {
  line: 'first: swage line or top edge',
  shut: 'next: shut line',
  hidden: 'last: bottom edge',
};
