import { memo } from 'react';
import { grouped } from '@/core/maths/grouped';
import type { DrawnMember, Face, ShellDrawing, Wheel } from '@/core/report/drawing/shell';
import { project, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';
import type { Vector } from '@/core/maths/geometry/vector';

/** What of the shell is drawn otherwise than as it stands. */
export interface ShellState {
  /** Members and sheets that are out: their outline alone. */
  readonly out?: ReadonlySet<string>;
  /** In hand: lit. */
  readonly lit?: ReadonlySet<string>;
  readonly onPart?: (code: string) => void;
}

interface LayerProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly shell: ShellDrawing;
  readonly state?: ShellState;
}

const NONE: ReadonlySet<string> = new Set();

/** In the side view the right side is hidden by the left, whose mirror image it is. */
const isNear = (view: ViewName, corners: readonly Vector[]): boolean => {
  return view !== 'side' || corners.some(([, y]) => y <= 1);
};

/** The shell as a shell, behind everything else: sheets as faint faces, members as wide as they are, wheels and openings. */
export const ShellLayer = memo(function ShellLayer({ view, layout, shell, state = {} }: LayerProps) {
  const { out = NONE, lit = NONE } = state;
  const path = (corners: readonly Vector[]) =>
    `M${corners
      .map((at) =>
        project(layout, view, at)
          .map((value) => value.toFixed(1))
          .join(' '),
      )
      .join('L')}Z`;
  const stands = ({ code }: Face) => !out.has(code);
  const isPlain = ({ code }: DrawnMember) => !out.has(code) && !lit.has(code);
  return (
    <g strokeLinejoin="round" strokeLinecap="round" data-shell={view}>
      <g fill="var(--faint)" fillOpacity={0.35} stroke="var(--rule)" strokeWidth={0.8}>
        {shell.skin
          .filter(({ corners }) => isNear(view, corners))
          .map(({ name, corners }, i) => (
            <path key={`${name} ${i}`} d={path(corners)} />
          ))}
      </g>
      <g fill="var(--faint)" fillOpacity={0.5}>
        {shell.faces.filter(stands).map((face) => (
          <path key={face.code} d={path(face.corners)} fill={lit.has(face.code) ? 'var(--lit)' : undefined} />
        ))}
      </g>
      <g fill="var(--sheet)" fillOpacity={0.75} stroke="var(--rule)" strokeWidth={1.2}>
        {shell.openings
          .filter(({ corners }) => seen(view, corners))
          .map(({ name, corners }, i) => (
            <path key={`${name} ${i}`} d={path(corners)} />
          ))}
      </g>
      {shell.wheels.map((wheel, i) => (
        <WheelMark key={i} {...{ view, layout, wheel }} />
      ))}
      {/* Where nobody points at one of them, members of a width are one line: hundreds of lines are slow to lay out. */}
      {state.onPart === undefined && <MemberBars {...{ view, layout }} members={shell.members.filter(isPlain)} />}
      {shell.members
        .filter((member) => state.onPart !== undefined || !isPlain(member))
        .map((member) => (
          <MemberBar key={member.code} {...{ view, layout, member, state }} />
        ))}
      <g fill="none" stroke="var(--minus)" strokeWidth={1} strokeDasharray="3 3">
        {shell.faces
          .filter((face) => !stands(face))
          .map(({ code, corners }) => (
            <path key={code} d={path(corners)} />
          ))}
      </g>
    </g>
  );
});

/** Openings are drawn where one looks through them: those of a side in the side view, screens and lids in the others. */
function seen(view: ViewName, corners: readonly Vector[]): boolean {
  const across = Math.max(...corners.map(([, y]) => y)) - Math.min(...corners.map(([, y]) => y));
  const ofSide = across < 350;
  return view === 'side' ? ofSide && isNear(view, corners) : !ofSide;
}

function WheelMark({ view, layout, wheel }: { view: ViewName; layout: SheetLayout; wheel: Wheel }) {
  const { at, radius, width } = wheel;
  if (view === 'side' && at[1] > 0) return null;
  const [x, y] = project(layout, view, at);
  const r = radius * layout.scale;
  const style = { fill: 'none', stroke: 'var(--rule)', strokeWidth: 1.4 };
  if (view === 'side')
    return (
      <g {...style}>
        <circle cx={x} cy={y} r={r} fill="var(--sheet)" fillOpacity={0.6} />
        <circle cx={x} cy={y} r={r * 0.62} />
        <circle cx={x} cy={y} r={r * 0.14} />
      </g>
    );
  const [w, h] = view === 'plan' ? [2 * r, width * layout.scale] : [width * layout.scale, 2 * r];
  return <rect x={x - w / 2} y={y - h / 2} width={w} height={h} rx={Math.min(w, h) * 0.3} {...style} />;
}

/** How wide a member is drawn, and how wide what shows within its edges. */
function widthOf(layout: SheetLayout, member: DrawnMember): { readonly width: number; readonly within: number } {
  const width = Math.max(2.2, member.width * layout.scale * 0.55);
  return { width, within: Math.max(0.6, width - 2) };
}

/** Members that stand as they are, each of their widths as one line. */
function MemberBars({ view, layout, members }: Omit<LayerProps, 'shell' | 'state'> & { members: DrawnMember[] }) {
  const end = (at: Vector) =>
    project(layout, view, at)
      .map((value) => value.toFixed(1))
      .join(' ');
  const lines = [...grouped(members, (member) => widthOf(layout, member).width.toFixed(1)).values()].map((alike) => ({
    ...widthOf(layout, alike[0]!),
    d: alike.map(({ from, to }) => `M${end(from)}L${end(to)}`).join(''),
  }));
  return (
    <g fill="none">
      {lines.map(({ d, width }) => (
        <path key={width} d={d} stroke="var(--rule)" strokeWidth={width} />
      ))}
      {lines.map(({ d, width, within }) => (
        <path key={width} d={d} stroke="var(--sheet)" strokeWidth={within} opacity={0.7} />
      ))}
    </g>
  );
}

function MemberBar({ view, layout, member, state }: Omit<LayerProps, 'shell'> & { member: DrawnMember }) {
  const [[x1, y1], [x2, y2]] = [project(layout, view, member.from), project(layout, view, member.to)];
  const { out = NONE, lit = NONE, onPart } = state ?? {};
  const { width, within } = widthOf(layout, member);
  const shape = { x1, y1, x2, y2 };
  if (out.has(member.code))
    return <line {...shape} stroke="var(--minus)" strokeWidth={1.2} strokeDasharray="5 3" data-out={member.code} />;
  return (
    <g
      onClick={onPart ? () => onPart(member.code) : undefined}
      className={onPart ? 'cursor-pointer' : ''}
      data-member={member.code}
    >
      <line {...shape} stroke={lit.has(member.code) ? 'var(--lit)' : 'var(--rule)'} strokeWidth={width} />
      <line {...shape} stroke="var(--sheet)" strokeWidth={within} opacity={0.7} />
    </g>
  );
}
