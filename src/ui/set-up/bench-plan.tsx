'use client';

import { useMemo, useRef } from 'react';
import { holeAt, lastHole } from '@/core/plan/set-up/bench';
import { hasBeams, type BuiltMount } from '@/core/plan/set-up/build';
import type { BenchVersion } from '@/core/shell/job/entities';
import { placeLabels, type Box } from '@/core/report/drawing/labels';
import { scaleOf, WIDTH, MARGIN, type Drawn, type Scale } from './scale';
import { Towers } from './towers';
import { place, position, type Vector } from '@/core/maths/geometry/vector';

export interface BenchPlanProps {
  readonly drawn: Drawn;
  readonly onPoint: (pointId: string) => void;
  /** A beam was put at another hole; while it is dragged, and then for good. */
  readonly onBeam: (mountIds: readonly string[], hole: number, done: boolean) => void;
}

/** The bench from above and from the side under the shell, beams with their holes, towers as they are to be built. */
export function BenchPlan({ drawn, onPoint, onBeam }: BenchPlanProps) {
  const scale = useMemo(() => scaleOf(drawn), [drawn]);
  const { version, built } = drawn;
  const lower = lowered(built.beams.map((hole) => scale.x(holeAt(version, hole))));
  return (
    <div className="overflow-x-auto border border-rule bg-sheet">
      <svg viewBox={`0 0 ${WIDTH} ${scale.height}`} className="block w-full min-w-[600px]" aria-label="Bench plan">
        <text x={MARGIN} y={20} className="caps" fontSize={12} fill="var(--soft)">
          {hasBeams(version) ? 'BENCH' : 'FLOOR'} FROM ABOVE · ◄ FRONT
        </text>
        <Rails {...{ version, scale }} />
        <ShellLines {...{ drawn, scale }} />
        {built.beams.map((hole, i) => {
          const on = built.mounts.filter((each) => each.hole === hole);
          // The same beam wherever it is dragged to.
          return <Beam key={on[0]?.id ?? hole} {...{ hole, on, scale, version, onBeam }} lower={lower[i]!} />;
        })}
        <Weight {...{ drawn, scale }} />
        <Points {...{ drawn, scale, onPoint }} />
        {built.mounts.map((mount) => (
          <MountFromAbove key={mount.id} {...{ mount, drawn, scale }} />
        ))}
        <text x={MARGIN} y={scale.z(0) + 26} className="caps" fontSize={12} fill="var(--soft)">
          FROM THE LEFT SIDE
        </text>
        <Towers {...{ drawn, scale }} />
      </svg>
    </div>
  );
}

/** Width of a beam's number with the air it needs, sheet units. */
const NUMBER_WIDTH = 18;

/** Which of some beams, in their order along the bench, have their numbers a line lower: those too near to one that has not. */
function lowered(places: readonly number[]): boolean[] {
  let last = -Infinity;
  return places.map((x) => {
    const low = x - last < NUMBER_WIDTH;
    if (!low) last = x;
    return low;
  });
}

function Rails({ version, scale }: { version: BenchVersion; scale: Scale }) {
  if (!hasBeams(version)) return null;
  const holes = Array.from({ length: lastHole(version) + 1 }, (_, hole) => hole);
  const [near, far] = [-0.3 * version.span, 0.3 * version.span];
  return (
    <g stroke="var(--rule)" fill="none" aria-hidden>
      {[near, far].map((y) => (
        <rect key={y} x={scale.x(0)} y={scale.y(y) - 4} width={version.rails * scale.mm} height={8} />
      ))}
      {holes.map((hole) => (
        <g key={hole}>
          <circle cx={scale.x(holeAt(version, hole))} cy={scale.y(far)} r={1.4} />
          {hole % 5 === 4 ? (
            <text
              x={scale.x(holeAt(version, hole))}
              y={scale.y(far) - 8}
              fontSize={11}
              textAnchor="middle"
              stroke="none"
              fill="var(--soft)"
            >
              {hole + 1}
            </text>
          ) : null}
        </g>
      ))}
    </g>
  );
}

function ShellLines({ drawn: { page, placement }, scale }: { drawn: Drawn; scale: Scale }) {
  return (
    <g stroke="var(--ink)" strokeWidth={1} opacity={0.45} aria-hidden>
      {page.lines.map((line, i) => {
        const [a, b] = line.map((at) => place(placement, position<'chart'>(at))) as unknown as [Vector, Vector];
        return (
          <g key={i}>
            <line x1={scale.x(a[0])} y1={scale.y(a[1])} x2={scale.x(b[0])} y2={scale.y(b[1])} />
            <line x1={scale.x(a[0])} y1={scale.z(a[2])} x2={scale.x(b[0])} y2={scale.z(b[2])} />
          </g>
        );
      })}
    </g>
  );
}

interface BeamProps extends Pick<BenchPlanProps, 'onBeam'> {
  readonly hole: number;
  readonly on: readonly BuiltMount[];
  readonly scale: Scale;
  readonly version: BenchVersion;
  /** Its number stands a line lower. */
  readonly lower: boolean;
}

/** A beam: dragged along the rails, or moved by the arrow keys, hole by hole. */
function Beam({ hole, on, scale, version, lower, onBeam }: BeamProps) {
  const dragged = useRef<number>(undefined);
  const ids = on.map(({ id }) => id);
  const last = lastHole(version);
  const within = (each: number) => Math.max(0, Math.min(last, each));
  const holeUnder = (event: React.PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * WIDTH;
    return within(Math.round(((x - scale.x(0)) / scale.mm - version.firstHole) / version.pitch));
  };
  const width = Math.max(10, version.beamWidth * scale.mm);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Beam at hole ${hole + 1}`}
      aria-valuemin={1}
      aria-valuemax={last + 1}
      aria-valuenow={hole + 1}
      className="cursor-ew-resize touch-none outline-offset-2"
      onKeyDown={(event) => {
        const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (step === undefined) return;
        event.preventDefault();
        onBeam(ids, within(hole + step), true);
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        dragged.current = hole;
      }}
      onPointerMove={(event) => {
        if (dragged.current === undefined) return;
        const under = holeUnder(event);
        if (under !== dragged.current) onBeam(ids, (dragged.current = under), false);
      }}
      onPointerUp={() => {
        if (dragged.current !== undefined && dragged.current !== hole) onBeam(ids, dragged.current, true);
        else if (dragged.current !== undefined) onBeam(ids, hole, true);
        dragged.current = undefined;
      }}
    >
      <rect
        x={scale.x(holeAt(version, hole)) - width / 2}
        y={scale.y(version.span / 2)}
        width={width}
        height={version.span * scale.mm}
        fill="var(--faint)"
        stroke="var(--ink)"
      />
      <text
        x={scale.x(holeAt(version, hole))}
        y={scale.y(-version.span / 2) + (lower ? 41 : 28)}
        fontSize={12}
        textAnchor="middle"
        fill="var(--ink)"
      >
        {hole + 1}
      </text>
    </g>
  );
}

function Weight({ drawn: { weight, placement }, scale }: { drawn: Drawn; scale: Scale }) {
  const centre = place(placement, position<'chart'>(weight.centre));
  const [x, y] = [scale.x(centre[0]), scale.y(centre[1])];
  return (
    <g stroke="var(--ink)" fill="none" aria-hidden>
      <path d={`M${x - 9} ${y}h18M${x} ${y - 9}v18`} />
      <circle cx={x} cy={y} r={6} />
      <text x={x + 11} y={y + 16} fontSize={12} stroke="none" fill="var(--ink)">
        {Math.round(weight.kilograms)} kg
      </text>
    </g>
  );
}

/** Points the shell could stand on: a ring where nothing speaks against it, a cross where something does. */
function Points({ drawn, scale, onPoint }: { drawn: Drawn; scale: Scale } & Pick<BenchPlanProps, 'onPoint'>) {
  const { page, placement } = drawn;
  const labels = useMemo(() => {
    const { pointOf, built } = drawn;
    const taken = new Set(pointOf.values());
    const free = page.points.filter(({ id }) => !taken.has(id));
    const requests = free.map(({ id, code, at }) => {
      const stands = place(placement, position<'chart'>(at));
      return { id, at: [scale.x(stands[0]), scale.y(stands[1])] as const, text: code, weight: 0 };
    });
    const view = { x: 0, y: MARGIN, width: WIDTH, height: scale.z(0) - MARGIN };
    const side = sideOf(drawn.version, scale);
    const written = built.mounts.flatMap((mount) => [
      { x: scale.x(mount.x) - side / 2, y: scale.y(mount.side) - side / 2, width: side, height: side },
      ...wordsOf(mount, drawn, scale).map(boxOf),
    ]);
    return placeLabels(requests, { line: 12, character: 7 }, 8, view, written);
  }, [drawn, page, placement, scale]);
  return (
    <g>
      {page.points.map(({ id, code, at, against }) => {
        const stands = place(placement, position<'chart'>(at));
        const [x, y] = [scale.x(stands[0]), scale.y(stands[1])];
        return (
          <g key={id} onClick={() => onPoint(id)} className="cursor-pointer" aria-hidden>
            <title>{code}</title>
            <circle cx={x} cy={y} r={12} fill="transparent" />
            {against.length > 0 ? (
              <path d={`M${x - 4} ${y - 4}l8 8M${x + 4} ${y - 4}l-8 8`} stroke="var(--minus)" strokeWidth={1.6} />
            ) : (
              <circle cx={x} cy={y} r={4} fill="var(--sheet)" stroke="var(--ink)" />
            )}
          </g>
        );
      })}
      {labels.map(({ id, text, x, y }) => (
        <text key={id} x={x} y={y} fontSize={11} fill="var(--soft)" pointerEvents="none" aria-hidden>
          {text}
        </text>
      ))}
    </g>
  );
}

/** A word on the plan, its middle and its foot. */
interface Word {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly strong: boolean;
}

/** What is written of a mount: its name outside, its load inside, above on the right-hand side, which is drawn upward. */
function wordsOf(mount: BuiltMount, { version, nameOf }: Drawn, scale: Scale): Word[] {
  const side = sideOf(version, scale);
  const [x, y] = [scale.x(mount.x), scale.y(mount.side)];
  const [over, under] = [y - side / 2 - 5, y + side / 2 + 13];
  const [outer, inner] = mount.side < 0 ? [under, over] : [over, under];
  const name = { text: nameOf(mount.id), x, y: outer, strong: true };
  if (mount.kilograms === undefined) return [name];
  return [name, { text: `${Math.round(mount.kilograms)} kg`, x, y: inner, strong: false }];
}

const boxOf = ({ text, x, y }: Word): Box => {
  const width = 7.5 * text.length;
  return { x: x - width / 2, y: y - 12, width, height: 15 };
};

const sideOf = ({ footprint }: BenchVersion, scale: Scale): number => Math.max(12, footprint * scale.mm);

function MountFromAbove({ mount, drawn, scale }: { mount: BuiltMount; drawn: Drawn; scale: Scale }) {
  const side = sideOf(drawn.version, scale);
  const [x, y] = [scale.x(mount.x), scale.y(mount.side)];
  const built = mount.headId !== undefined;
  return (
    <g pointerEvents="none" aria-hidden>
      <rect
        x={x - side / 2}
        y={y - side / 2}
        width={side}
        height={side}
        fill={built ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeDasharray={built ? undefined : '3 2'}
      />
      {wordsOf(mount, drawn, scale).map((word) => (
        <text
          key={word.text}
          x={word.x}
          y={word.y}
          fontSize={word.strong ? 13 : 12}
          fontWeight={word.strong ? 600 : undefined}
          textAnchor="middle"
          fill="var(--ink)"
        >
          {word.text}
        </text>
      ))}
    </g>
  );
}
