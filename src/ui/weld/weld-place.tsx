'use client';

import Link from 'next/link';
import type { WeldingPage } from '@/core/report/pages/welding';
import { Empty } from '../kit/faults';
import { useFormat } from '../shell/preferences-context';
import type { WeldActions } from './actions';
import { JointCard } from './seam-card';

interface PlaceProps {
  readonly jobId: string;
  readonly page: WeldingPage;
  readonly actions: WeldActions;
}

/** The place for welding: the joints of every panel that was cut out, marked out and in their order. */
export function WeldPlace({ jobId, page, actions }: PlaceProps) {
  const format = useFormat();
  const panels = [...new Set(page.joints.map(({ panel }) => panel))];
  if (panels.length === 0)
    return (
      <Empty title="No joint is named">
        Say on <Link href={`/jobs/${jobId}/cut`}>Cut</Link> how each panel is joined to what lies beside it: plugs,
        order and waits are then worked out here.
      </Empty>
    );
  return (
    <div className="flex flex-col gap-6">
      {panels.map((panel) => (
        <section key={panel} aria-label={panel} className="flex flex-col gap-4">
          <h2 className="text-xl">{format.name(panel)}</h2>
          {page.joints
            .filter((view) => view.panel === panel)
            .map((view) => (
              <JointCard key={view.joint.id} {...{ view, actions }} points={page.points} />
            ))}
        </section>
      ))}
    </div>
  );
}
