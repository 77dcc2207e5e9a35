import type { BeforeFinal, BoardReason, Call } from './pages/verification';
import { counted, listed } from './vocabulary/words';

interface Lengths {
  /** With its sign. */
  readonly difference: (mm: number) => string;
  readonly plusMinus: (mm: number) => string;
}

/** What to do now. */
export const CALL_TEXT: Readonly<Record<Call, string>> = {
  go: 'Go on: nothing that nobody accepted moved beyond its noise or is outside.',
  stop: 'Stop and look, before more metal is joined.',
  undo: 'Undo it while it is only tacked: it moved, and it is outside.',
};

const percent = (share: number): string => (share > 0.995 ? 'surely' : `${Math.round(100 * share)} %`);

/** What speaks against going on. */
export function reasonText(reason: BoardReason, { difference, plusMinus }: Lengths): string {
  switch (reason.kind) {
    case 'outside':
      return `${reason.code} is outside: ${difference(reason.deviation)} and ${plusMinus(reason.limit)} is let pass.`;
    case 'moved':
      return `${reason.code} moved by ${difference(reason.by)} ${plusMinus(reason.plusMinus)}: it appeared in “${reason.round}” (${percent(reason.share)}).`;
    case 'undecided':
      return `${reason.code} moved, and whether it is outside its readings do not say: read it again.`;
    case 'unread':
      return `${counted(reason.codes.length, 'dimension')} read in the round before and not in this one: ${listed(reason.codes.slice(0, 6))}${reason.codes.length > 6 ? ' …' : ''}. Read ${reason.codes.length === 1 ? 'it' : 'them'} first.`;
  }
}

/** What must be so before it is judged for good. */
export function beforeFinalText(still: BeforeFinal): string {
  switch (still.kind) {
    case 'bracesIn':
      return `${listed(still.codes)} still ${still.codes.length === 1 ? 'holds' : 'hold'} it: what stands only while it is braced does not stand.`;
    case 'closeOut':
      return `Put in for a while and still there: ${listed(still.names)}. Weld up, grind or take off, or accept it with a reason.`;
    case 'notCold':
      return 'The last round was not taken cold: weld, let it cool, then measure.';
    case 'otherSupport':
      return `It stands otherwise than in “${still.first}”: measure it on the support of the first round, or say in the record why not.`;
  }
}
