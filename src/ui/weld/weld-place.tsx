'use client';

import { Link } from '../kit/link';
import type { WeldingPage } from '@/core/report/pages/welding';
import type { JobRows } from '@/core/shell/job/job-rows';
import { unpacked } from '../kit/unpacked';
import { Empty } from '../kit/faults';
import { useFormat } from '../shell/preferences-context';
import type { WeldActions } from './actions';
import { Cracks } from './cracks';
import { JointCard } from './seam-card';
import { WeldSheet } from './weld-sheet';
import { Stiffeners } from './stiffeners';

interface PlaceProps {
  readonly rows: JobRows;
  readonly jobId: string;
  readonly page: WeldingPage;
  readonly actions: WeldActions;
}

/** The place for welding: the joints of every panel that was cut out, marked out and in their order. */
export const WeldPlace = unpacked(Place);

function Place({ rows, jobId, page, actions }: PlaceProps) {
  const format = useFormat();
  const placed = page.joints.flatMap((view) =>
    view.plan?.placed && view.plan.plans.length > 0 ? [{ ...view, plan: view.plan }] : [],
  );
  const panels = [...new Set(page.joints.map(({ panel }) => panel))];
  return (
    <div className="flex flex-col gap-6">
      {panels.length === 0 ? (
        <Empty title="No joint is named">
          Say on <Link href={`/jobs/${jobId}/cut`}>Cut</Link> how each panel is joined to what lies beside it: plugs,
          order and waits are then worked out here.
        </Empty>
      ) : null}
      {page.figure && placed.length > 0 ? <WeldSheet figure={page.figure} views={placed} /> : null}
      {panels.map((panel) => (
        <section key={panel} aria-label={panel} className="flex flex-col gap-4">
          <h2 className="text-xl">{format.name(panel)}</h2>
          {page.joints
            .filter((view) => view.panel === panel)
            .map((view) => (
              <JointCard
                key={view.joint.id}
                {...{ rows, view, actions }}
                points={page.points}
                factor={page.factor}
                siblings={page.joints.flatMap(({ joint, panel: of, plan }) =>
                  of === panel && plan && joint.id !== view.joint.id ? [{ id: joint.id, beside: joint.beside }] : [],
                )}
              />
            ))}
        </section>
      ))}
      <Cracks {...{ jobId, actions }} page={page.stiffening} />
      <Stiffeners {...{ jobId, actions }} page={page.stiffening} />
    </div>
  );
}
