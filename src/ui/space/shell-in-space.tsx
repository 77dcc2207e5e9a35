import { Line } from '@react-three/drei';
import { useMemo } from 'react';
import { BufferGeometry, DoubleSide, Float32BufferAttribute } from 'three';
import type { Face, ShellDrawing, Wheel } from '@/core/report/drawing/shell';
import { inScene, type Colours } from './axes';

/** The shell in space: members as wide as they are, sheets and what is bolted on as faint faces, wheels. */
export function ShellInSpace({
  shell,
  colours,
  out,
}: {
  shell: ShellDrawing;
  colours: Colours;
  out?: ReadonlySet<string>;
}) {
  return (
    <>
      <Faces faces={shell.skin} colour={colours.rule} opacity={0.16} />
      <Faces faces={shell.faces.filter(({ code }) => !out?.has(code))} colour={colours.soft} opacity={0.16} />
      {[...shell.openings, ...shell.skin].map(({ name, corners }, i) => (
        <Line
          key={`${name} ${i}`}
          points={[...corners, corners[0]!].map(inScene)}
          color={colours.rule}
          lineWidth={1.1}
        />
      ))}
      {shell.members.map(({ code, from, to, width }) => (
        <Line
          key={code}
          points={[inScene(from), inScene(to)]}
          color={out?.has(code) ? colours.minus : colours.rule}
          lineWidth={out?.has(code) ? 1 : Math.max(2, width / 22)}
          dashed={out?.has(code) ?? false}
          dashSize={0.04}
          gapSize={0.03}
        />
      ))}
      {shell.wheels.map((wheel, i) => (
        <WheelInSpace key={i} wheel={wheel} colours={colours} />
      ))}
    </>
  );
}

/** Faces as fans of triangles, all in one piece. */
function Faces({ faces, colour, opacity }: { faces: readonly Face[]; colour: string; opacity: number }) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    const corners = faces.flatMap(({ corners: [first, ...rest] }) =>
      rest.slice(1).flatMap((corner, i) => [first!, rest[i]!, corner].flatMap(inScene)),
    );
    made.setAttribute('position', new Float32BufferAttribute(corners, 3));
    return made;
  }, [faces]);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial color={colour} transparent opacity={opacity} side={DoubleSide} depthWrite={false} />
    </mesh>
  );
}

function WheelInSpace({ wheel: { at, radius, width }, colours }: { wheel: Wheel; colours: Colours }) {
  return (
    <mesh position={inScene(at)}>
      <torusGeometry args={[(radius - width * 0.3) / 1000, (width * 0.3) / 1000, 10, 28]} />
      <meshBasicMaterial color={colours.soft} transparent opacity={0.35} depthWrite={false} />
    </mesh>
  );
}
