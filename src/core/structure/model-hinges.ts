import { boxSection, type Box } from './box-section';
import type { ShellFrame } from './shell-frame';
import type { ModelMember, ShellModel } from './shell-model';
import type { HardeningHinge } from './hardening';

/** Yield stress of the sheet of older shells, N/mm². */
export const SHEET_YIELDS = 210;
/** What dents, spot rows and buckling of thin walls leave of the moment a box of sheet would carry when it yields all through. */
const THIN_WALLS = 0.5;
/** Past yield metal carries more the further it is bent or folded: so much of its first for each radian, or each millimetre. */
const HARDENS = { y: 4, z: 4, along: 0.01 };

/** Plastic section moduli of a closed box about its level (`y`) and its upright axis (`z`), mm³: outer less inner, w·h²/4. */
export function plasticModuli({ width: w, height: h, wall }: Box, condition = 1): { y: number; z: number } {
  const t = wall * condition;
  const [v, k] = [w - 2 * t, h - 2 * t];
  return { y: (w * h ** 2 - v * k ** 2) / 4, z: (h * w ** 2 - k * v ** 2) / 4 };
}

/** What a member carries at its ends before it yields there: about its level and its upright axis, N·mm, and along itself, N. */
export function yieldsAt(member: ModelMember): Readonly<Record<'y' | 'z' | 'along', number>> {
  const { y, z } = plasticModuli(member, member.condition);
  const stress = SHEET_YIELDS * THIN_WALLS;
  return { y: y * stress, z: z * stress, along: boxSection(member, member.condition).A * stress };
}

/** What is left of the moment a member carries before it yields, by its code; undefined where it is not looked at. */
export type Weakness = (code: string) => number | undefined;
/** Metal that nothing happened to. */
export const SOUND = 1;

/** A place where a member of a model may yield, the member's code and how weak it was taken. */
export interface ModelHinge extends HardeningHinge {
  readonly code: string;
  readonly share: number;
}

/**
 * Hinges at both ends and about both axes, and one fold along itself, of some members of a model, as its frame has them.
 *
 * @param weakness of the members that may yield; those that are not in the frame have no hinges
 */
export function hingesAt(
  { members }: Pick<ShellModel, 'members'>,
  frame: Pick<ShellFrame, 'members'>,
  weakness: Weakness,
): ModelHinge[] {
  const model = new Map(members.map((member) => [member.code, member]));
  return frame.members.flatMap(({ id: code }, at): ModelHinge[] => {
    const member = model.get(code);
    const share = weakness(code);
    if (!member || share === undefined) return [];
    const whole = yieldsAt(member);
    const moments = { y: share * whole.y, z: share * whole.z, along: share * whole.along };
    const places = [
      ...(['from', 'to'] as const).flatMap((end) => (['y', 'z'] as const).map((about) => ({ end, about }))),
      { end: 'from', about: 'along' } as const,
    ];
    return places.map(({ end, about }) => ({
      ...{ id: `${code} ${end} ${about}`, code, share, member: at, end, about, moment: moments[about] },
      hardening: HARDENS[about] * moments[about],
    }));
  });
}
