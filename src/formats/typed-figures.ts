import { length } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';

/** Figures of a reference as somebody typed them, one subject a line. */
export interface TypedFigures {
  readonly points: readonly { readonly pointId: string; readonly at: readonly [number, number, number] }[];
  readonly dimensions: readonly { readonly dimensionId: string; readonly value: number }[];
  readonly faults: readonly { readonly line: number; readonly message: string }[];
}

/**
 * Reads figures typed one a line: a point with its length, width and height (`S1L 760 -690 150`), or a
 * dimension with its length (`CD1 1432.5`). Lengths in any form without blanks.
 */
export function readTypedFigures(text: string, rows: JobRows, unit: LengthUnit): TypedFigures {
  const points: TypedFigures['points'][number][] = [];
  const dimensions: TypedFigures['dimensions'][number][] = [];
  const faults: TypedFigures['faults'][number][] = [];
  text.split(/\r?\n/).forEach((content, i) => {
    const words = content.trim().split(/[\s;]+/);
    if (words[0] === '' || words[0] === undefined) return;
    const say = (message: string) => faults.push({ line: i + 1, message });
    const code = words[0].toLowerCase();
    const point = rows.points.find((each) => each.code.toLowerCase() === code);
    const dimension = rows.dimensions.find((each) => each.code.toLowerCase() === code);
    const amounts = words.slice(1).map((word) => parseLength(word, unit));
    const refused = amounts.find((amount) => !amount.ok);
    if (!point && !dimension) return say(`no point or dimension "${words[0]}"`);
    if (refused && !refused.ok) return say(refused.reason);
    if (amounts.some((amount) => amount.ok && !length.safeParse(amount.mm).success))
      return say('no shell reaches further than 100 m');
    const mm = amounts.flatMap((amount) => (amount.ok ? [amount.mm] : []));
    const [x, y, z] = mm;
    if (point && mm.length === 3) points.push({ pointId: point.id, at: [x!, y!, z!] });
    else if (dimension && mm.length === 1 && mm[0]! > 0) dimensions.push({ dimensionId: dimension.id, value: mm[0]! });
    else
      say(
        point
          ? `${words[0]} is a point: type its length, width and height`
          : `${words[0]} is a dimension: type one length above zero`,
      );
  });
  return { points, dimensions, faults };
}
