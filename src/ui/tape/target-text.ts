import { QUANTITY_WORD } from '@/core/report/vocabulary/words';
import type { Target } from '@/core/walk/targets';

/** A reading that is wanted, as it is called out: of two points no more need be said than how the bar is held. */
export const targetText = ({ codes, quantity, measure, again }: Target): string =>
  [
    codes.join(' – '),
    ...(quantity === 'distance' ? [] : [` ${QUANTITY_WORD[quantity]}`]),
    ...(measure === 'level' ? [' level'] : []),
    ...(again ? [', again'] : []),
  ].join('');
