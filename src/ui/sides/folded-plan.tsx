import { placeLabels } from '@/core/report/drawing/labels';
import { boundsOf, layOut, project, type SheetLayout } from '@/core/report/drawing/sheet';
import { scale, subtract, type Vector } from '@/core/maths/geometry/vector';
import type { JobRows } from '@/core/shell/job/job-rows';
import { differs } from '@/core/findings/sides';
import type { SideDifference } from '@/core/maths/symmetry/centre-plane';

/** A pair of points chosen on this page, by its left one. */
export type Choosing = { readonly selected?: string; readonly select: (leftId: string) => void };

const SIZE = { width: 620, height: 460 };

/**
 * The right side of the shell in plan and side view with the left folded onto it: where they are alike the
 * two marks cover each other. Differences are drawn as often as large as the factor says.
 */
export function FoldedPlan({
  rows,
  pairs,
  positions,
  selected,
  select,
}: Choosing & { rows: JobRows; pairs: readonly SideDifference[]; positions: ReadonlyMap<string, Vector> }) {
  const rights = pairs.map(({ pair }) => onTheRight(positions.get(pair.right)!));
  const largest = Math.max(1, ...pairs.flatMap(({ difference }) => difference.map(Math.abs)));
  const factor = [50, 20, 10, 5, 2, 1].find((each) => each * largest * laidOut(rights).scale < 60) ?? 1;
  // Both sides have room, the left one as far off as it is drawn.
  const layout = laidOut([...rights, ...pairs.map((each, i) => foldedOver(rights[i]!, each, factor))]);
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code.replace(/R$/i, '')]));
  const box = layout.views.side;
  const folded = (id: string): Vector | undefined => {
    const at = positions.get(id);
    return at && rows.points.find((point) => point.id === id)?.side !== 'left' ? onTheRight(at) : undefined;
  };
  const outline = rows.memberLines.flatMap(({ fromPointId, toPointId }) => {
    const [from, to] = [folded(fromPointId), folded(toPointId)];
    return from && to ? [[from, to] as const] : [];
  });
  const labelsOf = (view: FoldedView) => {
    const requests = pairs.map((each) => ({
      id: each.pair.left,
      at: project(layout, view, onTheRight(positions.get(each.pair.right)!)),
      text: codeOf.get(each.pair.right)!,
      // Pairs that agree have no label, but theirs is a mark that no other label may cover.
      weight: each.pair.left === selected ? 2 : differs(each) ? 1 : 0,
    }));
    const placed = placeLabels(requests, { line: 13, character: 7 }, 9, layout.views[view]);
    return placed.filter(({ id }) => requests.some((each) => each.id === id && each.weight > 0));
  };
  return (
    <figure className="min-w-0 border border-rule bg-sheet">
      <svg
        viewBox={`0 0 ${box.width} ${layout.views.plan.height / 2 + box.height}`}
        className="block w-full"
        role="img"
        aria-label="The left side folded onto the right, plan above and side below"
      >
        {(['plan', 'side'] as const).map((view) => (
          <g key={view} transform={view === 'side' ? `translate(0 ${-layout.views.plan.height / 2})` : undefined}>
            {outline.map(([from, to], i) => {
              const [[x1, y1], [x2, y2]] = [project(layout, view, from), project(layout, view, to)];
              return <line key={i} {...{ x1, y1, x2, y2 }} stroke="var(--rule)" strokeWidth={1} />;
            })}
            {pairs.map((each) => (
              <FoldedPair
                key={each.pair.left}
                {...{ each, layout, view, factor }}
                at={positions.get(each.pair.right)!}
                on={selected === each.pair.left}
                onSelect={() => select(each.pair.left)}
              />
            ))}
            {labelsOf(view).map(({ id, text, x, y }) => (
              <text key={id} x={x} y={y} fontSize={12} fill="currentColor" className="pointer-events-none font-cond">
                {text}
              </text>
            ))}
          </g>
        ))}
      </svg>
      <figcaption className="px-2 pb-1 text-sm text-soft">
        Plan above, side below. Ring: right; square: left, folded over; the line between them is how the sides differ,
        drawn {factor} times as large.
      </figcaption>
    </figure>
  );
}

type FoldedView = 'plan' | 'side';

const laidOut = (places: readonly Vector[]): SheetLayout =>
  layOut(boundsOf(places), { width: 2 * SIZE.width, height: SIZE.height + 120 }, 22);

/** Where the left point of a pair is drawn beside the right one. */
const foldedOver = (right: Vector, { difference }: SideDifference, factor: number): Vector =>
  subtract(right, scale(difference, factor));

const onTheRight = ([x, y, z]: Vector): Vector => [x, Math.abs(y), z];

/** The right point of a pair as a ring, the left one folded over as a square, and the line between them. */
function FoldedPair({
  each,
  at,
  layout,
  view,
  factor,
  on,
  onSelect,
}: {
  each: SideDifference;
  at: Vector;
  layout: SheetLayout;
  view: FoldedView;
  factor: number;
  on: boolean;
  onSelect: () => void;
}) {
  const right = onTheRight(at);
  const [x, y] = project(layout, view, right);
  const [lx, ly] = project(layout, view, foldedOver(right, each, factor));
  return (
    <g onClick={onSelect} className="cursor-pointer">
      {on ? <circle cx={x} cy={y} r={12} fill="none" stroke="var(--lit)" strokeWidth={5} /> : null}
      <line x1={x} y1={y} x2={lx} y2={ly} stroke="var(--ink)" strokeWidth={differs(each) ? 2 : 1} />
      <rect x={lx - 3.5} y={ly - 3.5} width={7} height={7} fill="var(--sheet)" stroke="var(--soft)" strokeWidth={1.6} />
      <circle cx={x} cy={y} r={4} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.8} />
    </g>
  );
}
