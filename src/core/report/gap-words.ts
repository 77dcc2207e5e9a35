import type { SeamFault } from './pages/gaps';

/** How the caller shows lengths. */
export interface GapWords {
  /** A size with its unit. */
  readonly length: (mm: number) => string;
  readonly plusMinus: (mm: number) => string;
}

/** What a seam is that is not as it should be. */
export function seamFaultText({ code, what, figure }: SeamFault, { length, plusMinus }: GapWords): string {
  const size = `${length(Math.abs(figure.value))} ${plusMinus(figure.plusMinus)}`;
  const sure = figure.verdict === 'undecided' ? ', undecided' : '';
  switch (what) {
    case 'mean':
      return `${code} is ${size} too ${figure.value > 0 ? 'wide' : 'narrow'} on the whole${sure}`;
    case 'taper':
      return `${code} ${figure.value > 0 ? 'opens' : 'closes'} by ${size} from its first station to its last${sure}`;
    case 'wave':
      return `${code} stands ${size} off its own straight line at one place${sure}: the edge or the metal beside it, not where the panel hangs`;
    case 'flush':
      return `${code} is ${size} ${figure.value > 0 ? 'proud' : 'low'} on the whole${sure}`;
    case 'meeting':
      return `where ${code} meet, one gap is ${size} further off than the other${sure}`;
    case 'sides':
      return `${code}: the left is ${size} ${figure.value > 0 ? 'wider' : 'narrower'} than the right${sure}`;
  }
}
