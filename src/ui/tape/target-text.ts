import type { Target } from '@/core/walk/targets';

/** A reading that is wanted, as it is called out. */
export const targetText = ({ codes, quantity, measure, again }: Target): string =>
  `${codes.join(' – ')}${quantity === 'height' ? ' height' : measure === 'level' ? ' level' : ''}${again ? ', again' : ''}`;
