import type { SharedKind } from '@/core/shell/shared';

export const SHARED_WORD: Readonly<Record<SharedKind, string>> = {
  chart: 'Chart',
  structure: 'Body as a structure',
  bench: 'Bench',
};
