import { hangPanel } from '@/core/plan/panels/hang';
import { seamsAsLastRead } from '@/core/round/judge/last-read';
import { Job } from '@/core/shell/job/job';
import { demoRows } from '../support/demo-rows';
import type { Case } from './case';

const rows = demoRows('solbris');

/** Fitting: every seam of the estate judged anew, and the best settings of one door. */
export const panels: readonly Case[] = [
  {
    of: 'fitting',
    what: 'all seams judged, a door hung',
    run: () => {
      // Other rows each time: nothing is remembered of them.
      const job = Job.of({ ...rows });
      const { seams } = seamsAsLastRead(job);
      return hangPanel(
        job,
        job.hungPanels.find(({ code }) => code === 'DL')!,
        seams,
      );
    },
  },
];
