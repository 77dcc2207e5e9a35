'use client';

import { useState } from 'react';
import type { BraceAdvice, BraceProposal } from '@/core/plan/cut/brace-advice';
import type { CuttingPage, Worked } from '@/core/report/pages/cutting';
import { braceReasonText, type CutWords } from '@/core/report/cut-words';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import { NEW_BRACE } from '@/core/shell/job/entities';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { Decline, Declined } from '../work/declined';
import { freeCode } from '../work/free-code';
import type { CuttingActions } from './actions';
import { lengthWords } from './length-words';

interface AdviceProps {
  readonly page: CuttingPage;
  readonly worked: Worked;
  readonly actions: Pick<CuttingActions, 'planBrace' | 'decideAdvice'>;
}

interface ListProps extends AdviceProps {
  /** Not there until it is worked out. */
  readonly advice: BraceAdvice | undefined;
}

/** The braces that are proposed for the stage in hand: taken, or declined for a reason, and then another is found. */
export function BraceAdviceList({ page, worked, actions, advice }: ListProps) {
  const format = useFormat();
  const stage = page.stages[worked.stage];
  const row = new Map(worked.slack.rows.map((each) => [each.lengthId, each]));
  const words: CutWords = {
    lengthName: (id) => {
      const found = row.get(id);
      return found ? lengthWords(found, format, ', ') : '';
    },
    length: (mm) => `${format.fine(mm)} ${format.unit}`,
  };
  if (!advice || !stage) return null;
  return (
    <section aria-label="Proposed braces" className="flex flex-col gap-3">
      <h2 className="caps">Proposed for “{format.name(stage.name)}”</h2>
      {'nodes' in advice ? (
        <p>
          {advice.outcome === 'noTubes'
            ? 'The shop has no tube written down to make a brace of: add one below.'
            : advice.outcome === 'noPlaces'
              ? 'There is nowhere to put a brace: no point stands on metal that stays. Lay out points there, or leave more of it.'
              : `Nothing holds ${advice.nodes.slice(0, 8).join(', ')} after this stage: stand the shell on metal that stays, or hold that part first.`}
        </p>
      ) : (
        <>
          {advice.outcome === 'holdsAlready' ? (
            <p>
              {page.braces.length > 0
                ? 'With the braces that are planned every length stays within what it may give.'
                : 'Every length stays within what it may give, also at half the stiffness: by this structure no brace is needed for it. It knows nothing of rust that nobody wrote down, nor of stress locked into the metal: where a sill or a post comes out, a bar from post to post costs little.'}
            </p>
          ) : null}
          {advice.proposals.filter(isOpen(page, worked)).map((proposal) => (
            <ProposedBrace
              key={`${proposal.what.fromPointId} ${proposal.what.toPointId}`}
              {...{ page, worked, proposal, words, actions }}
            />
          ))}
          {advice.stillLoose.length > 0 ? (
            <p className="text-minus">
              Still loose whatever is put in:{' '}
              {advice.stillLoose
                .map(({ lengthId, ratio }) => `${words.lengthName(lengthId)} (${ratio.toFixed(1)} times what it may)`)
                .join('; ')}
              . Bolt an inner frame in, leave more metal, or cut in more stages.
            </p>
          ) : null}
        </>
      )}
      <Declined
        declined={worked.declined}
        said={(key) => key.replace(' ', ' to ')}
        on={(key) => adviceOn(page, worked, key)}
        decideAdvice={actions.decideAdvice}
      />
    </section>
  );
}

interface ProposedProps extends AdviceProps {
  readonly proposal: BraceProposal;
  readonly words: CutWords;
}

function ProposedBrace({ page, worked, proposal, words, actions }: ProposedProps) {
  const format = useFormat();
  const taking = useAction(actions.planBrace);
  const [id] = useState(() => crypto.randomUUID());
  const { fromPointId, toPointId, sectionId, kind, fromEnd, toEnd, length } = proposal.what;
  const code = (pointId: string) => page.points.find((point) => point.id === pointId)!.code;
  const ends = `${code(fromPointId)} ${code(toPointId)}`;
  const isMeasured = page.places[fromPointId] !== undefined && page.places[toPointId] !== undefined;
  const section = page.sections.find((each) => each.id === sectionId)!;
  const held = proposal.why.flatMap((why) => (why.kind === 'holds' ? [why.lengthId] : []));
  const take = () => {
    const name = freeCode(page.usedCodes, 'X');
    const { jobId } = page;
    return taking.run(
      {
        item: { id, jobId, kind: 'brace', code: name, name },
        brace: {
          ...NEW_BRACE,
          ...{ id, jobId, fromPointId, toPointId, kind, sectionId, fromEnd, toEnd },
          roundId: page.latestRoundId,
        },
        dimensionIds: page.dimensions.flatMap((dimension) => (held.includes(dimension.id) ? [dimension.id] : [])),
      },
      id,
    );
  };
  return (
    <article className="flex flex-col gap-1 border-l-4 border-rule pl-3" data-proposed={ends}>
      <p>
        <strong>
          {code(fromPointId)} to {code(toPointId)}
        </strong>
        , {BRACE_WORD[kind]}, {format.name(section.name)}, {isMeasured ? '' : 'about '}
        {format.length(length)} {format.unit} between the points{isMeasured ? '' : ', by the picture of the body'}
      </p>
      <ul className="text-sm text-soft">
        {proposal.why.map((why, i) => (
          <li key={i}>{braceReasonText(why, words)}</li>
        ))}
        <li>about {proposal.cost.minutes} min to cut and fit</li>
      </ul>
      <Faults faults={taking.faults} />
      <div className="flex gap-2">
        <Button look="main" disabled={taking.pending} onClick={take}>
          Take
        </Button>
        <Decline
          title={`Not from ${code(fromPointId)} to ${code(toPointId)}`}
          description="It is not proposed again until it is allowed; another way is looked for"
          placeholder="in the way of my arms"
          on={adviceOn(page, worked, ends)}
          decideAdvice={actions.decideAdvice}
        />
      </div>
    </article>
  );
}

/** Not taken or declined since it was worked out: what comes in its place is under way. */
const isOpen = ({ braces, points }: CuttingPage, { declined }: Worked) => {
  const code = new Map(points.map((point) => [point.id, point.code]));
  const taken = new Set(braces.map(({ brace }) => [brace.fromPointId, brace.toPointId].toSorted().join()));
  const no = new Set(declined.map(({ key }) => key));
  return ({ what: { fromPointId, toPointId } }: BraceProposal): boolean =>
    !taken.has([fromPointId, toPointId].toSorted().join()) &&
    !no.has(`${code.get(fromPointId)} ${code.get(toPointId)}`);
};

const adviceOn = ({ jobId }: CuttingPage, worked: Worked, key: string) => ({
  ...{ jobId, kind: 'brace' as const, key, shown: '' },
  basis: worked.edition === undefined ? `template ${worked.template}` : `structure ${worked.edition}`,
});
