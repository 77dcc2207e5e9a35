import { angleText } from '../maths/units/angle';
import type { Expected } from './pages/expected';
import type { Axles } from '../findings/axles';
import type { BeforeFinal } from './before-final';
import type { BoardReason, Call } from './pages/verification';
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
      return `${reason.code} moved by ${difference(reason.by)} ${plusMinus(reason.plusMinus)}: it appeared in “${reason.round}” (${percent(reason.share)}).${
        reason.expected ? ` ${expectedText(reason.expected, reason, { difference })}` : ''
      }`;
    case 'undecided':
      return `${reason.code} moved, and whether it is outside its readings do not say: read it again.`;
    case 'unread':
      return `${counted(reason.codes.length, 'dimension')} read in the round before and not in this one: ${listed(reason.codes.slice(0, 6))}${reason.codes.length > 6 ? ' …' : ''}. Read ${reason.codes.length === 1 ? 'it' : 'them'} first.`;
  }
}

/** What welding was expected to do, beside what was found. */
export function expectedText(
  { low, high }: Expected,
  { by, plusMinus }: { readonly by: number; readonly plusMinus: number },
  { difference }: Pick<Lengths, 'difference'>,
): string {
  const said = `What was welded before it was expected to do ${difference(low)} to ${difference(high)}`;
  return by + plusMinus < low || by - plusMinus > high
    ? `${said}: something else did it, or helped.`
    : `${said}: that explains it.`;
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
    case 'onBench':
      return 'Nothing was read off the bench: what holds only while it is bolted down does not hold.';
    case 'axlesUnread':
      return 'The wheelbases and the axles are not read: they are read last, left and right.';
  }
}

interface AxleLengths extends Lengths {
  readonly unit: string;
}

/** How the axles stand, in sentences. */
export function axleSentences(axles: Axles, { difference, plusMinus, unit }: AxleLengths): string[] {
  const { turned, aside, contradiction } = axles;
  const by = axles.difference;
  const forward = turned.degrees > 0 ? 'right' : 'left';
  const isSquare = Math.abs(turned.degrees) <= turned.plusMinus;
  return [
    `The left wheelbase is ${difference(by.value)} ${unit} (${plusMinus(by.plusMinus)}) against the right one: ${by.verdict}.`,
    isSquare
      ? `The rear axle stands square to the front one within ±${angleText(turned.plusMinus, 2)}.`
      : `The rear axle is turned by ${angleText(Math.abs(turned.degrees), 2)} ±${angleText(turned.plusMinus, 2)}, its ${forward} wheel further forward.`,
    ...(aside
      ? [
          `Its middle stands ${difference(aside.value)} ${unit} (${plusMinus(aside.plusMinus)}) to the right of the front one’s: ${aside.verdict}.`,
        ]
      : ['Both diagonals would tell whether it stands aside.']),
    ...(contradiction !== undefined && contradiction > CONTRADICTS
      ? ['The four lengths contradict each other: one of them is read wrong. Read them again.']
      : []),
  ];
}

/** Beyond so many standard deviations one of four lengths is wrong. */
const CONTRADICTS = 3;
