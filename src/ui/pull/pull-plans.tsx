import { useMemo, useState } from 'react';
import { directionOf } from '@/core/findings/strokes';
import type { Vector } from '@/core/maths/geometry/vector';
import type { PullingAdvice, PullingPage, PullPicture, PullView } from '@/core/report/pages/pulling';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button } from '../kit/button';
import type { PullActions } from './actions';
import { ComparePlans } from './compare-plans';
import { AdviceList } from './pull-advice';
import type { Arrow } from './pull-arrows';
import { PullSheet } from './pull-sheet';
import { together, whileTurning, type Shape } from './shape';
import { Turning } from './turning';
import { useTurning, type Turned } from './use-turning';

/** A part of a plan: a pull that is planned, or all that are proposed. */
interface PlanPart {
  readonly id: string;
  readonly label: string;
  readonly arrows: readonly Arrow[];
  readonly stays: Shape;
}

type Showing = 'planned' | 'proposed' | 'both';

interface PlansProps {
  readonly rows: JobRows;
  readonly page: PullingPage;
  readonly picture: PullPicture;
  readonly actions: PullActions;
  readonly advice: PullingAdvice | undefined;
}

/** The shell with the pulls that are planned, with those proposed, or with any two plans made of both beside one another. */
export function PullPlans({ rows, page, picture, actions, advice }: PlansProps) {
  const open = page.pulls.filter(({ isOpen, worked }) => isOpen && worked);
  const [chosen, choose] = useState<Showing>();
  const showing: Showing = chosen ?? (open.length > 0 ? 'planned' : 'proposed');
  const turning = useTurning(rows, open, actions);
  const parts = useParts(picture, open, turning, advice);
  const [left, setLeft] = useState<ReadonlySet<string>>();
  const [right, setRight] = useState<ReadonlySet<string>>();
  const planned = parts.filter(({ id }) => id !== PROPOSED);
  const watched = useMemo(
    () =>
      new Set(
        page.pulls.flatMap(({ isOpen, worked }) =>
          (isOpen && worked ? worked.watch : []).map(({ pointId }) => pointId),
        ),
      ),
    [page],
  );
  const sheet = { picture, watched, on: turning };
  const choice = (of: ReadonlySet<string> | undefined, usual: readonly PlanPart[]) =>
    of ? parts.filter(({ id }) => of.has(id)) : usual;
  const [one, other] = [choice(left, planned), choice(right, parts)];
  const columns =
    showing === 'both'
      ? [
          { title: 'The left plan leaves', parts: one },
          { title: 'The right plan leaves', parts: other },
        ]
      : [
          ...(open.length > 0 ? [{ title: 'Planned pulls leave', parts: planned }] : []),
          ...(advice ? [{ title: open.length > 0 ? 'With those proposed' : 'Proposed pulls leave', parts }] : []),
        ];
  return (
    <div className="flex flex-col gap-3">
      <div className="no-print flex flex-wrap items-center gap-2" role="group" aria-label="Which plan is drawn">
        {(page.why ? [] : choicesOf(open.length, advice)).map(([which, label]) => (
          <Button key={which} aria-pressed={showing === which} onClick={() => choose(which)}>
            {label}
          </Button>
        ))}
        {picture.standsAsUsual ? (
          <span className="text-soft">
            No set-up is planned: the shell is taken to be clamped at four places of its sills.
          </span>
        ) : null}
      </div>
      <div className={`grid gap-4 ${showing === 'both' ? '' : 'xl:grid-cols-[minmax(0,1fr)_344px]'}`}>
        <div className="flex min-w-0 flex-col gap-4">
          {showing === 'both' ? (
            <div className="grid min-w-0 gap-3 lg:grid-cols-2">
              <Beside name="the left plan" parts={parts} shown={one} sheet={sheet} onChange={setLeft} />
              <Beside name="the right plan" parts={parts} shown={other} sheet={sheet} onChange={setRight} />
            </div>
          ) : (
            <PullSheet
              {...sheet}
              {...drawnOf(showing === 'planned' ? planned : parts)}
              title={titleOf(showing, open.length > 0)}
            />
          )}
          <ComparePlans
            {...{ page, picture }}
            plans={columns.map(({ title, parts: of }) => ({ title, stays: drawnOf(of).stays }))}
          />
        </div>
        <div className="no-print flex min-w-0 flex-col gap-5">
          {turning.view && turning.direction && showing !== 'proposed' ? (
            <Turning turning={turning} view={turning.view} direction={turning.direction} />
          ) : null}
          {advice ? <AdviceList {...{ page, advice, actions, picture }} /> : null}
        </div>
      </div>
    </div>
  );
}

const choicesOf = (open: number, advice: PullingAdvice | undefined): readonly (readonly [Showing, string])[] => [
  ['planned', `Planned: ${open}`],
  ['proposed', `${open > 0 ? 'With those proposed' : 'Proposed'}: ${advice?.proposals.length ?? '…'}`],
  ['both', 'Side by side'],
];

const titleOf = (showing: Showing, hasPlan: boolean): string =>
  showing === 'planned' ? 'Planned pulls' : hasPlan ? 'Planned and proposed pulls' : 'Proposed pulls';

const drawnOf = (parts: readonly PlanPart[]): { readonly arrows: readonly Arrow[]; readonly stays: Shape } => ({
  arrows: parts.flatMap(({ arrows }) => arrows),
  stays: together(parts.map(({ stays }) => stays).filter((shape) => shape.length > 0)),
});

interface BesideProps {
  readonly name: string;
  readonly parts: readonly PlanPart[];
  readonly shown: readonly PlanPart[];
  readonly sheet: Pick<Parameters<typeof PullSheet>[0], 'picture' | 'watched' | 'on'>;
  readonly onChange: (ids: ReadonlySet<string>) => void;
}

/** One plan of two: which pulls it is made of, and the shell with them. */
function Beside({ name, parts, shown, sheet, onChange }: BesideProps) {
  const ids = new Set(shown.map(({ id }) => id));
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <div className="no-print flex flex-wrap gap-2" role="group" aria-label={`Pulls of ${name}`}>
        {parts.map(({ id, label }) => (
          <Button
            key={id}
            aria-pressed={ids.has(id)}
            onClick={() => onChange(new Set(ids.has(id) ? [...ids].filter((each) => each !== id) : [...ids, id]))}
          >
            {label}
          </Button>
        ))}
      </div>
      <PullSheet {...sheet} {...drawnOf(shown)} title={shown.map(({ label }) => label).join(', ') || 'No pull'} small />
    </div>
  );
}

const PROPOSED = 'proposed';

/** What plans are made of: every planned pull, the one in hand as it is turned, and those proposed. */
function useParts(
  picture: PullPicture,
  open: readonly PullView[],
  turning: Turned,
  advice: PullingAdvice | undefined,
): readonly PlanPart[] {
  const { view: picked, draft, exact } = turning;
  const proposed = useMemo(() => proposedOf(picture, advice), [picture, advice]);
  const own = open.map((view): PlanPart => {
    const stays = view === picked && draft ? (exact?.stays ?? whileTurning(view, draft)) : view.worked!.stays;
    return { id: view.pull.id, label: view.pull.code, arrows: arrowOf(picture, view, turning), stays };
  });
  if (proposed.length === 0) return own;
  return [...own, { id: PROPOSED, label: 'Proposed', arrows: proposed, stays: advice?.stays ?? [] }];
}

/** So long a pull is drawn, mm of the shell. */
const DRAWN = 420;
const reach = (from: Vector, by: Vector): Vector => from.map((value, k) => value + DRAWN * by[k]!) as unknown as Vector;

function arrowOf({ nodes }: PullPicture, view: PullView, { view: picked, direction }: Turned): Arrow[] {
  const { pull, worked } = view;
  if (!worked) return [];
  const from = nodes[worked.at.node]!.at;
  const lit = view === picked;
  const plates = (worked.at.plates ?? []).map(({ node }) => nodes[node]!.at);
  const common = { id: pull.id, code: pull.code, from, lit, plates };
  if (worked.at.against !== undefined) return [{ ...common, to: nodes[worked.at.against]!.at, fixed: true }];
  return [{ ...common, to: reach(from, (lit && direction) || directionOf(pull)) }];
}

function proposedOf({ nodes }: PullPicture, advice: PullingAdvice | undefined): Arrow[] {
  const at = (id: string | undefined) => nodes.find((node) => id !== undefined && node.pointId === id)?.at;
  return (advice?.proposals ?? []).flatMap(({ key, what }, i): Arrow[] => {
    const [from, other] = [at(what.pointId), at(what.againstPointId)];
    const plates = (what.plates ?? []).map(({ pointId }) => at(pointId)).filter((place) => place !== undefined);
    const to = other ?? (from && reach(from, what.direction));
    return from && to ? [{ id: key, code: String(i + 1), from, to, plates, proposed: true }] : [];
  });
}
