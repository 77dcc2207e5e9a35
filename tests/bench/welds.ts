import { layOut } from '@/core/plan/weld-order/layout';
import { weldBy, weldTask } from '@/core/plan/weld-order/schools';
import { NEW_WELD_SEAM, type WeldSeam } from '@/core/shell/job/entities';
import type { Case } from './case';

const JOINT = { thicknessA: 0.9, thicknessB: 0.9, factorySpots: 400 };
const SEAM: WeldSeam = {
  ...NEW_WELD_SEAM,
  ...{ id: '', jobId: '', kind: 'plug', process: 'mig', long: 12_000, flange: 18 },
};
const task = weldTask(SEAM, JOINT, layOut(SEAM, JOINT, []));

/** Welding: the order of four hundred plugs, with every wait. */
export const welds: readonly Case[] = [
  { of: 'welding', what: '400 plugs, wherever it is coolest', run: () => weldBy('coolest', task, 'both') },
];
