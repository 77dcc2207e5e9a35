import { SIDES, type Side } from '@/core/shell/job/entities';
import type { NewPoint } from '@/core/shell/shorthand/new-points';
import { useFormat } from '../shell/preferences-context';

/** The sides somebody chose for new points, by their codes. */
export type ChosenSides = Readonly<Record<string, Side>>;

/** What is asked before a line makes points. */
export const newPointsQuestion = (made: readonly NewPoint[]): string | undefined =>
  made.length === 0
    ? undefined
    : `${made.map(({ code }) => code).join(' and ')} ${made.length === 1 ? 'is' : 'are'} new: see the side, then Enter again makes ${made.length === 1 ? 'it' : 'them'}.`;

/** The points a line would make: on which side each is, and what is made with it. */
export function NewPoints({
  made,
  sides,
  choose,
}: {
  made: readonly NewPoint[];
  sides: ChosenSides;
  choose: (code: string, side: Side) => void;
}) {
  const format = useFormat();
  return (
    <ul className="flex flex-col gap-1" aria-label="New points">
      {made.map(({ code, side, mirror }) => {
        const chosen = sides[code] ?? side;
        return (
          <li key={code} className="flex flex-wrap items-center gap-2" data-new-point={code}>
            <span>
              <strong className="font-mono">{code}</strong> is new:
            </span>
            <span role="radiogroup" aria-label={`Side of ${code}`} className="flex">
              {SIDES.map((each) => (
                <button
                  key={each}
                  type="button"
                  role="radio"
                  aria-checked={chosen === each}
                  className={`min-h-11 border border-rule px-3 ${chosen === each ? 'bg-ink text-paper' : 'bg-sheet'}`}
                  onClick={() => choose(code, each)}
                >
                  {format.name(each)}
                </button>
              ))}
            </span>
            {mirror && chosen !== 'centre' ? (
              <span className="text-sm text-soft">{mirror} is made with it, as its mirror image</span>
            ) : null}
          </li>
        );
      })}
    </ul>
  );
}
