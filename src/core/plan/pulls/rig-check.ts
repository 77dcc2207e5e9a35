import type { CodedPull, Hold, Plate, WorkEvent } from '../../shell/job/entities';

/** What is looked at whenever the rig or its anchor changed. */
export const RIG_CHECKS = [
  'Chain tag legible: grade and rated load; no worn or stretched link',
  'No twist, no knot; no hook loaded at its tip',
  'Safety cable on, from the clamp to the shell or bench',
  'The shell tied down to the bench, its holds tight',
  'Clamps tightened again after the first tension',
  'Jack or ram rated for it, on pads; timber tethered, so that it cannot fly',
  'Pull plate welded all round; tacks on skin alone',
  'Nobody under or inside the shell, nobody in the sweep of the chain; doors to the shop shut',
  'Eye protection on; how the load is taken off slowly is settled before it is put on',
] as const;

/** What a rig is known by: with another direction, attachment, rating or hold it is another rig and is looked at again. */
export function rigKey(pull: CodedPull, holds: readonly Hold[], plates: readonly Plate[]): string {
  const held = holds.map(({ pointId, kind }) => `${pointId}${kind}`).toSorted();
  // A pull without a bar or anchor is known by what it was known by before there were any.
  const bar = plates.map(({ pointId, share }) => `${pointId}${share}`).toSorted();
  const to = pull.anchor === null ? [] : [pull.anchor];
  const { dirX, dirY, dirZ, attach, chain, rated, againstPointId } = pull;
  const said = JSON.stringify([dirX, dirY, dirZ, attach, chain, rated, againstPointId, held, ...bar, ...to]);
  const hash = [...said].reduce((sum, letter) => (Math.imul(31, sum) + letter.charCodeAt(0)) >>> 0, 17);
  return `rig ${hash.toString(36)}`;
}

/** What is noted before each stroke: nobody is in the way. */
export const strokeKey = (ordinal: number): string => `stroke ${ordinal + 1}`;

/** Whether that was said of a pull. */
export const isCleared = (events: readonly WorkEvent[], pullId: string, key: string): boolean =>
  events.some((event) => event.itemId === pullId && event.kind === 'cleared' && event.key === key);
