import type { SettleWords } from '@/core/report/settle-words';
import { useFormat } from '../shell/preferences-context';
import { targetText } from '../tape/target-text';

/** Names by identity, of those instruments and points a page speaks of. */
export interface SettleNames {
  readonly instruments: Readonly<Record<string, string>>;
  readonly codes: Readonly<Record<string, string>>;
}

/** How what settles a figure is said on every page that says it. */
export function useSettleWords({ instruments, codes }: SettleNames): SettleWords {
  const format = useFormat();
  return {
    target: targetText,
    instrument: (id) => instruments[id]?.toLowerCase() ?? 'instrument',
    code: (id) => codes[id] ?? id,
    plusMinus: (mm) => `${format.plusMinus(mm)} ${format.unit}`,
  };
}
