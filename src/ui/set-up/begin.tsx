'use client';

import { useState } from 'react';
import type { SetUpPage } from '@/core/report/pages/set-up';
import { hasBeams } from '@/core/plan/set-up/build';
import type { ListedBench } from '@/core/shell/benches';
import type { SetUp } from '@/core/shell/job/entities';
import { SUSPENSION_WORD } from '@/core/report/vocabulary/words';
import type { NewSetUp } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { SelectField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';

/** Where the shell would stand: in the middle of the rails, so high that the lowest point has room for a tower and a head. */
export function usualPlace(
  { version, items }: ListedBench,
  { extent, points }: SetUpPage,
): Pick<SetUp, 'x' | 'y' | 'z'> {
  const middle = (extent.from[0] + extent.to[0]) / 2;
  const heads = items.filter(({ kind }) => kind !== 'piece').map(({ height, travel }) => height + travel / 2);
  const pieces = items.filter(({ kind }) => kind === 'piece').map(({ height }) => height);
  const room = (heads.length > 0 ? Math.max(...heads) : 60) + (pieces.length > 0 ? Math.min(...pieces) : 0);
  return {
    x: hasBeams(version) ? Math.round(version.rails / 2 - middle) : 0,
    y: 0,
    // On a floor, with no point known, heights are from the floor itself.
    z: hasBeams(version) || points.length > 0 ? Math.round(version.beamTop + room - extent.from[2]) : 0,
  };
}

/** Begins a set-up: on which bench, and with the suspension on or off. */
export function BeginSetUp({
  jobId,
  page,
  startSetUp,
}: {
  jobId: string;
  page: SetUpPage;
  startSetUp: Action<NewSetUp>;
}) {
  const { run, faults, pending } = useAction(startSetUp);
  const [benchId, setBenchId] = useState(page.benches[0]?.bench.id ?? '');
  const [suspension, setSuspension] = useState<SetUp['suspension']>('off');
  const [id] = useState(() => crypto.randomUUID());
  if (page.benches.length === 0)
    return (
      <Empty title="The shop has no bench written down">
        <a className="underline" href="/benches">
          Write down the bench, or the stands
        </a>{' '}
        and what lies on its shelf: towers, spacers, heads.
      </Empty>
    );
  const bench = page.benches.find((each) => each.bench.id === benchId)!;
  const begin = () =>
    run(
      {
        item: {
          id,
          jobId,
          kind: 'setUp',
          code: page.setUps.length === 0 ? 'set-up' : `set-up-${page.setUps.length + 1}`,
          name: bench.bench.name,
          version: 1,
        },
        setUp: {
          ...{ id, jobId, benchVersionId: bench.version.id, suspension },
          ...{ kilograms: null, centreX: null, centreY: null, turnX: 0, turnY: 0, turnZ: 0 },
          ...{ flange: null, lineFromId: null, lineToId: null },
          ...usualPlace(bench, page),
        },
      },
      id,
    );
  return (
    <section aria-label="Begin the set-up" className="flex max-w-xl flex-col gap-3">
      <h2 className="text-xl">What is the shell held on?</h2>
      <SelectField
        label="Bench"
        value={benchId}
        onChange={(event) => setBenchId(event.target.value)}
        options={page.benches.map(({ bench: each }) => [each.id, each.name])}
      />
      <SelectField
        label="Suspension"
        hint="It decides which points can be reached, and how the shell sits."
        value={suspension}
        onChange={(event) => setSuspension(event.target.value as SetUp['suspension'])}
        options={Object.entries(SUSPENSION_WORD)}
      />
      <Faults faults={faults} />
      <Button look="main" className="self-start" disabled={pending} onClick={begin}>
        Plan the set-up
      </Button>
    </section>
  );
}
