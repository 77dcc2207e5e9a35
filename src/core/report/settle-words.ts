import type { Job } from '../shell/job/job';
import type { SettleProposal } from '../plan/settle';
import type { Target } from '../walk/targets';

/** How the caller names things and shows lengths. */
export interface SettleWords {
  /** `F1L S2L`, `C1L height`. */
  readonly target: (target: Target) => string;
  /** `steel tape`. */
  readonly instrument: (id: string) => string;
  readonly code: (pointId: string) => string;
  /** `± 0.5 mm`. */
  readonly plusMinus: (mm: number) => string;
}

/** More readings than this are counted, not named. */
const MOST_NAMED = 2;

/** What settles an undecided figure, in a few words. */
export function settledText(proposal: SettleProposal | undefined, words: SettleWords): string {
  if (!proposal) return '';
  const { what } = proposal;
  if (what.kind === 'hold') return `hold ${words.code(what.pointId)} as control too`;
  if (what.kind === 'betterReference') return 'only a better reference can decide it';
  if (what.kind === 'finerInstrument') return 'no instrument in hand can decide it';
  const named = what.steps.slice(0, MOST_NAMED).map(({ target }) => stepText(target, words));
  const more = what.steps.length - named.length;
  return `${named.join(', then ')}${more > 0 ? `, then ${more} more` : ''}`;
}

/** One reading wanted and what it is to be taken with. */
export const stepText = (target: Target, { target: spoken, instrument }: SettleWords): string =>
  `${spoken(target)}${target.again ? ' again' : ''}${target.instrumentId ? ` with the ${instrument(target.instrumentId)}` : ''}`;

/** What the outcome means, in a sentence. */
export function settlingSentence({ what }: SettleProposal): string {
  switch (what.kind) {
    case 'betterReference':
      return 'The reference itself is not trusted to so little: no instrument can decide, only a better reference.';
    case 'finerInstrument':
      return 'No instrument in hand can decide it: not even the readings below would be enough. Take a finer one, or accept the figure with a reason.';
    case 'hold':
      return 'No reading is needed: a further control point decides it.';
    case 'read':
      return 'These readings, in this order, are expected to decide it:';
  }
}

/** What one more control point would gain, where it is worth having and not what decides already. */
export function controlSentence({ what, why }: SettleProposal, { code, plusMinus }: SettleWords): string | undefined {
  const control = why.find((each) => each.kind === 'control');
  if (control?.kind !== 'control') return undefined;
  return what.kind === 'hold'
    ? `With ${code(control.pointId)} held too it is known to ${plusMinus(control.plusMinus)}.`
    : `Holding ${code(control.pointId)} too would bring it to ${plusMinus(control.plusMinus)}.`;
}

/** Names of a job's instruments and points, by their identities. */
export const settleNames = ({ rows }: Pick<Job, 'rows'>) => ({
  instruments: Object.fromEntries(rows.instruments.map(({ id, name }) => [id, name])),
  codes: Object.fromEntries(rows.points.map(({ id, code }) => [id, code])),
});
