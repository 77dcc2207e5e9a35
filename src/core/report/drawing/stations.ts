import { CENTRE_SHARE, extentOf } from '../../shell/sections';
import type { RoundJudgement } from '../../round/judge/judgement';

/** A station drawn across plan and side: where a section begins, where a pattern hinges. */
export interface Station {
  readonly x: number;
  readonly label: string;
  readonly strong?: boolean;
}

/** Where the sections of the shell begin, and where the pattern hinges. */
export function stationsOf(
  { references }: Pick<RoundJudgement, 'references'>,
  pattern:
    | { readonly sections: readonly { readonly section: string; readonly hinge: { readonly hinge: number } }[] }
    | undefined,
): Station[] {
  const [from, to] = extentOf([...references.points.values()].map(({ row }) => row.x));
  if (!Number.isFinite(from)) return [];
  return [
    { x: from + CENTRE_SHARE[0] * (to - from), label: 'centre section' },
    { x: from + CENTRE_SHARE[1] * (to - from), label: 'rear section' },
    ...(pattern?.sections ?? []).map(({ section, hinge }) => ({
      x: hinge.hinge,
      label: `${section} hinge`,
      strong: true,
    })),
  ];
}
