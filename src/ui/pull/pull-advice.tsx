'use client';

import { useState } from 'react';
import { angleText } from '@/core/maths/units/angle';
import { scale } from '@/core/maths/geometry/vector';
import type { PullingAdvice, PullingPage, PullPicture } from '@/core/report/pages/pulling';
import { ATTACH_WORD, partsText, pullKeyText, pullReasonText, wayText, type PullWords } from '@/core/report/pull-words';
import { listed } from '@/core/report/vocabulary/words';
import { NEW_PULL } from '@/core/shell/job/entities';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { Decline, Declined } from '../work/declined';
import { freeCode } from '../work/free-code';
import type { PullActions } from './actions';
import { anglesOf } from './shape';

interface AdviceProps {
  readonly page: PullingPage;
  readonly picture: PullPicture;
  readonly advice: PullingAdvice;
  readonly actions: Pick<PullActions, 'planPull' | 'decideAdvice'>;
}

/** The few pulls that are proposed, in the order they are made: taken, or declined for a reason, and then others are found. */
export function AdviceList({ page, picture, advice, actions }: AdviceProps) {
  const format = useFormat();
  const code = (id: string) => page.points.find((point) => point.id === id)?.code ?? '';
  const words: PullWords = { point: code, length: (mm) => `${format.length(mm)} ${format.unit}` };
  const worst = advice.watched.reduce<PullingAdvice['watched'][number] | undefined>(
    (most, each) => (!most || Math.abs(each.moves) / each.limit > Math.abs(most.moves) / most.limit ? each : most),
    undefined,
  );
  return (
    <section aria-label="Proposed pulls" className="flex flex-col gap-3">
      <h2 className="caps">
        {page.pulls.some(({ isOpen }) => isOpen)
          ? 'Proposed besides those planned, in this order'
          : 'Proposed, in this order'}
      </h2>
      {advice.proposals.length === 0 ? (
        <p>No further pull brings what is out nearer to where it belongs without moving what stands right.</p>
      ) : null}
      {advice.proposals.map((proposal, i) => (
        <Proposed key={proposal.key} {...{ page, picture, advice, proposal, words, actions }} place={i + 1} />
      ))}
      {worst ? (
        <p className="text-sm text-soft">
          Of what stands right, {code(worst.pointId)} moves most while one of them is on:{' '}
          {words.length(Math.abs(worst.moves))} of {words.length(worst.limit)}.
        </p>
      ) : null}
      {advice.holds.length > 0 ? (
        <p className="border-l-4 border-minus pl-3">
          {'First hold the shell at '}
          {listed(
            advice.holds.map(
              ({ pointId, without, limit }) =>
                `${code(pointId)} (it would move ${words.length(without)}, and may ${words.length(limit)})`,
            ),
          )}
          : what is proposed counts on it, and taking a pull writes it down.
        </p>
      ) : null}
      <Declined
        declined={page.declined}
        said={pullKeyText}
        on={(key) => adviceOn(page, key)}
        decideAdvice={actions.decideAdvice}
      />
    </section>
  );
}

interface ProposedProps extends AdviceProps {
  readonly proposal: PullingAdvice['proposals'][number];
  readonly place: number;
  readonly words: PullWords;
}

function Proposed({ page, advice, proposal, place, words, actions }: ProposedProps) {
  const format = useFormat();
  const taking = useAction(actions.planPull);
  const [id] = useState(() => crypto.randomUUID());
  const { key, what, why, cost } = proposal;
  const { heading, rise } = anglesOf(what.direction);
  const { jobId, roundId } = page;
  const take = () => {
    const name = freeCode(page.usedCodes, 'P');
    const [aimX, aimY, aimZ] = scale(what.direction, what.gain);
    return taking.run(
      {
        item: { id, jobId, kind: 'pull', code: name, name },
        pull: {
          ...{ id, jobId, roundId: roundId!, pointId: what.pointId, aimX, aimY, aimZ, ...NEW_PULL },
          ...{ againstPointId: what.againstPointId ?? null, attach: what.attach },
        },
        holds: advice.holds.map(({ pointId }) => ({
          ...{ id: crypto.randomUUID(), itemId: id, pointId, kind: 'clamp' as const, rating: null },
        })),
        plates: (what.plates ?? []).map((plate) => ({ id: crypto.randomUUID(), itemId: id, ...plate })),
      },
      id,
    );
  };
  return (
    <article className="flex flex-col gap-1 border-l-4 border-rule pl-3" data-proposed={key}>
      <p>
        <strong>
          {place}. {words.point(what.pointId)}
          {what.againstPointId ? ` against ${words.point(what.againstPointId)}` : ''}
          {what.plates
            ? ` and ${listed(what.plates.map(({ pointId, share }) => `${words.point(pointId)} (${Math.round(100 * share)} %)`))} by a bar`
            : ''}
        </strong>
        , {words.length(what.gain)} {wayText(what.direction)}
      </p>
      <ul className="text-sm text-soft">
        <li>
          {partsText(scale(what.direction, what.gain), format.length)}; {angleText(heading)} in plan, {angleText(rise)}{' '}
          above the bench; {ATTACH_WORD[what.attach]}
        </li>
        {why.map((each, i) => (
          <li key={i} className={each.kind === 'tooFarGone' || each.kind === 'soundYields' ? 'text-minus' : ''}>
            {format.name(pullReasonText(each, words))}
          </li>
        ))}
        <li>about {cost.minutes} min in small strokes, measured after each</li>
      </ul>
      <Faults faults={taking.faults} />
      <div className="flex gap-2">
        <Button look="main" disabled={taking.pending || roundId === null} onClick={take}>
          Take
        </Button>
        <Decline
          title={`Not ${pullKeyText(key)}`}
          description="It is not proposed again until it is allowed; others are looked for"
          placeholder="no way to anchor there"
          on={adviceOn(page, key)}
          decideAdvice={actions.decideAdvice}
        />
      </div>
    </article>
  );
}

const adviceOn = ({ jobId, roundId }: PullingPage, key: string) => ({
  ...{ jobId, kind: 'pull' as const, key, shown: '', basis: `round ${roundId ?? ''}` },
});
