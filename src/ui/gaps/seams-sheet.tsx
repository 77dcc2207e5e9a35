import { useState } from 'react';
import type { Vector } from '@/core/maths/geometry/vector';
import { project, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';
import type { GapsPage, PlacedSeam } from '@/core/report/pages/gaps';
import { FactorSlider } from '../sheet/factor-slider';
import { Sheet } from '../sheet/sheet';

/** As wide as it should be a seam is drawn so wide, sheet units; what is wider or narrower adds so much a millimetre at a factor of one. */
const USUAL = 7;
const PER_MM = 0.25;
const LEAST = 1;
/** Shorter than this in a view a seam is not drawn there: one looks along it. */
const SHORTEST = 18;

interface SheetProps extends Pick<GapsPage, 'figure' | 'placed'> {
  readonly title: readonly string[];
}

/** Every seam that is placed, drawn along its line on the shell: wider than wanted is thicker, narrower is thinner. */
export function SeamsSheet({ figure, placed, title }: SheetProps) {
  const [factor, setFactor] = useState(20);
  return (
    <figure className="flex min-w-0 flex-col gap-2">
      <Sheet
        drawn={{
          // Nothing is moved here: what is exaggerated is the width.
          ...{ figure, factor: 0, title: [...title, `widths off target × ${factor}`], plain: true },
          over: (view, layout) => <Ribbons {...{ view, layout, placed, factor }} />,
        }}
      />
      <figcaption className="no-print flex flex-wrap items-center gap-3 text-sm text-soft">
        Thick is wider than wanted, thin is narrower; a broken line was not read.
        <span className="ml-auto">
          <FactorSlider factor={factor} onChange={setFactor} onCommit={setFactor} />
        </span>
      </figcaption>
    </figure>
  );
}

interface RibbonsProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly placed: readonly PlacedSeam[];
  readonly factor: number;
}

/** Seen from above and from behind both sides show; from the side the left. */
const Ribbons = ({ view, layout, placed, factor }: RibbonsProps) => (
  <g data-seams={view}>
    {placed
      .filter(({ stations }) => view !== 'side' || stations.every(({ at }) => at[1] <= 0))
      .map((seam) => (
        <Ribbon key={seam.code} {...{ seam, view, layout, factor }} />
      ))}
  </g>
);

function Ribbon({ seam, view, layout, factor }: Omit<RibbonsProps, 'placed'> & { readonly seam: PlacedSeam }) {
  const places = seam.stations.map(({ at }) => project(layout, view, at as Vector));
  const [first, last] = [places[0]!, places.at(-1)!];
  const length = Math.hypot(last[0] - first[0], last[1] - first[1]);
  if (length < SHORTEST) return null;
  const normal = [-(last[1] - first[1]) / length, (last[0] - first[0]) / length] as const;
  const half = (deviation: number) => Math.max(LEAST, USUAL + PER_MM * factor * deviation) / 2;
  const read = seam.stations.flatMap(({ deviation }, i) =>
    deviation === undefined ? [] : [{ at: places[i]!, half: half(deviation) }],
  );
  const edge = (way: 1 | -1) =>
    read.map(({ at, half: by }) => `${at[0] + way * by * normal[0]},${at[1] + way * by * normal[1]}`);
  return (
    <g data-seam={seam.code}>
      <line
        x1={first[0]}
        y1={first[1]}
        x2={last[0]}
        y2={last[1]}
        stroke="var(--ink)"
        strokeWidth={1.2}
        strokeDasharray={read.length === seam.stations.length ? undefined : '3 3'}
      />
      {read.length > 1 ? (
        <polygon
          points={[...edge(1), ...edge(-1).toReversed()].join(' ')}
          fill="var(--ink)"
          fillOpacity={0.35}
          stroke="var(--ink)"
          strokeWidth={1}
        />
      ) : null}
      <text
        x={(first[0] + last[0]) / 2 + Math.abs(normal[0]) * 9 + 3}
        y={(first[1] + last[1]) / 2 - Math.abs(normal[1]) * 9}
        fontSize={12}
        fontWeight={600}
        fill="var(--ink)"
      >
        {seam.code}
      </text>
    </g>
  );
}
