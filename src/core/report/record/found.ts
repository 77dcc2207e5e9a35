import type { Job } from '../../shell/job/job';
import { patternSentences } from '../pattern-sentences';
import { analyseRound, OWN_SPREADS } from '../../findings/analysis';
import type { RoundJudgement } from '../../round/judge/judgement';
import { placeNear, stationText, type PlaceWords } from '../../findings/place-names';
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
    sections: pattern.sections.map(({ section, hinge: { hinge, end }, components, alike, onlySide }) => {
      const beside = placeNear(job, judgement, hinge);
      return {
        ...{ section, hinge, end },
        ...(beside ? { beside } : {}),
        components: components.map(({ name, amount, sd, significant }) => ({ name, amount, sd, significant })),
        alike: [...alike],
        ...(onlySide ? { onlySide } : {}),
      };
    }),
    local: pattern.local.map(({ id, movement, sd }) => {
      const { code, side } = byId.get(id)!;
      return { code, side, movement, sd };
    }),
    hinges: pattern.hinges,
  };
}

/** How what was found is told. */
interface FoundWords extends PlaceWords {
  /** A length without sign and unit. */
  readonly length: (mm: number) => string;
  /** Two standard deviations of one, without sign and unit. */
  readonly uncertainty: (mm: number) => string;
  readonly unit: string;
}

/** What was found, in plain sentences. */
export function foundSentences(found: RecordFound, words: FoundWords): string[] {
  const { length, uncertainty, unit, name } = words;
  const sides = new Map(found.local.map(({ code, side }) => [code, { left: -1, centre: 0, right: 1 }[side]]));
  const near = new Map(
    found.sections.map((section) => [
      section.hinge,
      section.near === undefined ? stationText(section.hinge, section.beside, words) : name(section.near),
    ]),
  );
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
      uncertainty,
      unit,
      near: (station) => near.get(station)!,
      code: (id) => id,
      section: name,
      side: (id) => sides.get(id)!,
    },
  );
}
