import { fold, type ChartDraft, type DraftDimension, type DraftFault, type DraftPoint, type KnownCodes } from './draft';
import { limitFaults } from './limits';

/** Everything about a draft that its rows cannot know alone: repeated codes, unknown ends, wrong sides. */
export function checkDraft(draft: ChartDraft, here: KnownCodes): DraftFault[] {
  const named = draft.named ?? [];
  const charted = draft.points.map((point) => fold(point.code));
  const known = new Set([...here, ...charted, ...named.map((point) => fold(point.code))]);
  return [
    ...limitFaults(draft),
    ...repeated('points', draft.points),
    ...repeated('named', named, new Set(charted)),
    ...repeated('dimensions', draft.dimensions),
    ...repeated('seams', draft.seams),
    ...draft.points.flatMap((point, index) => sideFaults(point, index)),
    ...draft.dimensions.flatMap((dimension, index) => endFaults(dimension, index, known)),
    ...draft.lines.flatMap((ends, index) =>
      ends.flatMap((code, end) =>
        known.has(fold(code))
          ? []
          : [{ list: 'lines' as const, index, field: String(end), message: `no point "${code}"` }],
      ),
    ),
  ];
}

function repeated(
  list: 'points' | 'named' | 'dimensions' | 'seams',
  rows: readonly { readonly code: string }[],
  elsewhere: ReadonlySet<string> = new Set(),
): DraftFault[] {
  const seen = new Set(elsewhere);
  return rows.flatMap(({ code }, index): DraftFault[] => {
    const folded = fold(code);
    if (folded === '') return [];
    const twice = seen.has(folded);
    seen.add(folded);
    return twice ? [{ list, index, field: 'code', message: `"${code}" stands here twice` }] : [];
  });
}

function sideFaults({ side, y, code }: DraftPoint, index: number): DraftFault[] {
  const wrong = (side === 'left' && y > 0) || (side === 'right' && y < 0);
  if (!wrong) return [];
  const rule = side === 'left' ? 'left-hand points have y below zero' : 'right-hand points have y above zero';
  return [
    {
      list: 'points',
      index,
      field: 'y',
      message: `${code} is on the ${side}, but y is ${y}: ${rule}`,
    },
  ];
}

function endFaults({ from, to }: DraftDimension, index: number, known: ReadonlySet<string>): DraftFault[] {
  const unknown = (['from', 'to'] as const).flatMap((field): DraftFault[] => {
    const code = field === 'from' ? from : to;
    return code === '' || known.has(fold(code))
      ? []
      : [{ list: 'dimensions', index, field, message: `no point "${code}"` }];
  });
  if (from !== '' && fold(from) === fold(to))
    return [...unknown, { list: 'dimensions', index, field: 'to', message: `"${from}" to itself has no length` }];
  return unknown;
}
