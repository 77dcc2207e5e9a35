import { apart, pushingApart } from '../../structure/shell-frame';
import { displaced } from '../../structure/stiffness';
import type { CutModel } from './cut-model';
import { bracesIn, type PlacedBrace } from './stages';
import { stiffnessAfter } from './worked-stages';

/** How every length answers a quarter of a turn at one brace, mm, in the order of the model's lengths. */
export interface TurnEffect {
  readonly brace: PlacedBrace;
  /** How far the thread goes in a quarter of a turn, mm. */
  readonly quarter: number;
  readonly moves: readonly number[];
}

/**
 * What a quarter of a turn does. A brace of stiffness k that would be e longer if nothing held it pushes its ends apart by k·e:
 * the shell, the brace in it, answers as to any load.
 */
export function turnEffects(cut: CutModel, stage: number): TurnEffect[] {
  const held = stiffnessAfter(cut, stage, cut.stiffness.usual, true);
  if (!held.ok) return [];
  const { frame, stands, stiffness } = held.value;
  return bracesIn(cut.braces, cut.stages, stage).flatMap((brace): TurnEffect[] => {
    const { threadPitch } = brace.brace;
    if (threadPitch === null || !stands[brace.from] || !stands[brace.to]) return [];
    const quarter = threadPitch / 4;
    const push = pushingApart(frame, brace.from, brace.to).map((value) => value * brace.stiffness * quarter);
    const moved = displaced(stiffness, push);
    const moves = cut.lengths.map(({ from, to }) => (stands[from] && stands[to] ? apart(frame, from, to, moved) : 0));
    return [{ brace, quarter, moves }];
  });
}

/** No brace is turned farther than this at once: quarter turns. */
const MOST_QUARTERS = 16;

/**
 * Which braces to turn, in whole quarters, so that lengths move as wanted: the sum over lengths of ((moved − wanted)/limit)² is
 * made smallest, one brace after the other over all its quarters until none of them helps.
 *
 * @param wanted of every length, mm; undefined where it is not looked at, 0 where it is to stay
 */
export function turnsFor(
  effects: readonly Pick<TurnEffect, 'moves'>[],
  wanted: readonly (number | undefined)[],
  limits: readonly number[],
): number[] {
  const turns = effects.map(() => 0);
  const cost = (of: readonly number[]) =>
    wanted.reduce<number>((sum, want, d) => {
      if (want === undefined) return sum;
      const moved = effects.reduce((total, { moves }, j) => total + of[j]! * moves[d]!, 0);
      return sum + ((moved - want) / limits[d]!) ** 2;
    }, 0);
  let least = cost(turns);
  for (let again = true; again;) {
    again = false;
    for (let j = 0; j < turns.length; j++)
      for (let quarters = -MOST_QUARTERS; quarters <= MOST_QUARTERS; quarters++) {
        const tried = turns.map((each, i) => (i === j ? quarters : each));
        const value = cost(tried);
        if (value >= least * (1 - 1e-9) - 1e-12) continue;
        [least, again] = [value, true];
        turns[j] = quarters;
      }
  }
  return turns;
}
