import type { FittingPage, HungView } from '@/core/report/pages/fitting';
import { HUNG_WORD, orderText, whyNoHangText, worstText } from '@/core/report/fitting-words';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Empty } from '../kit/faults';
import { Tab, TabList, TabPanel, Tabs } from '../kit/tabs';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import type { PanelActions } from './actions';
import { Adjust } from './adjust';
import { CorrectPanel, NamePanel } from './panel-form';
import { Packers } from './packers';
import { Settings } from './settings';
import { Shape } from './shape';
import { Shims } from './shims';
import { Trims } from './trims';

interface PanelsProps {
  readonly rows: JobRows;
  readonly page: FittingPage;
  readonly actions: PanelActions;
}

/** Every panel that is fitted: where it sits best, how to bring it there, and whose fault is what is left. */
export function Panels({ rows, page, actions }: PanelsProps) {
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const nameOf = (id: string) => page.panels.find(({ panel }) => panel.id === id)?.panel.code ?? 'the shell';
  const worst = page.order && worstText(page.order, words);
  return (
    <section aria-label="Panels" className="flex flex-col gap-5">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Panels</h2>
        <NamePanel {...{ jobId, page, actions }} />
      </div>
      {page.panels.length === 0 ? (
        <Empty title="No panel is named">
          Name a door or a lid with the seams along its edges: where it sits best, how its hinges bring it there, and
          whether it or its opening is wrong are then worked out from the gaps.
        </Empty>
      ) : null}
      {rows.bodyPackers.length > 0 ? <Packers {...{ rows, page, actions }} /> : null}
      {page.panels.length > 0 ? (
        <Tabs defaultValue={page.panels[0]!.panel.id} className="flex flex-col gap-3">
          <TabList label="Panels">
            {page.panels.map(({ panel }) => (
              <Tab key={panel.id} value={panel.id}>
                {panel.code}
              </Tab>
            ))}
          </TabList>
          {page.panels.map((view) => (
            <TabPanel key={view.panel.id} value={view.panel.id}>
              <PanelCard key={key(view)} {...{ rows, page, view, actions }} />
            </TabPanel>
          ))}
        </Tabs>
      ) : null}
      {page.order && page.order.steps.length > 0 ? (
        <section aria-label="In this order">
          <h3 className="caps">In this order</h3>
          <ol className="list-inside list-decimal">
            {page.order.steps.map((step) => (
              <li key={step.id}>{orderText(step, nameOf, words)}</li>
            ))}
          </ol>
          {worst ? <p className="text-sm text-soft">{worst}</p> : null}
          {page.order.apart.length > 0 ? (
            <p className="text-sm text-soft">
              No seam ties {page.order.apart.map(nameOf).join(', ')} to the others: name the seams between them.
            </p>
          ) : null}
        </section>
      ) : null}
      {page.panels.length > 0 && rows.bodyPackers.length === 0 ? <Packers {...{ rows, page, actions }} /> : null}
      {page.panels.length > 0 ? <Shims jobId={jobId} shims={rows.shims} setShims={actions.setShims} /> : null}
    </section>
  );
}

/** Sliders begin anew when what is advised changes. */
const key = ({ hang }: HungView): string =>
  hang.ok ? hang.plan.settings.map(({ id, advised }) => `${id} ${advised}`).join(' ') : hang.kind;

function PanelCard({ rows, page, view, actions }: PanelsProps & { readonly view: HungView }) {
  const format = useFormat();
  const { panel, hang } = view;
  return (
    <article className="flex flex-col gap-3" data-panel={panel.code}>
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="text-lg">{format.name(panel.name)}</h3>
        <p className="text-soft">
          {panel.code}, {format.name(HUNG_WORD[panel.kind])}
          {panel.standIn ? ', a stand-in: its gaps open again when the final one comes' : ''}
          {panel.sure ? ', known to be right' : ''}
        </p>
        <span className="ml-auto flex gap-2">
          <CorrectPanel jobId={panel.jobId} {...{ page, view, actions }} />
          <TakeBack
            what={panel.code}
            row={{ jobId: panel.jobId, tableName: 'work_item', rowId: panel.id }}
            withdraw={actions.withdraw}
          />
        </span>
      </div>
      {hang.ok ? (
        <Adjust panel={panel} plan={hang.plan} shims={rows.shims} />
      ) : (
        <p role="status" className="border-l-4 border-rule pl-3">
          {whyNoHangText(hang)}
        </p>
      )}
      <Shape view={view} points={page.points} actions={actions} />
      <Trims view={view} actions={actions} />
      <Settings {...{ view, rows, actions }} />
    </article>
  );
}
