'use client';

import { useState } from 'react';
import type { InstrumentVersion, Quantity } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { newestVersions, usualFor } from '@/core/shell/instruments';

export type Hand = 'distance' | 'plan' | 'height' | 'gap' | 'fixture';

export const HAND_OF: Readonly<Record<Quantity, Hand>> = {
  distance: 'distance',
  length: 'plan',
  width: 'plan',
  height: 'height',
  gap: 'gap',
  flush: 'gap',
  fixture: 'fixture',
};

const QUANTITY_OF: Readonly<Record<Hand, Quantity>> = {
  distance: 'distance',
  plan: 'width',
  height: 'height',
  gap: 'gap',
  fixture: 'fixture',
};

export const HAND_WORD: Readonly<Record<Hand, string>> = {
  distance: 'Distances with',
  plan: 'Lengths and widths with',
  height: 'Heights with',
  gap: 'Gaps with',
  fixture: 'Fixture heads',
};

/** Which instrument takes which kind of reading: the round's own where it fits, else the usual one. */
export function useInstrumentsInHand(rows: JobRows, roundInstrumentVersionId: string) {
  const newest = newestVersions(rows);
  const own = rows.instrumentVersions.find((version) => version.id === roundInstrumentVersionId);
  const [hands, setHands] = useState<Readonly<Record<Hand, string>>>(() => {
    const pick = (hand: Hand): string => {
      const usual = usualFor(rows.instruments, QUANTITY_OF[hand]);
      return (usual.find(({ id }) => id === own?.instrumentId) ?? usual[0] ?? rows.instruments[0]!).id;
    };
    return {
      distance: pick('distance'),
      plan: pick('plan'),
      height: pick('height'),
      gap: pick('gap'),
      fixture: pick('fixture'),
    };
  });
  return {
    hands,
    choose: (hand: Hand, instrumentId: string) => setHands((all) => ({ ...all, [hand]: instrumentId })),
    versionFor: (quantity: Quantity): InstrumentVersion => newest.get(hands[HAND_OF[quantity]])!,
  };
}
