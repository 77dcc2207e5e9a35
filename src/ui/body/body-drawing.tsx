import type { BodyPicture } from '@/core/shell/bodies/body';

type At = readonly [number, number, number];

interface Drawn {
  readonly picture: BodyPicture;
  /** Places by their codes, brought to size, mm. */
  readonly places: ReadonlyMap<string, At>;
  readonly chosen: ReadonlySet<string>;
  readonly toggle: (code: string) => void;
}

const MARGIN = 260;
/** A place can be hit by a glove: radius, mm on the drawing. */
const REACH = 70;
/** From above only the places low down are named: those over them are named from the side. */
const LABELLED = 0.4;

/** The shell from above and from its left side, one over the other: places are chosen on either. */
export function BodyDrawing({ picture, places, chosen, toggle }: Drawn) {
  const all = [...places.values()];
  const [length, width, height] = [0, 1, 2].map((axis) => Math.max(...all.map((at) => Math.abs(at[axis]!)))) as [
    number,
    number,
    number,
  ];
  // As on the sheet: the right-hand side above.
  const plan = (at: At) => [at[0], width - at[1]] as const;
  const side = (at: At) => [at[0], 2 * width + 2 * MARGIN + height - at[2]] as const;
  const total = 2 * width + 2 * MARGIN + height;
  return (
    <svg
      viewBox={`${-MARGIN} ${-MARGIN} ${length + 2 * MARGIN} ${total + 2 * MARGIN}`}
      className="max-h-[70dvh] w-full border border-faint bg-sheet"
      role="group"
      aria-label={`The shell from above and from the left: ${picture.name}`}
    >
      <text x={-MARGIN + 40} y={width} fontSize={90} fill="currentColor" className="font-cond">
        ◄ front
      </text>
      <Lines picture={picture} places={places} at={plan} />
      <Lines picture={picture} places={places} at={side} leftOnly />
      {picture.places.map(({ code, name, side: of }) => (
        <g key={code}>
          <Place
            {...{ code, name, toggle }}
            at={plan(places.get(code)!)}
            isChosen={chosen.has(code)}
            label={places.get(code)![2] < height * LABELLED}
          />
          {of === 'right' ? null : (
            <Place {...{ code, name, toggle }} at={side(places.get(code)!)} isChosen={chosen.has(code)} label again />
          )}
        </g>
      ))}
    </svg>
  );
}

interface LinesProps {
  readonly picture: BodyPicture;
  readonly places: ReadonlyMap<string, At>;
  readonly at: (place: At) => readonly [number, number];
  readonly leftOnly?: boolean;
}

function Lines({ picture, places, at, leftOnly = false }: LinesProps) {
  const hidden = new Set(leftOnly ? picture.places.filter(({ side }) => side === 'right').map(({ code }) => code) : []);
  const point = (code: string) => at(places.get(code)!).join(' ');
  return (
    <>
      {picture.openings
        .filter(({ corners }) => corners.every((code) => !hidden.has(code)) || !leftOnly)
        .filter(({ corners }) => !leftOnly || corners.every((code) => code.endsWith('L')))
        .map(({ name, corners }) => (
          <path
            key={name + corners.join()}
            d={`M${corners.map(point).join(' L')} Z`}
            fill="var(--faint)"
            stroke="var(--rule)"
            strokeWidth={8}
          />
        ))}
      {picture.members
        .filter(({ from, to }) => !hidden.has(from) && !hidden.has(to))
        .map(({ from, to }) => (
          <path
            key={`${from} ${to}`}
            d={`M${point(from)} L${point(to)}`}
            stroke="var(--ink)"
            strokeWidth={10}
            fill="none"
          />
        ))}
    </>
  );
}

interface PlaceProps {
  readonly code: string;
  readonly name: string;
  readonly at: readonly [number, number];
  readonly isChosen: boolean;
  readonly toggle: (code: string) => void;
  readonly label?: boolean;
  /** Shown a second time, from the side: out of the order of the keys. */
  readonly again?: boolean;
}

function Place({ code, name, at: [x, y], isChosen, toggle, label = false, again = false }: PlaceProps) {
  return (
    <g
      role="checkbox"
      aria-checked={isChosen}
      aria-label={`${code} ${name}`}
      aria-hidden={again || undefined}
      tabIndex={again ? -1 : 0}
      className="cursor-pointer"
      onClick={() => toggle(code)}
      onKeyDown={(event) => {
        if (event.key !== ' ' && event.key !== 'Enter') return;
        event.preventDefault();
        toggle(code);
      }}
    >
      <title>{`${code}: ${name}`}</title>
      <circle cx={x} cy={y} r={REACH} fill="transparent" />
      <circle
        cx={x}
        cy={y}
        r={30}
        fill={isChosen ? 'var(--ink)' : 'var(--paper)'}
        stroke="var(--ink)"
        strokeWidth={10}
      />
      {label ? (
        <text x={x + 40} y={y - 30} fontSize={78} fill="currentColor" className="font-cond" aria-hidden>
          {code}
        </text>
      ) : null}
    </g>
  );
}
