'use client';

import { useMemo, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { CuttingPage, Worked } from '@/core/report/pages/cutting';
import { Empty } from '../kit/faults';
import { TaskRunning } from '../kit/task-running';
import { unpacked } from '../kit/unpacked';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import type { CuttingActions } from './actions';
import { BraceAdviceList } from './brace-advice';
import { Blastings } from './blasting';
import { BraceList } from './brace-list';
import { WhenBracesComeOut } from './braces-out';
import { RemovalChecks } from './check';
import { CutPanels } from './cut-panels';
import { CuttingSheet } from './cutting-sheet';
import { Gates } from './gates';
import { KeepOuts } from './keep-outs';
import { Losses } from './losses';
import { PanelOrder } from './removal-order';
import { SlackByStage } from './slack-table';
import { StageStrip } from './stage-strip';
import { BodyForm, StructurePanel } from './structure-panel';
import { Templates } from './templates';
import { TrimByTheTurn } from './trim';

interface PlaceProps {
  readonly room: 'brace' | 'cut';
  readonly rows: JobRows;
  readonly page: CuttingPage;
  readonly instruments: readonly { readonly id: string; readonly name: string }[];
  readonly actions: CuttingActions;
}

/** The one place for bracing and cutting: the shell after the stage in hand, what is proposed, planned and done. */
export const CuttingPlace = unpacked(Place);

function Place(props: PlaceProps) {
  const { page, actions } = props;
  if (page.worked) return <WithStructure {...props} worked={page.worked} />;
  return (
    <div className="flex flex-col gap-6">
      <Empty title="Too little is known to make a structure of this shell">
        Say which body it is: its picture stands in until points are measured, and is brought onto them then. With three
        measures of the shell, typed where it is laid out, it comes to its size.
      </Empty>
      <BodyForm jobId={page.jobId} actions={actions} />
      <Panels {...props} parts={[]} />
      <Losses jobId={page.jobId} page={page.before} />
      <Blastings {...{ page, actions }} />
      <BraceList page={page} actions={actions} />
    </div>
  );
}

type WithProps = PlaceProps & { readonly worked: Worked };

function WithStructure(props: WithProps) {
  const { room, rows, page, worked, actions } = props;
  const [part, setPart] = useState<string>();
  const [asked, ask] = useState(true);
  const advising = useTask('adviseCutting', rows, worked.stage >= 0 && asked ? { stage: worked.stage, room } : null);
  const advice = advising.value?.braces;
  const proposed = useMemo(
    () =>
      advice && 'proposals' in advice
        ? advice.proposals.map(({ what }) => ({ from: what.fromPointId, to: what.toPointId }))
        : [],
    [advice],
  );
  const stage = page.stages[worked.stage];
  return (
    <section aria-label={room === 'brace' ? 'Bracing' : 'Cutting'} className="flex flex-col gap-6">
      <StageStrip page={page} stage={worked.stage} room={room} saveStage={actions.saveStage} />
      <div className="grid gap-4 xl:grid-cols-[minmax(0,1fr)_344px]">
        <CuttingSheet {...{ page, worked, proposed, part }} onPart={setPart} />
        <div className="no-print flex min-w-0 flex-col gap-5">
          <Warnings {...props} />
          {room === 'brace' ? <BraceAdviceList {...{ page, worked, actions, advice }} /> : null}
          {room === 'cut' && stage ? (
            <PanelOrder
              {...{ page, stage, actions }}
              {...(advising.value?.order ? { order: advising.value.order } : {})}
            />
          ) : null}
          {stage ? (
            <TaskRunning
              {...{ task: advising, asked }}
              ask={room === 'brace' ? 'Propose braces' : 'Propose an order'}
              doing={room === 'brace' ? 'Trying braces on the structure' : 'Trying orders on the structure'}
              onCancel={() => ask(false)}
              onAsk={() => ask(true)}
            />
          ) : null}
          <Panels {...props} parts={worked.parts} />
          <KeepOuts {...{ page, worked, actions }} />
        </div>
      </div>
      {room === 'brace' ? <BraceRoom {...props} /> : <CutRoom {...props} />}
      <StructurePanel {...{ page, worked, actions, part }} onPart={setPart} />
    </section>
  );
}

function BraceRoom({ page, worked, actions }: WithProps) {
  return (
    <>
      <BraceList page={page} actions={actions} />
      <SlackByStage {...{ page, worked }} />
      <WhenBracesComeOut lengths={worked.withoutBraces} />
      <TrimByTheTurn worked={worked} recordItemEvent={actions.recordItemEvent} />
    </>
  );
}

function CutRoom({ page, worked, actions, instruments }: WithProps) {
  const stage = page.stages[worked.stage];
  return (
    <>
      {stage ? (
        <div className="grid gap-6 lg:grid-cols-2">
          <Gates {...{ page, stage }} gates={worked.gates} recordItemEvent={actions.recordItemEvent} />
          <RemovalChecks {...{ page, worked, instruments }} addCheck={actions.addCheck} />
        </div>
      ) : null}
      <Losses jobId={page.jobId} page={page.before} />
      <Blastings {...{ page, actions }} />
      <Templates {...{ page, actions }} />
      <SlackByStage {...{ page, worked }} />
    </>
  );
}

function Panels({ page, actions, parts }: PlaceProps & { readonly parts: Worked['parts'] }) {
  const { jobId, points, stages } = page;
  return (
    <CutPanels
      {...{ jobId, points, stages, parts }}
      panels={page.before.panels}
      views={page.panels}
      savePanel={actions.savePanel}
    />
  );
}

/** What must be said before anything else: a part that falls off, metal that may spring, a shell that nothing holds. */
function Warnings({ page, worked }: WithProps) {
  const format = useFormat();
  const state = worked.slack.states[worked.stage];
  const stage = page.stages[worked.stage];
  const stressed = page.panels.filter(({ panel }) => panel.stressed && stage?.panels.includes(panel.part));
  return (
    <>
      {page.stages.length === 0 ? (
        <p className="text-soft">
          Write down a panel that will be replaced, with the parts of the structure that go with it: what it sets loose
          is worked out from that.
        </p>
      ) : null}
      {state && state.mechanism.length > 0 ? (
        <p role="alert" className="border-l-4 border-minus pl-3">
          Nothing holds {state.mechanism.slice(0, 6).join(', ')}
          {state.mechanism.length > 6 ? ' …' : ''} any more once this metal is out: stand the shell on metal that stays,
          or brace it first.
        </p>
      ) : null}
      {state && state.loosePart.length > 0 ? (
        <p role="alert" className="border-l-4 border-minus pl-3">
          A part comes loose with this cut: {state.loosePart.slice(0, 6).join(', ')}. Hold it with a stand or a brace
          before the last weld of it is undone.
        </p>
      ) : null}
      {worked.onGoing.map(({ code, at }) => (
        <p key={`${code} ${at}`} role="alert" className="border-l-4 border-minus pl-3">
          {code} stands at {at} on metal that comes out: it holds nothing then. Weld it to metal that stays.
        </p>
      ))}
      {stressed.map(({ panel }) => (
        <p key={panel.id} role="alert" className="border-l-4 border-minus pl-3">
          {format.name(panel.part)}: this metal was hit or pulled half straight. Stress is locked into it that no
          calculation here sees: it may spring. Cut in short lengths and read between.
        </p>
      ))}
    </>
  );
}
