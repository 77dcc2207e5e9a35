import type { BraceReason } from '../plan/cut/brace-advice';
import type { Cause } from '../plan/cut/after-cut';
import type { GateKey } from '../plan/cut/gates';
import type { SlackRange, SlackWord } from '../plan/cut/slack-table';
import type { Brace, Joint, Panel, RemovalCheck, Template } from '../shell/job/entities';

/** What a gate asks. */
export const GATE_WORD: Readonly<Record<GateKey, string>> = {
  asFound: 'Measured as found',
  openings: 'Every opening judged, and set right with support, jack or threaded brace',
  newPanel: 'The new panel is in hand, measured against the old one and offered up',
  braces: 'The braces for this stage are fitted',
  braced: 'Measured again with the braces in: bracing itself pulled nothing',
  references: 'What dies with the panel is recorded',
  blasting: 'Measured again since it was blasted',
  cutLines: 'Every cut line read back from its edge',
  support: 'What the shell stands on stays',
  oneSide: 'One side at a time',
  stress: 'Stressed metal: cut in short lengths, read between',
  lines: 'Fuel, brake and refrigerant lines and wiring are out of the way of the cut',
  charges: 'Battery, airbag and belt-tensioner charges disconnected by the maker’s procedure',
  tank: 'The tank is outside and capped',
  struts: 'Gas struts are off',
  glass: 'Glass is out or covered',
  stands: 'Stands under the shell, chocked',
  inside: 'Nobody inside',
  identity: 'Identity numbers on the panel: photographed, kept, moved only as local law allows',
};

export const CHOICE_WORD: Readonly<Record<NonNullable<Panel['choice']>, string>> = {
  patch: 'patch',
  partPanel: 'part panel',
  wholePanel: 'whole panel',
  remade: 'remade',
};

export const JOINT_WORD: Readonly<Record<Joint['kind'], string>> = {
  spots: 'spot welds',
  plugs: 'plug welds',
  seam: 'seam weld',
  brazed: 'brazed',
  leaded: 'leaded',
  bonded: 'bonded',
  bolted: 'bolted',
};

export const SOURCE_WORD: Readonly<Record<Template['source'], string>> = {
  card: 'card',
  paper: 'paper',
  goodPart: 'a good part',
};

export const END_WORD: Readonly<Record<Brace['fromEnd'], string>> = {
  doubled: 'pad on doubled or folded metal',
  flange: 'pad on a flange',
  skin: 'pad on bare skin: hundreds of times softer than the tube',
  bolted: 'bolted to a threaded hole',
};

export const AFTER_WORD: Readonly<Record<RemovalCheck['after'], string>> = {
  cut: 'metal out',
  bracesOut: 'braces out',
  offBench: 'off the bench',
  onWheels: 'on its wheels',
};

export const DOOR_WORD: Readonly<Record<NonNullable<RemovalCheck['door']>, string>> = {
  closes: 'it closes',
  drags: 'it drags',
  springsBack: 'it springs back',
};

/** `tight`, or `tight to loose` where it depends on how stiff the shell is. */
export function slackWords({ words: [stiff, soft] }: Pick<SlackRange, 'words'>): string {
  return stiff === soft ? stiff : `${stiff} to ${soft}`;
}

/** How the caller names a length, and shows one with its unit. */
export interface CutWords {
  readonly lengthName: (lengthId: string) => string;
  readonly length: (mm: number) => string;
}

export function braceReasonText(why: BraceReason, { lengthName, length }: CutWords): string {
  switch (why.kind) {
    case 'holds':
      return `holds ${lengthName(why.lengthId)}: ${length(why.after)} under the hand, ${length(why.before)} without it`;
    case 'clears':
      return why.ways === 1
        ? 'stands clear of what must stay free'
        : `stands clear of ${why.ways} places that must stay free`;
    case 'bolts':
      return 'bolts to threaded holes at both ends: nothing is welded, and it goes back as often as wanted';
    case 'sets':
      return `with a thread, since ${lengthName(why.lengthId)} is ${length(Math.abs(why.off))} too ${why.off > 0 ? 'long' : 'short'}: it is set with it before anything is cut`;
    case 'bears':
      return why.share > 1
        ? 'no tube of the shop bears somebody climbing on it over this length: put a foot under its middle'
        : `somebody climbing on it uses ${Math.round(100 * why.share)} % of what the tube bears`;
  }
}

/** How loose the shell is, by the largest share of what it may give that any length gives. */
export const loosenessText = (looseness: number, code: string): string =>
  Number.isFinite(looseness)
    ? `${looseness <= 1 ? 'tight' : `${looseness.toFixed(1)} times what it may give`}${code === '' || looseness <= 1 ? '' : ` at ${code}`}`
    : 'a part comes loose';

export function causeText(cause: Cause): string {
  switch (cause.kind) {
    case 'sprung':
      return 'stress that was locked into the metal was let go by the cut';
    case 'braceLoose':
      return `brace ${cause.code} does not hold: look at its ends and its lock nut`;
    case 'supportShifted':
      return `the support at ${cause.node} shifted`;
    case 'oneReading':
      return `the reading ${cause.code} alone: read it again`;
  }
}

const SCALE: readonly SlackWord[] = ['tight', 'loose', 'free'];
/** The worse of two words. */
export const worseWord = (a: SlackWord, b: SlackWord): SlackWord =>
  SCALE[Math.max(SCALE.indexOf(a), SCALE.indexOf(b))]!;
