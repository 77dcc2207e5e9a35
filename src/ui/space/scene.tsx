'use client';

import { Html, Line, OrbitControls } from '@react-three/drei';
import { Canvas } from '@react-three/fiber';
import {
  createContext,
  useContext,
  useMemo,
  useRef,
  useState,
  type ComponentRef,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import type { SheetFigure, SheetPoint } from '@/core/report/drawing/points';
import { boundsOf } from '@/core/report/drawing/sheet';
import type { Vector } from '@/core/maths/geometry/vector';
import { coloursOf, inScene, type Colours } from './axes';
import { ShellInSpace } from './shell-in-space';
import { useFormat, usePreferences } from '../shell/preferences-context';

const TURN = Math.PI / 24;

/** What is drawn besides the marks: the shell as it is cut and braced. */
export interface Besides {
  /** What the picture is centred on, and where ends of struts are found, where fewer points are drawn. */
  readonly whole?: SheetFigure;
  /** Parts of the shell that are out. */
  readonly out?: ReadonlySet<string>;
  readonly struts?: readonly { readonly from: string; readonly to: string; readonly strong?: boolean }[];
  /** Pulls, from the metal to where their force comes from. */
  readonly pulls?: readonly (readonly [Vector, Vector])[];
  /** Members where they would stand. */
  readonly ghost?: readonly (readonly [Vector, Vector])[];
}

const NOTHING: Besides = {};

/** What labels lie in. They are given it: left to find it they move once the scene is bound, and a scene left at once fails. */
const LabelsContext = createContext<RefObject<HTMLDivElement | null>>({ current: null });

const cameraAt = ([x, y, z]: Vector, size: number) => ({
  position: [x + size * 0.86, y + size * 0.56, z + size * 0.86] as const,
  ...{ fov: 35, near: 0.05, far: 60 },
});

/** The frame of the shell with its marks and exaggerated movements; never seen from below the floor. */
export function Scene({
  figure,
  factor,
  selected,
  onSelect,
  besides = NOTHING,
}: {
  figure: SheetFigure;
  factor: number;
  selected?: string;
  onSelect: (code: string) => void;
  besides?: Besides;
}) {
  const { whole = figure, out, struts = [], ghost = [], pulls = [] } = besides;
  const { preferences } = usePreferences();
  const colours = useMemo(() => coloursOf(preferences.sheet), [preferences.sheet]);
  const controls = useRef<ComponentRef<typeof OrbitControls>>(null);
  const labels = useRef<HTMLDivElement>(null);
  const { middle, size } = useMemo(() => {
    const { min, max } = boundsOf(whole.points.map(({ position }) => position));
    return {
      // The near end of the floor fills the foot of the picture: looked at somewhat lower, the shell stands in its middle.
      middle: inScene([(min[0] + max[0]) / 2 + 120, (min[1] + max[1]) / 2, min[2] + (max[2] - min[2]) / 4]),
      size: Math.max(1, (max[0] - min[0]) / 1000),
    };
  }, [whole]);
  const turn = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-TURN, 0], ArrowRight: [TURN, 0], ArrowUp: [0, -TURN], ArrowDown: [0, TURN] }[event.key];
    const orbit = controls.current;
    if (!by || !orbit) return;
    event.preventDefault();
    orbit.setAzimuthalAngle(orbit.getAzimuthalAngle() + by[0]!);
    orbit.setPolarAngle(orbit.getPolarAngle() + by[1]!);
    orbit.update();
  };
  return (
    <div
      role="application"
      tabIndex={0}
      aria-label="The shell in space; arrow keys turn it"
      onKeyDown={turn}
      ref={labels}
      className="relative h-[62dvh] min-h-96 border border-rule bg-sheet"
      data-scene={figure.points.length}
    >
      <Canvas flat frameloop="demand" camera={cameraAt(middle, size)}>
        <LabelsContext.Provider value={labels}>
          <OrbitControls
            ref={controls}
            makeDefault
            target={middle}
            enablePan={false}
            minDistance={size * 0.25}
            maxDistance={size * 2.2}
            minPolarAngle={0.05}
            maxPolarAngle={Math.PI / 2}
          />
          <Floor middle={middle} size={size} colours={colours} />
          {figure.shell ? <ShellInSpace shell={figure.shell} {...{ colours, out }} /> : null}
          <Struts {...{ struts, whole, colours }} />
          {pulls.map(([from, to], i) => (
            <group key={i}>
              <Line points={[inScene(from), inScene(to)]} color={colours.ink} lineWidth={4.5} />
              <mesh position={inScene(to)}>
                <boxGeometry args={[0.07, 0.07, 0.07]} />
                <meshBasicMaterial color={colours.ink} />
              </mesh>
            </group>
          ))}
          {ghost.map(([from, to], i) => (
            <Line
              key={i}
              points={[inScene(from), inScene(to)]}
              color={colours.plus}
              lineWidth={1.4}
              dashed
              dashSize={0.05}
              gapSize={0.03}
            />
          ))}
          {(figure.shell ? [] : figure.lines).map(([from, to], i) => (
            <Line key={i} points={[inScene(from), inScene(to)]} color={colours.rule} lineWidth={1.6} />
          ))}
          {figure.points.map((point) => (
            <PointInSpace
              key={point.id}
              point={point}
              factor={factor}
              lit={point.id === selected}
              colours={colours}
              size={size}
              onSelect={() => onSelect(point.code)}
            />
          ))}
        </LabelsContext.Provider>
      </Canvas>
    </div>
  );
}

/** Braces: fitted ones stout, planned ones dashed. */
function Struts({
  struts,
  whole,
  colours,
}: {
  struts: readonly { readonly from: string; readonly to: string; readonly strong?: boolean }[];
  whole: SheetFigure;
  colours: Colours;
}) {
  const at = new Map(whole.points.map(({ id, position }) => [id, position]));
  return struts.map(({ from, to, strong }) => {
    const [a, b] = [at.get(from), at.get(to)];
    if (!a || !b) return null;
    return (
      <Line
        key={`${from} ${to}`}
        points={[inScene(a), inScene(b)]}
        color={colours.ink}
        lineWidth={strong ? 4.5 : 2.6}
        dashed={!strong}
        dashSize={0.08}
        gapSize={0.04}
      />
    );
  });
}

/** The datum plane as a thin grid with the centre line. */
function Floor({
  middle,
  size,
  colours,
}: {
  middle: readonly [number, number, number];
  size: number;
  colours: Colours;
}) {
  const half = size * 0.65;
  return (
    <>
      <gridHelper
        args={[half * 2, 12, colours.rule, colours.rule]}
        position={[middle[0], 0, 0]}
        material-opacity={0.35}
        material-transparent
      />
      <Line
        points={[
          [middle[0] - half, 0, 0],
          [middle[0] + half, 0, 0],
        ]}
        color={colours.soft}
        lineWidth={1}
        dashed
        dashSize={0.12}
        gapSize={0.04}
      />
      <group position={[middle[0] - size * 0.58, 0, middle[2]]}>
        <Label text="◄ FRONT" lit={false} />
      </group>
    </>
  );
}

/**
 * A mark by its shape, as on the sheet: hollow inside, solid outside, half-filled undecided, square held, small
 * when not measured; and the whisker of its movement.
 */
function PointInSpace({
  point,
  factor,
  lit,
  colours,
  size,
  onSelect,
}: {
  point: SheetPoint;
  factor: number;
  lit: boolean;
  colours: Colours;
  size: number;
  onSelect: () => void;
}) {
  const [hovered, hover] = useState(false);
  const format = useFormat();
  const at = inScene(point.position);
  const moved =
    point.movement && point.verdict !== 'inside'
      ? inScene(point.position.map((value, i) => value + point.movement![i]! * factor) as unknown as Vector)
      : undefined;
  const r = size * (point.verdict || point.control ? 0.0075 : 0.004);
  const solid = point.verdict === 'outside';
  const tone = point.movement && largestTone(point) === 'plus' ? colours.plus : colours.minus;
  return (
    <group
      position={at}
      onPointerOver={() => hover(true)}
      onPointerOut={() => hover(false)}
      onClick={(event) => {
        event.stopPropagation();
        onSelect();
      }}
    >
      <mesh>
        {point.control ? <boxGeometry args={[2 * r, 2 * r, 2 * r]} /> : <sphereGeometry args={[r, 20, 14]} />}
        <meshBasicMaterial color={solid ? colours.ink : colours.sheet} />
      </mesh>
      <mesh scale={1.16}>
        {point.control ? <boxGeometry args={[2 * r, 2 * r, 2 * r]} /> : <sphereGeometry args={[r, 20, 14]} />}
        <meshBasicMaterial color={colours.ink} side={1} />
      </mesh>
      {point.verdict === 'undecided' ? (
        <mesh>
          <sphereGeometry args={[r * 1.02, 20, 14, 0, Math.PI * 2, Math.PI / 2, Math.PI / 2]} />
          <meshBasicMaterial color={colours.ink} />
        </mesh>
      ) : null}
      {lit ? (
        <mesh>
          <sphereGeometry args={[r * 2.2, 20, 14]} />
          <meshBasicMaterial color={colours.lit} transparent opacity={0.6} depthWrite={false} />
        </mesh>
      ) : null}
      <mesh visible={false}>
        <sphereGeometry args={[r * 3.5, 8, 6]} />
      </mesh>
      {moved ? (
        <Line
          points={[[0, 0, 0], moved.map((value, i) => value - at[i]!) as [number, number, number]]}
          color={tone}
          lineWidth={solid ? 3.4 : 2}
        />
      ) : null}
      {lit || solid || hovered ? (
        <Label
          text={lit || hovered ? [point.code, format.name(point.name)].filter(Boolean).join(' ') : point.code}
          lit={lit}
        />
      ) : null}
    </group>
  );
}

/** A point's code beside its mark, on paper so that it can be read across lines; the lit one above the others. */
function Label({ text, lit }: { text: string; lit: boolean }) {
  const labels = useContext(LabelsContext);
  return (
    <Html
      portal={labels as RefObject<HTMLDivElement>}
      className="pointer-events-none font-cond text-ink"
      zIndexRange={lit ? [2, 2] : [1, 0]}
    >
      <span
        className={`block translate-x-2.5 -translate-y-1/2 px-0.5 text-sm leading-4 whitespace-nowrap ${lit ? 'bg-lit font-semibold' : 'bg-sheet/75'}`}
      >
        {text}
      </span>
    </Html>
  );
}

function largestTone({ movement, position }: SheetPoint): 'plus' | 'minus' {
  const outward = position[1] < 0 ? -1 : 1;
  const parts = [movement![0], movement![1] * outward, movement![2]];
  const largest = parts.reduce((best, value) => (Math.abs(value) > Math.abs(best) ? value : best), 0);
  return largest >= 0 ? 'plus' : 'minus';
}
