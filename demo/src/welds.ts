import { betweenKey, betweenSteps } from '@/core/plan/weld-order/between';
import { placeKey } from '@/core/report/pages/welding';
import { layOut } from '@/core/plan/weld-order/layout';
import { weldBy, weldTask } from '@/core/plan/weld-order/schools';
import type { WeldSeam, WeldStretch } from '@/core/shell/job/entities';
import type { JobBuilder } from './builder';
import { panelOut, stageOf } from './structures';

const USUAL: Omit<WeldSeam, 'id' | 'jobId' | 'long' | 'firstPointId' | 'lastPointId'> = {
  ...{ kind: 'plug', process: 'mig', flange: 18, pitch: null, freeEnd: 'last', school: 'coolest' },
  ...{ openFor: null, clampedFor: null, inTurnWithId: null, version: 1 },
};

/** Marks a joint out, and how it is done. */
const marker =
  (job: JobBuilder) =>
  (beside: string, said: Pick<WeldSeam, 'long'> & Partial<WeldSeam>, stretches: readonly Stretch[] = []) => {
    const { later, jobId } = job;
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

const endsOf =
  (job: JobBuilder) =>
  (first: string, last: string): Pick<WeldSeam, 'firstPointId' | 'lastPointId'> => ({
    firstPointId: job.point(first),
    lastPointId: job.point(last),
  });

/** So many of a seam's places laid, in their order, one every few minutes. */
function lay(job: JobBuilder, author: string, of: ReturnType<ReturnType<typeof marker>>, count = Infinity): void {
  const { order } = weldBy(of.seam.school, weldTask(of.seam, of.joint, of.layout), of.seam.freeEnd);
  const tick = (key: string) =>
    job.wait(3).add('workEvents', {
      ...{
        id: job.later.uuid(),
        itemId: of.joint.id,
        kind: 'ticked',
        key,
        at: job.now(),
        author,
        reason: '',
        value: null,
      },
    });
  const between = betweenSteps(of.seam, of.layout);
  order.slice(0, count).forEach(({ plug }, i) => {
    tick(placeKey(of.layout.places[plug]!.along));
    for (const step of between) if (step.after === i + 1) tick(betweenKey(step));
  });
}

/** How the new outer sill is welded in: plugs along the floor, marked out; the post's foot begun. A crack at the post, and what may help it. */
export function solbrisWelds(job: JobBuilder, author: string): void {
  const { later, jobId } = job;
  const [mark, ends] = [marker(job), endsOf(job)];
  const foot = mark('A post foot', { long: 520, freeEnd: 'both', ...ends('A1L', 'S1L') }, [
    ['corner', 200],
    ['double', 360, 430],
  ]);
  mark('floor flange', { long: 1480, ...ends('S1L', 'S3L') }, [
    ['void', 610, 660],
    ['unreachable', 1410, 1480],
  ]);
  mark('rear wing', { long: 240, kind: 'braze', process: 'gas', flange: null, school: 'oneEnd' }, [['lead', 150, 240]]);
  lay(job, author, foot, 4);
  const item = (kind: 'crack' | 'stiffener', code: string, name: string) =>
    job.add('workItems', { id: later.uuid(), jobId, kind, code, name, version: 1 }).id;
  const place = 'Left B post, under the belt anchorage';
  const crackId = item('crack', 'CR1', place);
  job.add('cracks', {
    ...{ id: crackId, jobId, place, long: 45, thickness: 1, toEdge: true, process: 'tig', version: 1 },
    cause: 'The sill below it had rusted away and the post carried the door alone.',
  });
  for (const key of ['clean', 'ends'])
    job.wait(20).add('workEvents', {
      ...{ id: later.uuid(), itemId: crackId, kind: 'ticked', key, at: job.now(), author, reason: '', value: null },
    });
  job.add('stiffeners', {
    ...{ id: item('stiffener', 'ST1', 'gusset'), jobId, kind: 'gusset', part: 'S2L-S3L', otherPart: 'S3L-B1L' },
    ...{ long: 120, width: null, height: null, thickness: 1.5, version: 1 },
  });
  job.add('stiffeners', {
    ...{ id: item('stiffener', 'ST2', 'rib'), jobId, kind: 'rib', part: 'S3L-C1L', otherPart: '' },
    ...{ long: 300, width: 40, height: 15, thickness: 1, version: 1 },
  });
}

/** What was cut out of the coupé's nose, and how it is joined. */
export function loddNose(job: JobBuilder, author: string): void {
  const stageId = stageOf(job, 'Nose');
  for (const kind of ['removed', 'fitted'] as const)
    job.wait(20).add('workEvents', {
      ...{ id: job.later.uuid(), itemId: stageId, kind, key: '', at: job.now(), author, reason: '', value: null },
    });
  panelOut(job, {
    ...{ part: 'Left nose leg', side: 'left', stageId, choice: 'partPanel', joinedAt: 'ahead of the crossmember' },
    ...{ reason: 'Creased behind the bumper bracket; the rest of the leg is sound.', hours: 12 },
    joints: [['nose leg', 'seam', 1.5, 1.5, null]],
  });
  panelOut(job, {
    ...{ part: 'Slam panel', side: 'centre', stageId, choice: 'wholePanel', joinedAt: 'on the factory flanges' },
    ...{ reason: 'Torn at its left end.', hours: 6 },
    joints: [['front crossmember', 'spots', 0.9, 1.2, 24]],
  });
}

/** The nose welded in, and what its joints shrank. */
export function loddWelds(job: JobBuilder, author: string): void {
  const [mark, ends] = [marker(job), endsOf(job)];
  const splice = mark('nose leg', { long: 340, kind: 'butt', flange: null, freeEnd: 'both', school: 'centre' });
  const flange = mark('front crossmember', { long: 760, ...ends('F1L', 'F1R'), freeEnd: 'both' });
  lay(job, author, splice);
  lay(job, author, flange);
  const shrank = (seamId: string, runs: 'along' | 'across', before: number, cold: number) =>
    job.add('weldMarks', { id: job.later.uuid(), seamId, runs, before, cold, sd: 0.2, at: job.now(), author });
  shrank(splice.joint.id, 'across', 100, 99.4);
  shrank(splice.joint.id, 'across', 100, 99.5);
  shrank(flange.joint.id, 'along', 740, 739.3);
}

/** Off the bench and on its wheels: the nose stays where it is, and the axles stand square. */
export function loddRead(job: JobBuilder, roundId: string, author: string): void {
  const { later, jobId } = job;
  job.wait(60).add('removalChecks', {
    ...{ id: later.uuid(), jobId, after: 'onWheels', stageId: null, door: 'closes', frontGap: 4.5, rearGap: 4.5 },
    ...{ at: job.now(), author },
  });
  job.wait(30).add('axleReadings', {
    ...{ id: later.uuid(), jobId, roundId, leftBase: 2351.5, rightBase: 2350, sd: 1, most: 5 },
    ...{ leftDiagonal: 2671, rightDiagonal: 2672.5, frontTrack: 1270, rearTrack: 1270, at: job.now(), author },
  });
}

type Stretch = readonly [what: WeldStretch['what'], starts: number, ends?: number];
