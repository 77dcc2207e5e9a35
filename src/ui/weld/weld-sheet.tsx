import { useMemo, useState } from 'react';
import { heatAt } from '@/core/plan/weld-order/schools';
import { project, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';
import type { SheetFigure } from '@/core/report/drawing/points';
import { isLaid, type JointView, type SeamPlan } from '@/core/report/pages/welding';
import { Sheet } from '../sheet/sheet';
import { useFormat } from '../shell/preferences-context';
import { LayingControls, useLaying } from './laying';
import { FULLEST } from './seam-strip';
import { chosen, numbersOf } from './chosen';

type PlacedView = JointView & { readonly plan: SeamPlan };

interface WeldSheetProps {
  readonly figure: SheetFigure;
  /** Joints of which both ends are known. */
  readonly views: readonly PlacedView[];
}

/** Every seam where it lies on the shell; the one in hand numbered in its order, and played through with its heat as tone. */
export function WeldSheet({ figure, views }: WeldSheetProps) {
  const format = useFormat();
  const [id, setId] = useState(views[0]!.joint.id);
  const inHand = views.find(({ joint }) => joint.id === id) ?? views[0]!;
  const nameOf = ({ joint, panel }: PlacedView) => format.name(`${panel}, ${joint.beside}`);
  return (
    <figure className="flex min-w-0 flex-col gap-2" aria-label="Welds on the sheet">
      <Played key={inHand.joint.id} figure={figure} views={views} inHand={inHand} title={nameOf(inHand)} />
      <div className="flex flex-wrap gap-x-4" role="radiogroup" aria-label="The joint in hand">
        {views.map((view) => (
          <label key={view.joint.id} className="flex min-h-11 items-center gap-2">
            <input
              type="radio"
              name="joint in hand"
              className="size-5"
              checked={view === inHand}
              onChange={() => setId(view.joint.id)}
            />
            {nameOf(view)}
          </label>
        ))}
      </div>
    </figure>
  );
}

function Played({ figure, views, inHand, title }: WeldSheetProps & { inHand: PlacedView; title: string }) {
  const by = chosen(inHand.plan);
  const laying = useLaying(by);
  // Once for all views.
  const moment = momentOf(inHand.plan, laying.now);
  const everyPoint = useMemo(() => new Set(figure.points.map(({ id }) => id)), [figure]);
  return (
    <>
      <Sheet
        drawn={{
          ...{ figure, factor: 0, plain: true, faint: everyPoint },
          title: ['Welds', title],
          over: (view, layout) => (
            <>
              {views.map((each) => (
                <Seam
                  key={each.joint.id}
                  {...{ view, layout }}
                  plan={each.plan}
                  {...(each === inHand ? { moment } : {})}
                />
              ))}
            </>
          ),
        }}
      />
      <figcaption className="no-print flex flex-wrap items-center gap-3">
        <LayingControls laying={laying} label={`Moment of the welding of ${title}`} />
      </figcaption>
    </>
  );
}

interface SeamProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly plan: SeamPlan;
  /** Of the seam in hand. */
  readonly moment?: Moment;
}

/** A moment of the welding of a seam: the places that are laid, and how warm each place is, K. */
interface Moment {
  readonly there: ReadonlySet<number>;
  readonly heat: readonly number[];
}

function momentOf(plan: SeamPlan, now: number): Moment {
  const { task } = plan;
  const laid = chosen(plan).order.filter(({ plug, begun }) => begun + task.plugs[plug]!.seconds <= now);
  return { there: new Set(laid.map(({ plug }) => plug)), heat: heatAt(task, laid, now) };
}

/** Numbers nearer to each other than this are left away, on the drawing. */
const APART = 15;

/** A seam in one view: laid places full; of the one in hand its numbers, and how warm each place is. */
function Seam({ view, layout, plan, moment }: SeamProps) {
  const { task, layout: laidOut } = plan;
  const by = chosen(plan);
  const at = task.plugs.map((plug) => project(layout, view, plug.at));
  const order = by.order.map(({ plug }) => plug);
  const numbered = moment ? spread(at, order) : [];
  const numbers = numbersOf(by);
  return (
    <g data-seam-on={view}>
      {moment?.heat.map((rise, i) => (
        <circle
          key={`heat ${i}`}
          cx={at[i]![0]}
          cy={at[i]![1]}
          r={9}
          fill="var(--ink)"
          opacity={0.5 * Math.min(1, rise / FULLEST)}
        />
      ))}
      {laidOut.places.map(({ along }, i) => (
        <circle
          key={along}
          cx={at[i]![0]}
          cy={at[i]![1]}
          r={moment ? 3 : 2}
          fill={(moment ? moment.there.has(i) : isLaid(plan, along)) ? 'var(--ink)' : 'var(--sheet)'}
          stroke={moment ? 'var(--ink)' : 'var(--soft)'}
        />
      ))}
      {numbered.map((plug) => (
        <text key={plug} x={at[plug]![0]} y={at[plug]![1] - 8} textAnchor="middle" fontSize={11} fill="var(--ink)">
          {numbers.get(plug)}
        </text>
      ))}
    </g>
  );
}

/** Places whose numbers have room beside those before them, in the order they are laid. */
function spread(at: readonly (readonly [number, number])[], order: readonly number[]): number[] {
  const kept: number[] = [];
  for (const plug of order)
    if (kept.every((other) => Math.hypot(at[plug]![0] - at[other]![0], at[plug]![1] - at[other]![1]) > APART))
      kept.push(plug);
  return kept;
}
