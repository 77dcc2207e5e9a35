'use client';

import { Link } from '../kit/link';
import type { GapsPage } from '@/core/report/pages/gaps';
import type { Round } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { ClientOnly } from '../kit/client-only';
import { unpacked } from '../kit/unpacked';
import { useTask } from '../kit/use-task';
import { useTape } from '../tape/use-tape';
import type { FittingPage } from '@/core/report/pages/fitting';
import type { BoardActions, CheckActions, PanelActions } from '../fit/actions';
import { Board } from '../fit/board';
import { Checks } from '../fit/checks';
import { Panels } from '../fit/panels';
import { Tab, TabList, TabPanel, Tabs } from '../kit/tabs';
import { Gaps, type SeamActions } from './gaps';
import { ReadAlong } from './read-along';

interface PlaceProps {
  readonly rows: JobRows;
  readonly page: GapsPage;
  readonly fitting: FittingPage;
  readonly actions: SeamActions & PanelActions & BoardActions & CheckActions;
}

/** The place for fitting: the seams, the panels between them, and how each is held. */
export const FittingPlace = unpacked(Place);

function Place(props: PlaceProps) {
  const { rows, fitting, actions } = props;
  return (
    <Tabs defaultValue="seams" className="flex flex-col gap-4">
      <TabList label="Fitting">
        <Tab value="seams">Seams</Tab>
        <Tab value="panels">Panels</Tab>
        <Tab value="board">Fit board</Tab>
        <Tab value="checks">Checks</Tab>
      </TabList>
      <TabPanel value="seams">
        <Seams {...props} />
      </TabPanel>
      <TabPanel value="panels">
        <Panels {...{ rows, actions }} page={fitting} />
      </TabPanel>
      <TabPanel value="board">
        <Board {...{ rows, actions }} page={fitting} />
      </TabPanel>
      <TabPanel value="checks">
        <Checks jobId={rows.jobs[0]!.id} page={fitting} actions={actions} />
      </TabPanel>
    </Tabs>
  );
}

/** The seams as they were read, and reading them on while a round is open. */
function Seams(props: PlaceProps) {
  const { rows, page } = props;
  const round = rows.rounds.findLast(({ closedAt, shell }) => closedAt === null && shell === '');
  if (page.pairs.length === 0) return <Gaps {...props} />;
  if (!round)
    return (
      <div className="flex flex-col gap-3">
        <Gaps {...props} />
        <p className="text-soft">
          No round is open to read gaps into:{' '}
          <Link href={`/jobs/${rows.jobs[0]!.id}/measure`}>open one on Measure</Link>.
        </p>
      </div>
    );
  return (
    <ClientOnly waiting={<Gaps {...props} />}>
      <Reading {...props} round={round} />
    </ClientOnly>
  );
}

function Reading({ rows: stored, page, actions, round }: PlaceProps & { readonly round: Round }) {
  const { rows, put } = useTape(stored, round.id);
  // What was typed here is judged here, before the server has it.
  const now = useTask('gaps', rows, rows === stored ? null : undefined);
  const shown = now.value ?? page;
  return (
    <div className="flex flex-col gap-4">
      <Gaps rows={rows} page={shown} actions={actions}>
        <ReadAlong {...{ rows, round, put }} pairs={shown.pairs} readIn={shown.readIn} />
      </Gaps>
    </div>
  );
}
