import { axlesOf, type Axles } from '../findings/axles';
import { isBraceIn } from '../findings/brace-pull';
import { closeOut } from '../plan/panels/holding';
import type { AxleReading, Round, StateKind } from '../shell/job/entities';
import type { Job } from '../shell/job/job';

/** What must be so before the whole shell is judged for good. */
export type BeforeFinal =
  | { readonly kind: 'bracesIn'; readonly codes: readonly string[] }
  | { readonly kind: 'closeOut'; readonly names: readonly string[] }
  | { readonly kind: 'notCold' }
  | { readonly kind: 'otherSupport'; readonly first: string }
  | { readonly kind: 'onBench' }
  | { readonly kind: 'axlesUnread' };

/** The shell is judged for good when it is cold, its braces are out, and it is off the bench where it will be. */
const FINAL: readonly StateKind[] = ['cold', 'bracesOut', 'onWheels'];

/**
 * What is still in the way of a verdict for good: what stands only while it is braced or bolted down does not stand, and a figure
 * read on another support, or warm, says little of the first.
 *
 * @param all the rounds of this shell with readings, oldest first
 */
export function beforeFinal(job: Job, round: Round, all: readonly Pick<Round, 'id'>[]): BeforeFinal[] {
  const still: BeforeFinal[] = [];
  const braces = job.braces.filter((brace) => isBraceIn(job, brace)).map(({ code }) => code);
  if (braces.length > 0) still.push({ kind: 'bracesIn', codes: braces });
  const open = closeOut(job).map(({ panel, fixing }) => `${panel} ${fixing.name}`);
  if (open.length > 0) still.push({ kind: 'closeOut', names: open });
  if (!FINAL.includes(job.stateOf(round).kind)) still.push({ kind: 'notCold' });
  const first = job.round(all[0]!.id)!;
  const [a, b] = [first, round].map((each) => job.supportOf(each));
  if (a!.kind !== b!.kind || a!.suspension !== b!.suspension) still.push({ kind: 'otherSupport', first: first.name });
  if (!wasOffBench(job, all)) still.push({ kind: 'onBench' });
  if (job.rows.axleReadings.length === 0) still.push({ kind: 'axlesUnread' });
  return still;
}

/** Read off its bench after everything: by a round on its wheels or on stands, or by a check of the lengths that tell. */
const wasOffBench = (job: Job, all: readonly Pick<Round, 'id'>[]): boolean => {
  const last = job.round(all.at(-1)!.id)!;
  return (
    job.stateOf(last).kind === 'onWheels' ||
    job.supportOf(last).kind === 'stands' ||
    job.rows.removalChecks.some(
      ({ after, at }) => (after === 'offBench' || after === 'onWheels') && at >= last.startedAt,
    )
  );
};

/** How the axles stand, with what was read and in which round. */
export interface ReadAxles {
  readonly reading: AxleReading;
  readonly round: string;
  readonly axles: Axles;
}

/** As they were read last. */
export function readAxles(job: Job): ReadAxles | undefined {
  const reading = job.rows.axleReadings.at(-1);
  return reading && { reading, round: job.round(reading.roundId)?.name ?? '', axles: axlesOf(reading) };
}
