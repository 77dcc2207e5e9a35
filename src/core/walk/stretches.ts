import type { WalkStep } from './walk-step';

/** Two people measure, one at either end; or one alone, who hooks the far end. */
export type People = 'two' | 'alone';

/**
 * The walk with one instrument in the hand for a stretch: in each section all lengths, then all heights. Alone, the
 * lengths of a stretch go out from one end after the other: the tape stays hooked where most of them begin, and the
 * hooked end is named first.
 */
export function inStretches(steps: readonly WalkStep[], people: People): WalkStep[] {
  const stretches: WalkStep[][] = [];
  for (const step of steps) {
    const last = stretches.at(-1);
    if (last && stretchOf(last[0]!) === stretchOf(step)) last.push(step);
    else stretches.push([step]);
  }
  return stretches.flatMap((stretch) => {
    const lengths = stretch.filter(isLength);
    const heights = stretch.filter((step) => !isLength(step));
    return [...(people === 'alone' ? fromHookedEnds(lengths) : lengths), ...heights];
  });
}

/** A section, or all that is read a second time. */
const stretchOf = ({ why, section }: WalkStep): string => (why === 'again' ? why : section);
const isLength = ({ reading }: WalkStep): boolean => reading.kind === 'distance' || reading.kind === 'plan';

/** Lengths in the order in which the hooked end moves least often. */
function fromHookedEnds(lengths: readonly WalkStep[]): WalkStep[] {
  let left = [...lengths];
  const ordered: WalkStep[] = [];
  while (left.length > 0) {
    const counts = new Map<string, number>();
    for (const { reading } of left) for (const id of endsOf(reading)) counts.set(id, (counts.get(id) ?? 0) + 1);
    const most = Math.max(...counts.values());
    // On a tie the tape stays hooked near where it is: at an end of the last length.
    const lastEnds = ordered.length > 0 ? endsOf(ordered.at(-1)!.reading) : [];
    const hook = lastEnds.find((id) => counts.get(id) === most) ?? [...counts].find(([, count]) => count === most)![0];
    ordered.push(...left.filter(({ reading }) => endsOf(reading).includes(hook)).map((step) => hookedAt(step, hook)));
    left = left.filter(({ reading }) => !endsOf(reading).includes(hook));
  }
  return ordered;
}

const endsOf = (reading: WalkStep['reading']): string[] =>
  reading.kind === 'distance' || reading.kind === 'plan' ? [reading.from, reading.to] : [];

function hookedAt(step: WalkStep, hook: string): WalkStep {
  const { reading } = step;
  if (!('from' in reading) || reading.from === hook) return step;
  return { ...step, reading: { ...reading, from: reading.to, to: reading.from } };
}
