import type { Job } from '../../shell/job/job';
import { patternSentences } from '../pattern-sentences';
import { analyseRound, OWN_SPREADS } from '../../findings/analysis';
import type { RoundJudgement } from '../../round/judge/judgement';
import { placeAt } from '../../findings/place-names';
import type { RecordFound } from '../../shell/record-document';

/**
 * The pattern of a round without identities; absent where nothing is aligned to measure it against, or too few points
 * are located to look for one.
 */
export function foundOf(job: Job, judgement: RoundJudgement): RecordFound | undefined {
  const pattern = judgement.alignment.ok ? analyseRound(job, judgement, OWN_SPREADS).pattern : undefined;
  if (!pattern || pattern.hinges === 0) return undefined;
  const byId = new Map(job.rows.points.map((point) => [point.id, point]));
  return {
    round: judgement.round.number,
    roundName: judgement.round.name,
    sections: pattern.sections.map(({ section, hinge: { hinge, end }, components, alike, onlySide }) => ({
      ...{ section, hinge, end, near: placeAt(job, judgement, hinge, AS_KEPT) },
      components: components.map(({ name, amount, sd, significant }) => ({ name, amount, sd, significant })),
      alike: [...alike],
      ...(onlySide ? { onlySide } : {}),
    })),
    local: pattern.local.map(({ id, movement, sd }) => {
      const { code, side } = byId.get(id)!;
      return { code, side, movement, sd };
    }),
    hinges: pattern.hinges,
  };
}

/** A record is kept in the names that were typed and in millimetres. */
const AS_KEPT = { name: (text: string) => text, station: (mm: number) => String(Math.round(mm)) };

/**
 * What was found, in plain sentences.
 *
 * @param length a length without sign and unit
 * @param name   a name as typed, in the reader's words
 */
export function foundSentences(
  found: RecordFound,
  {
    length,
    unit,
    name,
  }: { readonly length: (mm: number) => string; readonly unit: string; readonly name: (text: string) => string },
): string[] {
  const sides = new Map(found.local.map(({ code, side }) => [code, { left: -1, centre: 0, right: 1 }[side]]));
  const near = new Map(found.sections.map((section) => [section.hinge, name(section.near)]));
  return patternSentences(
    {
      sections: found.sections.map(({ section, hinge, end, ...rest }) => ({
        section,
        hinge: { section, hinge, end },
        ...rest,
      })),
      local: found.local.map(({ code, movement, sd }) => ({ id: code, movement, sd })),
      hinges: found.hinges,
    },
    {
      length,
      unit,
      near: (station) => near.get(station)!,
      code: (id) => id,
      section: name,
      side: (id) => sides.get(id)!,
    },
  );
}
