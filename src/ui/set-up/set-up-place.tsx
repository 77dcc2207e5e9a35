'use client';

import { Link } from '../kit/link';
import { weightOf, type PlannedSetUp, type SetUpPage } from '@/core/report/pages/set-up';
import type { SetUpWords } from '@/core/report/set-up-words';
import { placementOf } from '@/core/shell/set-up';
import type { Mount } from '@/core/shell/job/entities';
import type {
  BuiltMountInput,
  GaugePartInput,
  MountsInput,
  NewBench,
  NewSetUp,
  PlatformInput,
  SetUpFields,
  TickInput,
} from '@/formats/inputs/set-up';
import type { SavedPanel } from '@/formats/inputs/cut';
import type { PackedRows } from '@/formats/packed-rows';
import { Button, buttonClass } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { ClientOnly } from '../kit/client-only';
import { Faults } from '../kit/faults';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { BeginSetUp } from './begin';
import { BenchPlan } from './bench-plan';
import { CutPanels } from '../cut/cut-panels';
import { FloorLineCard } from './floor-line';
import { Platform } from './platform';
import { CutList } from './cut-list';
import { Gauges } from './gauges';
import { LevelPanel } from './level-panel';
import { Lifting } from './lifting';
import { MountSets } from './mount-sets';
import { SetUpCard } from './set-up-card';
import { PlacedMounts } from './placed-mounts';
import type { Drawn } from './scale';
import { StandFields } from './stand-fields';
import type { InHand } from './in-hand';
import { mountOn, usePlan, type MountPlan } from './use-plan';
import { useStacks } from './use-stacks';
import { Wanting } from './wanting';

export interface SetUpActions {
  readonly startSetUp: Action<NewSetUp>;
  readonly changeSetUp: Action<SetUpFields>;
  readonly setMounts: Action<MountsInput>;
  readonly tickMount: Action<BuiltMountInput>;
  readonly noteSetUp: Action<TickInput>;
  readonly addBench: Action<NewBench>;
  readonly saveGaugePart: Action<GaugePartInput>;
  readonly savePanel: Action<SavedPanel>;
  readonly setPlatform: Action<PlatformInput>;
}

/** The place for setting up: the bench under the shell, what is proposed, what is in hand, and the card to build by. */
export function SetUpPlace({
  jobId,
  page,
  packed,
  actions,
}: {
  jobId: string;
  page: SetUpPage;
  /** What the levelling reads and judges: the rows of the last round. */
  packed: PackedRows;
  actions: SetUpActions;
}) {
  if (!page.planned)
    return (
      <div className="flex flex-col gap-6">
        <BeginSetUp jobId={jobId} page={page} startSetUp={actions.startSetUp} />
        <BesidesBench {...{ jobId, page, packed, actions }} />
      </div>
    );
  return <Planned key={page.planned.setUp.id} page={page} planned={page.planned} packed={packed} actions={actions} />;
}

interface PlannedProps {
  readonly page: SetUpPage;
  readonly planned: PlannedSetUp;
  readonly packed: PackedRows;
  readonly actions: SetUpActions;
}

function Planned({ page, planned, packed, actions }: PlannedProps) {
  const plan = usePlan(planned, actions.setMounts);
  const inHand: InHand = {
    page,
    planned,
    plan,
    words: useWords(page, planned, plan),
    ...useStacks(page, planned, plan),
  };
  const pointOf = new Map(plan.mounts.flatMap(({ id, pointId }) => (pointId === null ? [] : [[id, pointId] as const])));
  const { setUp, bench } = planned;
  const drawn: Drawn = {
    page,
    version: bench.version,
    items: bench.items,
    placement: placementOf(setUp),
    built: inHand.built,
    weight: weightOf(setUp, page.estimated),
    pointOf,
    nameOf: inHand.words.mount,
  };
  const toggle = (pointId: string) => {
    const there = plan.mounts.find((mount) => mount.pointId === pointId);
    plan.set(there ? plan.mounts.filter((mount) => mount !== there) : [...plan.mounts, mountOn(setUp.id, pointId)]);
  };
  const putBeam = (ids: readonly string[], hole: number, done: boolean) => {
    const mounts = plan.mounts.map((mount): Mount => (ids.includes(mount.id) ? { ...mount, hole } : mount));
    if (done) plan.set(mounts);
    else plan.show(mounts);
  };
  return (
    <section aria-label="Set-up" className="flex flex-col gap-4">
      <div className="grid gap-4 xl:grid-cols-[minmax(0,1fr)_344px] print:block">
        <div className="no-print flex min-w-0 flex-col gap-3">
          <SetUps {...{ page, planned }} startSetUp={actions.startSetUp} />
          <Strip planned={planned} plan={plan} />
          <BenchPlan drawn={drawn} onPoint={toggle} onBeam={putBeam} />
          <Faults faults={plan.faults} />
          <Wanting {...inHand} />
          <StandFields key={planned.setUp.version} planned={planned} page={page} changeSetUp={actions.changeSetUp} />
        </div>
        <div className="no-print flex min-w-0 flex-col gap-5">
          <MountSets {...inHand} onToggle={toggle} />
          <PlacedMounts {...inHand} />
          <CutPanels
            {...{ jobId: setUp.jobId, panels: page.panels, points: page.gauges.points, stages: [], parts: [] }}
            savePanel={actions.savePanel}
          />
        </div>
      </div>
      <SetUpCard {...inHand} tickMount={actions.tickMount} noteSetUp={actions.noteSetUp} />
      <FloorLineCard {...inHand} />
      <Lifting {...inHand} />
      <CutList {...inHand} addBench={actions.addBench} />
      {planned.levelling ? (
        <ClientOnly>
          <LevelPanel
            key={planned.levelling.roundId}
            {...{ planned, rows: packed, levelling: planned.levelling, noteSetUp: actions.noteSetUp }}
            words={inHand.words}
          />
        </ClientOnly>
      ) : null}
      <BesidesBench {...{ jobId: setUp.jobId, page, packed, actions }} />
    </section>
  );
}

/** What needs no bench: a body and its platform as two things, and real parts that serve as gauges. */
function BesidesBench({ jobId, page, packed, actions }: Omit<PlannedProps, 'planned'> & { readonly jobId: string }) {
  return (
    <>
      <Platform jobId={jobId} page={page} setPlatform={actions.setPlatform} />
      <ClientOnly>
        <Gauges jobId={jobId} gauges={page.gauges} rows={packed} saveGaugePart={actions.saveGaugePart} />
      </ClientOnly>
    </>
  );
}

function useWords(page: SetUpPage, { bench }: PlannedSetUp, { mounts }: MountPlan): SetUpWords {
  const format = useFormat();
  const code = new Map(page.points.map((point) => [point.id, point.code]));
  const mount = (id: string) => {
    const found = mounts.find((each) => each.id === id);
    return (found?.pointId && code.get(found.pointId)) || found?.name || 'a mount';
  };
  const piece = (id: string) => bench.items.find((item) => item.id === id)?.code ?? 'a piece';
  return { mount, piece, length: (mm) => `${format.length(mm)} ${format.unit}` };
}

/** How the shell was, is and will be stood: each leads to its plan. */
function SetUps({
  page,
  planned,
  startSetUp,
}: Pick<PlannedProps, 'page' | 'planned'> & Pick<SetUpActions, 'startSetUp'>) {
  const { jobId, id: shown } = planned.setUp;
  return (
    <nav aria-label="Set-ups" className="flex flex-wrap items-center gap-2">
      {page.setUps.length < 2
        ? null
        : page.setUps.map(({ id, name, now }) => (
            <Link
              key={id}
              href={`/jobs/${jobId}/set-up?shown=${id}`}
              aria-current={id === shown ? 'true' : undefined}
              className={buttonClass(id === shown ? 'main' : 'plain')}
            >
              {name}
              {now ? ', now' : ''}
            </Link>
          ))}
      <FormDialog
        title="Stand it otherwise"
        description="Before metal is cut that carries it: on stands, or on other points"
        trigger={<Button look="quiet">Another set-up …</Button>}
      >
        {() => <BeginSetUp {...{ jobId, page, startSetUp }} />}
      </FormDialog>
    </nav>
  );
}

function Strip({ planned: { bench }, plan }: { planned: PlannedSetUp; plan: MountPlan }) {
  return (
    <div className="flex min-h-11 flex-wrap items-center gap-3">
      <h2 className="text-xl">{bench.bench.name}</h2>
      <span className="text-soft">version {bench.version.number}</span>
      <span role="status" className="text-soft">
        {plan.pending ? 'writing …' : ''}
      </span>
      <span className="ml-auto flex gap-2">
        <Button disabled={!plan.undo} onClick={plan.undo}>
          Undo
        </Button>
        <Button disabled={!plan.redo} onClick={plan.redo}>
          Redo
        </Button>
      </span>
    </div>
  );
}
