import { mapAxes, norm, type Vector } from '../maths/geometry/vector';
import { observeRound } from '../round/observe/observe';
import { builtHigher, type Gauged } from '../round/observe/gauges';
import type { RoundNet } from '../round/net/net';
import { checkedParts } from '../shell/gauges';
import type { Reading, Round } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { referencePosition } from '../shell/references/chosen';
import { removeReading } from '../survey/extend';
import { predict } from '../survey/prediction';
import { pointIndex } from '../survey/survey';

/** What a gauge's finding is worth. */
export type GaugeSays =
  /** It goes in where the rest of the round has its point. */
  | 'agrees'
  /** It does not go in, and the rest has the point beside it: the shell is off. */
  | 'shell'
  /** As `shell`, but nobody checked that its stack stands as planned. */
  | 'shellOrStack'
  /** It goes in, but the rest has the point elsewhere: its stack is built otherwise than planned, or a reading is wrong. */
  | 'stackOrReading'
  /** It does not go in though the rest has the point right there. */
  | 'shouldEnter'
  /** The rest knows the point too loosely, or not at all. */
  | 'cannotTell'
  /** The part contradicts itself. */
  | 'bent'
  /** Nobody taped the part's holes against each other. */
  | 'unchecked'
  /** Too few of the part's holes were read to know how it stands. */
  | 'fewHoles';

export interface GaugeFinding {
  readonly reading: Reading;
  readonly says: GaugeSays;
  /** By the rest of the round, how far the point is from the gauge, mm: rearward, right, up; with one standard deviation. */
  readonly off?: { readonly by: Vector; readonly sd: Vector };
}

/** Predictions wider than this say nothing of a gauge, one standard deviation, mm. */
const TOO_WIDE = 5;
const SURE = 3;

/**
 * What the heads and the holes of real parts say of the shell, each judged by the rest of the round: a gauge that goes in
 * is left out and predicted; one that does not is predicted from all. Bench and part stand where the other gauges put them.
 */
export function gaugeFindings(job: Job, round: Round, net: RoundNet): GaugeFinding[] {
  const readings = observeRound(job, round).flatMap(({ reading }) => (reading.quantity === 'fixture' ? [reading] : []));
  const known = new Map(net.gauges.map((each) => [each.reading.id, each]));
  const voiceless = voicelessHoles(job);
  return readings.map((reading): GaugeFinding => {
    const why = reading.partHoleId === null ? undefined : voiceless.get(reading.partHoleId);
    if (why) return { reading, says: why };
    const gauge = known.get(reading.id);
    if (!gauge) return { reading, says: reading.partHoleId === null ? 'cannotTell' : 'fewHoles' };
    return { reading, ...judged(job, round, net, gauge) };
  });
}

function voicelessHoles(job: Job): Map<string, 'bent' | 'unchecked'> {
  return new Map(
    checkedParts(job.rows).flatMap(({ holes, bent, unchecked }) =>
      holes.flatMap(({ id }): (readonly [string, 'bent' | 'unchecked'])[] =>
        bent ? [[id, 'bent']] : unchecked.includes(id) ? [[id, 'unchecked']] : [],
      ),
    ),
  );
}

function judged(job: Job, round: Round, net: RoundNet, { reading, at, says }: Gauged): Omit<GaugeFinding, 'reading'> {
  const rest = withoutIt(net, reading.id);
  const there =
    rest && pointIndex(rest.survey).has(says.point) && rest.equations.bodies.some(({ id }) => id === says.body.id);
  if (!rest || !there) return { says: 'cannotTell' };
  const predicted = [0, 1, 2].map((axis) => predict(rest, says, axis));
  const by = mapAxes((k) => predicted[k]!.value - at[k]);
  const sd = mapAxes((k) => Math.sqrt(predicted[k]!.variance));
  if (Math.max(...sd) > TOO_WIDE) return { says: 'cannotTell' };
  const off = { by, sd };
  if (reading.fit !== 'none') {
    const contradicted = predicted.some(
      ({ value }, k) => Math.abs(value - says.value[k]!) > SURE * Math.hypot(sd[k]!, says.sigma[k]!),
    );
    return { says: contradicted ? 'stackOrReading' : 'agrees', off };
  }
  const away = norm(by);
  const spread = 2 * Math.max(...sd);
  if (away + spread < reading.value) return { says: 'shouldEnter', off };
  if (away - spread <= reading.value) return { says: 'cannotTell', off };
  return { says: reading.partHoleId !== null || isChecked(job, round, reading) ? 'shell' : 'shellOrStack', off };
}

/** The net without a reading; as it stands where it has no part in it. */
function withoutIt({ solution }: RoundNet, readingId: string) {
  const at = solution?.survey.readings.findIndex(({ id }) => id === readingId) ?? -1;
  if (!solution || at < 0) return solution;
  const result = removeReading(solution, at);
  return result.ok ? result.solution : undefined;
}

function isChecked(job: Job, round: Round, { pointId }: Reading): boolean {
  const at = referencePosition(job.references, pointId!);
  return at !== undefined && builtHigher(job, round, pointId!, at) !== undefined;
}
