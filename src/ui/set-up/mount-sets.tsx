'use client';

import { useState } from 'react';
import { orderOfOthers, type MountProposal } from '@/core/plan/set-up/choose-mounts';
import { AGAINST_WORD, whyMountsText } from '@/core/report/set-up-words';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import type { InHand } from './in-hand';
import { mountOn } from './use-plan';

const MOST_NEXT = 4;

/** Which points to lower the shell on first, with why, and the points one by one. */
export function MountSets({ page, planned, plan, words, onToggle }: InHand & { onToggle: (pointId: string) => void }) {
  const [count, setCount] = useState<3 | 4>(4);
  const code = new Map(page.points.map((point) => [point.id, point.code]));
  const chosen = new Set(plan.mounts.map(({ pointId }) => pointId));
  const sets = count === 4 ? page.four : page.three;
  const take = ({ what }: MountProposal) => {
    const kept = plan.mounts.filter(({ pointId }) => pointId !== null && what.ids.includes(pointId));
    const first = what.ids.map((id) => kept.find((mount) => mount.pointId === id) ?? mountOn(planned.setUp.id, id));
    plan.set(first);
  };
  return (
    <section aria-label="Which points first" className="flex flex-col gap-3">
      <div className="flex items-center gap-2">
        <h3 className="caps">Proposed: mount first</h3>
        <span className="ml-auto flex" role="group" aria-label="How many mounts first">
          {([4, 3] as const).map((each) => (
            <Button
              key={each}
              aria-pressed={count === each}
              look={count === each ? 'main' : 'plain'}
              onClick={() => setCount(each)}
            >
              {each}
            </Button>
          ))}
        </span>
      </div>
      {sets.length === 0 ? (
        <p>No {count} sound points stand round the weight: locate more points low on the shell, or add a place.</p>
      ) : null}
      {sets.map((set, i) => (
        <article key={set.what.ids.join()} className="flex flex-col gap-1 border-l-2 border-ink pl-3">
          <div className="flex items-center gap-2">
            <strong>{set.what.ids.map((id) => code.get(id)).join(', ')}</strong>
            <Button className="ml-auto" look={i === 0 ? 'main' : 'plain'} onClick={() => take(set)}>
              Take
            </Button>
          </div>
          <ul className="text-sm text-soft">
            {set.why.map((why) => (
              <li key={why.kind}>{whyMountsText(why, words)}</li>
            ))}
          </ul>
        </article>
      ))}
      <NextMounts {...{ page, plan, onToggle }} />
      <details>
        <summary className="min-h-11 cursor-pointer content-center">All {page.points.length} low points</summary>
        <PointList {...{ page, chosen, onToggle }} />
      </details>
    </section>
  );
}

/** After the first: the points that steady the shell most. */
function NextMounts({ page, plan, onToggle }: Pick<InHand, 'page' | 'plan'> & { onToggle: (pointId: string) => void }) {
  const chosen = new Set(plan.mounts.map(({ pointId }) => pointId));
  if (plan.mounts.length < 3) return null;
  const first = page.points.filter(({ id }) => chosen.has(id));
  const next = orderOfOthers(
    first,
    page.points.filter(({ id }) => !chosen.has(id)),
    page.extent,
  ).slice(0, MOST_NEXT);
  if (next.length === 0) return null;
  const code = new Map(page.points.map((point) => [point.id, point.code]));
  return (
    <p className="flex flex-wrap items-center gap-2">
      <span className="caps">Then</span>
      {next.map(({ id }) => (
        <Button key={id} aria-label={`Add a mount at ${code.get(id)}`} onClick={() => onToggle(id)}>
          + {code.get(id)}
        </Button>
      ))}
    </p>
  );
}

function PointList({
  page,
  chosen,
  onToggle,
}: Pick<InHand, 'page'> & { chosen: ReadonlySet<string | null>; onToggle: (pointId: string) => void }) {
  const format = useFormat();
  return (
    <ul className="max-h-80 overflow-auto border-y border-rule" tabIndex={0} aria-label="Points low on the shell">
      {page.points.map((point) => (
        <li key={point.id} className="border-b border-faint">
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="h-5 w-5"
              checked={chosen.has(point.id)}
              onChange={() => onToggle(point.id)}
            />
            <span className="font-medium">{point.code}</span>
            <span className="truncate text-sm text-soft">{format.name(point.name)}</span>
            <span className="ml-auto pr-1 text-sm text-minus">
              {point.against.map((each) => AGAINST_WORD[each]).join(', ')}
            </span>
          </label>
        </li>
      ))}
    </ul>
  );
}
