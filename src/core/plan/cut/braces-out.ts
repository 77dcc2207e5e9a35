import type { Left } from '../../structure/shell-model';
import type { CutModel } from './cut-model';
import { slackRange, type SlackRange } from './slack-table';
import { givesOfMetal } from './worked-stages';

/** How a length gives once new metal is in everywhere and no brace is: tacked, and welded. */
export interface OutOfBraces {
  readonly lengthId: string;
  readonly code: string;
  readonly name: string;
  readonly limit: number;
  readonly tacked: SlackRange;
  readonly welded: SlackRange;
}

/** What the shell gives without its braces once new metal is in: braces come out when it is welded, and not before. */
export function withoutBraces(cut: CutModel): OutOfBraces[] {
  const [tacked, welded] = [givesWith(cut, cut.newMetal.tacked), givesWith(cut, cut.newMetal.welded)];
  return cut.lengths.flatMap(({ id, code, name, limit }, d) => {
    const [soft, hard] = [slackRange(limit, tacked(d)), slackRange(limit, welded(d))];
    return soft && hard ? [{ lengthId: id, code, name, limit, tacked: soft, welded: hard }] : [];
  });
}

/** How each length gives at the stiffest, the likeliest and the softest; everything goes by one over the stiffness. */
function givesWith(cut: CutModel, left: Left) {
  const { low, usual, high } = cut.stiffness;
  const gives = givesOfMetal(cut, left);
  return (d: number) => {
    const give = gives?.[d];
    return [high, usual, low].map((stiffness) => give && { hand: give.hand / stiffness, sag: give.sag / stiffness });
  };
}
