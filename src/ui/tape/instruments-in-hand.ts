'use client';

import { useState } from 'react';
import type { InstrumentVersion, Quantity } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';

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

export const HAND_WORD: Readonly<Record<Hand, string>> = {
  distance: 'Distances with',
  plan: 'Lengths and widths with',
  height: 'Heights with',
  gap: 'Gaps with',
  fixture: 'Fixture heads',
};

const USUAL: Readonly<Record<Hand, readonly string[]>> = {
  distance: ['tape', 'tram', 'digitalTram'],
  plan: ['plumb'],
  height: ['heightStick'],
  gap: ['caliper'],
  fixture: ['fixtureHead'],
};

/** The newest version of every instrument. */
export function newestVersions(rows: JobRows): Map<string, InstrumentVersion> {
  return new Map(
    [...rows.instrumentVersions].sort((a, b) => a.number - b.number).map((version) => [version.instrumentId, version]),
  );
}

/** Which instrument takes which kind of reading: the round's own where it fits, else the usual one. */
export function useInstrumentsInHand(rows: JobRows, roundInstrumentVersionId: string) {
  const newest = newestVersions(rows);
  const own = rows.instrumentVersions.find((version) => version.id === roundInstrumentVersionId);
  const [hands, setHands] = useState<Readonly<Record<Hand, string>>>(() => {
    const pick = (hand: Hand): string => {
      const kind = (id?: string) => rows.instruments.find((each) => each.id === id)?.kind;
      if (own && USUAL[hand].includes(kind(own.instrumentId)!)) return own.instrumentId;
      const usual = USUAL[hand].flatMap((name) => rows.instruments.filter((each) => each.kind === name));
      return (usual[0] ?? rows.instruments[0]!).id;
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
