import { directionOf } from '../../findings/strokes';
import type { CodedPull } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { PullAt } from './try-pull';

/**
 * Where a pull that is planned takes hold of the model.
 *
 * @param nodeOf the node of each point
 * @returns undefined where its point is no place of the model; plates that are none are left to the pull's own point
 */
export function pullAt(job: Job, pull: CodedPull, nodeOf: ReadonlyMap<string | null, number>): PullAt | undefined {
  const node = nodeOf.get(pull.pointId);
  if (node === undefined) return undefined;
  const against = pull.againstPointId === null ? undefined : nodeOf.get(pull.againstPointId);
  const plates = job.platesOf(pull).flatMap(({ pointId, share }) => {
    const at = nodeOf.get(pointId);
    return at === undefined ? [] : [{ node: at, share }];
  });
  return {
    ...{ node, direction: directionOf(pull) },
    ...(against === undefined ? {} : { against }),
    ...(plates.length > 0 ? { plates } : {}),
  };
}
