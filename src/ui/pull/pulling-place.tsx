'use client';

import { useMemo, useState } from 'react';
import { directionOf } from '@/core/findings/strokes';
import type { Vector } from '@/core/maths/geometry/vector';
import type { PullingAdvice, PullingPage, PullPicture, PullView } from '@/core/report/pages/pulling';
import { whyNotText } from '@/core/report/pull-words';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { unpacked } from '../kit/unpacked';
import { useAction } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import type { PullActions } from './actions';
import { AdviceList, AdviceRunning } from './pull-advice';
import { ComparePlans } from './compare-plans';
import { PullCard } from './pull-card';
import { PlanPull } from './pull-form';
import { PullSheet } from './pull-sheet';
import type { Arrow } from './pull-arrows';
import { together, whileTurning, type Shape } from './shape';
import { TurnPanel } from './turn-panel';

interface PlaceProps {
  readonly rows: JobRows;
  readonly page: PullingPage;
  readonly actions: PullActions;
}

/** The one place for pulls: the shell as it is, what is proposed, and what every planned pull does. */
export const PullingPlace = unpacked(Place);

function Place({ rows, page, actions }: PlaceProps) {
  const { pulls, picture } = page;
  const [asked, ask] = useState(true);
  const advising = useTask('advisePulls', rows, picture && !page.why && asked ? undefined : null);
  const advice = advising.value?.ok ? advising.value.advice : undefined;
  const why = page.why ?? (advising.value?.ok === false ? advising.value : undefined);
  return (
    <section aria-label="Pulling" className="flex flex-col gap-6">
      {why ? (
        <p role="status" className="border-l-4 border-rule pl-3">
          {whyNotText(why)}
        </p>
      ) : null}
      {picture ? <Drawn {...{ rows, page, picture, actions, advice }} /> : null}
      {picture && !page.why ? (
        <AdviceRunning {...{ advising, asked }} onCancel={() => ask(false)} onAsk={() => ask(true)} />
      ) : null}
      <section aria-label="Pulls" className="flex flex-col gap-4">
        <div className="flex items-center gap-3">
          <h2 className="text-xl">Pulls</h2>
          <PlanPull {...{ page, actions }} />
        </div>
        {pulls.length === 0 ? (
          <Empty title="No pull is planned">
            {page.roundId
              ? 'Take one that is proposed, or plan one at a point that deviates.'
              : 'Measure and align a round first: a pull starts from a deviation.'}
          </Empty>
        ) : null}
        {pulls.map((view) => (
          <PullCard key={view.pull.id} {...{ page, view, actions }} />
        ))}
      </section>
    </section>
  );
}

type Showing = 'planned' | 'proposed' | 'both';

interface DrawnProps extends PlaceProps {
  readonly picture: PullPicture;
  readonly advice: PullingAdvice | undefined;
}

function Drawn({ rows, page, picture, actions, advice }: DrawnProps) {
  const open = page.pulls.filter(({ isOpen, worked }) => isOpen && worked);
  const [chosen, choose] = useState<Showing>();
  const showing: Showing = chosen ?? (open.length > 0 ? 'planned' : 'proposed');
  const turning = useTurning(rows, open, actions);
  const planned = usePlanned(open, turning);
  const plannedArrows = open.flatMap((view) => arrowOf(picture, view, turning));
  const proposedArrows = useMemo(() => proposedOf(picture, advice), [picture, advice]);
  const watched = useMemo(
    () => new Set(open.flatMap(({ worked }) => worked!.watch.map(({ pointId }) => pointId))),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [page],
  );
  const sheet = { picture, watched, on: turning };
  const mine = (
    <PullSheet {...sheet} title="Planned pulls" arrows={plannedArrows} stays={planned} small={showing === 'both'} />
  );
  const theirs = (
    <PullSheet
      {...sheet}
      title={open.length > 0 ? 'Planned and proposed pulls' : 'Proposed pulls'}
      arrows={[...plannedArrows, ...proposedArrows]}
      stays={together([planned, advice?.stays ?? []].filter((shape) => shape.length > 0))}
      small={showing === 'both'}
    />
  );
  return (
    <div className="flex flex-col gap-3">
      <div className="no-print flex flex-wrap items-center gap-2" role="group" aria-label="Which plan is drawn">
        {(page.why
          ? []
          : ([
              ['planned', `Planned: ${open.length}`],
              [
                'proposed',
                `${open.length > 0 ? 'With those proposed' : 'Proposed'}: ${advice?.proposals.length ?? '…'}`,
              ],
              ['both', 'Side by side'],
            ] as const)
        ).map(([which, label]) => (
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
              {mine}
              {theirs}
            </div>
          ) : showing === 'planned' ? (
            mine
          ) : (
            theirs
          )}
          <ComparePlans {...{ page, picture, planned, advice }} hasPlan={open.length > 0} />
        </div>
        <div className="no-print flex min-w-0 flex-col gap-5">
          {turning.view && turning.direction && showing !== 'proposed' ? (
            <Turning {...{ turning, actions }} view={turning.view} direction={turning.direction} />
          ) : null}
          {advice ? <AdviceList {...{ page, advice, actions, picture }} /> : null}
        </div>
      </div>
    </div>
  );
}

/** The pull in hand and where it was turned to, for as long as that is not kept. */
function useTurning(rows: JobRows, open: readonly PullView[], actions: Pick<PullActions, 'correctPull'>) {
  const [picked, pick] = useState<string>();
  const [draft, setDraft] = useState<{ readonly of: PullView; readonly direction: Vector }>();
  const keeping = useAction(actions.correctPull);
  const view = open.find(({ pull }) => pull.id === picked) ?? open[0];
  // Once the page comes again with the pull as it was kept, there is nothing to keep any more.
  const own = draft && draft.of === view ? draft.direction : undefined;
  const exact = useTask('tryPull', rows, own && view ? { pullId: view.pull.id, direction: own } : null, 250);
  const turn = (id: string, direction: Vector) => {
    const of = open.find(({ pull }) => pull.id === id);
    if (!of) return;
    pick(id);
    setDraft({ of, direction });
  };
  const keep = () => {
    if (!view || !own) return;
    const { code: _, ...pull } = view.pull;
    const [dirX, dirY, dirZ] = own;
    void keeping.run({ item: view.item, pull: { ...pull, dirX, dirY, dirZ } });
  };
  return {
    view,
    draft: own,
    direction: own ?? (view && directionOf(view.pull)),
    /** What the model says of the draft, once it has reckoned. */
    exact: own && !exact.busy && exact.value ? exact.value : undefined,
    busy: exact.busy,
    ...{ pick, turn, keep },
    drop: () => setDraft(undefined),
    faults: keeping.faults,
    pending: keeping.pending,
  };
}

type Turned = ReturnType<typeof useTurning>;

interface TurningProps {
  readonly turning: Turned;
  readonly view: PullView;
  readonly direction: Vector;
}

function Turning({ turning, view, direction }: TurningProps) {
  const { code } = view.pull;
  if (view.pull.againstPointId) return null;
  return (
    <section aria-label="Turn a pull" className="flex flex-col gap-2">
      <TurnPanel {...{ code, direction }} onTurn={(next) => turning.turn(view.pull.id, next)} />
      {turning.draft ? (
        <>
          <p role="status" className="text-sm text-soft">
            {turning.busy
              ? 'As far as all gives elastically; what yields is being reckoned …'
              : turning.exact?.tried
                ? 'Reckoned with what yields.'
                : 'No pull that way leaves the point moved: the metal there is held, or comes home whole.'}
          </p>
          <span className="flex gap-2">
            <Button look="main" disabled={turning.pending} onClick={turning.keep}>
              Keep this direction
            </Button>
            <Button onClick={turning.drop}>As it was</Button>
          </span>
        </>
      ) : (
        <p className="text-sm text-soft">
          Drag the block at the end of a pull, or turn it here; nothing is kept until you say so.
        </p>
      )}
      <Faults faults={turning.faults} />
    </section>
  );
}

/** What all open pulls leave, with the one in hand as it is turned. */
function usePlanned(open: readonly PullView[], { view, draft, exact }: Turned): Shape {
  return useMemo(
    () =>
      together(
        open.map((each) => (each === view && draft ? (exact?.stays ?? whileTurning(each, draft)) : each.worked!.stays)),
      ),
    [open, view, draft, exact],
  );
}

/** So long a pull is drawn, mm of the shell. */
const DRAWN = 420;
const reach = (from: Vector, by: Vector): Vector => from.map((value, k) => value + DRAWN * by[k]!) as unknown as Vector;

function arrowOf({ nodes }: PullPicture, view: PullView, { view: picked, direction }: Turned): Arrow[] {
  const { pull, worked } = view;
  if (!worked) return [];
  const from = nodes[worked.at.node]!.at;
  const lit = view === picked;
  const common = { id: pull.id, code: pull.code, from, lit };
  if (worked.at.against !== undefined) return [{ ...common, to: nodes[worked.at.against]!.at, fixed: true }];
  return [{ ...common, to: reach(from, (lit && direction) || directionOf(pull)) }];
}

function proposedOf({ nodes }: PullPicture, advice: PullingAdvice | undefined): Arrow[] {
  return (advice?.proposals ?? []).flatMap(({ key, what: { pointId, againstPointId, direction } }, i): Arrow[] => {
    const at = (id: string | undefined) => nodes.find((node) => id !== undefined && node.pointId === id)?.at;
    const [from, other] = [at(pointId), at(againstPointId)];
    return from ? [{ id: key, code: String(i + 1), from, to: other ?? reach(from, direction), proposed: true }] : [];
  });
}
