import { placeKey } from '@/core/report/pages/welding';
import { layOut } from '@/core/plan/weld-order/layout';
import { weldBy, weldTask } from '@/core/plan/weld-order/schools';
import type { WeldSeam, WeldStretch } from '@/core/shell/job/entities';
import type { JobBuilder } from './builder';

const USUAL: Omit<WeldSeam, 'id' | 'jobId' | 'long' | 'firstPointId' | 'lastPointId'> = {
  ...{ kind: 'plug', process: 'mig', flange: 18, pitch: null, freeEnd: 'last', school: 'coolest' },
  ...{ openFor: null, clampedFor: null, version: 1 },
};

/** How the new outer sill is welded in: plugs along the floor, marked out; the post's foot begun. */
export function solbrisWelds(job: JobBuilder, author: string): void {
  const { later, jobId } = job;
  const pointId = (code: string) => job.rows.points.find((each) => each.code === code)!.id;
  const mark = (beside: string, said: Pick<WeldSeam, 'long'> & Partial<WeldSeam>, stretches: readonly Stretch[]) => {
    const joint = job.rows.joints.find((each) => each.beside === beside)!;
    const seam: WeldSeam = { ...USUAL, firstPointId: null, lastPointId: null, ...said, id: joint.id, jobId };
    job.add('weldSeams', seam);
    const own = stretches.map(([what, starts, ends = starts]): WeldStretch => ({
      id: later.uuid(),
      seamId: joint.id,
      what,
      starts,
      ends,
    }));
    own.forEach((each) => job.add('weldStretches', each));
    return { joint, seam, layout: layOut(seam, joint, own) };
  };
  const foot = mark('A post foot', { long: 520, freeEnd: 'both' }, [
    ['corner', 200],
    ['double', 360, 430],
  ]);
  mark('floor flange', { long: 1480, firstPointId: pointId('S1L'), lastPointId: pointId('S3L') }, [
    ['void', 610, 660],
    ['unreachable', 1410, 1480],
  ]);
  mark('rear wing', { long: 240, kind: 'braze', process: 'gas', flange: null, school: 'oneEnd' }, [['lead', 150, 240]]);
  const { order } = weldBy('coolest', weldTask(foot.seam, foot.joint, foot.layout), foot.seam.freeEnd);
  for (const { plug } of order.slice(0, 4))
    job.wait(3).add('workEvents', {
      ...{ id: later.uuid(), itemId: foot.joint.id, kind: 'ticked', key: placeKey(foot.layout.places[plug]!.along) },
      ...{ at: job.now(), author, reason: '', value: null },
    });
}

type Stretch = readonly [what: WeldStretch['what'], starts: number, ends?: number];
