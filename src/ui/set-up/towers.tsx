import { hasBeams } from '@/core/plan/set-up/build';
import { WIDTH, type Drawn, type Scale } from './scale';

/** The stacks from the left side: every piece as high as it is, the head on top, the screw as far out as it is turned. */
export function Towers({ drawn, scale }: { drawn: Drawn; scale: Scale }) {
  const { version, built, items, nameOf } = drawn;
  const byId = new Map(items.map((item) => [item.id, item]));
  const beams = hasBeams(version);
  return (
    <g aria-hidden>
      {beams ? (
        <rect
          x={scale.x(0)}
          y={scale.z(0)}
          width={version.rails * scale.mm}
          height={6}
          fill="var(--faint)"
          stroke="var(--rule)"
        />
      ) : (
        <line x1={0} x2={WIDTH} y1={scale.z(0)} y2={scale.z(0)} stroke="var(--rule)" />
      )}
      {built.mounts.map((mount) => {
        const x = scale.x(mount.x);
        const wide = Math.max(9, version.footprint * scale.mm * 0.7);
        const parts = (mount.pieceIds ?? []).map((id) => byId.get(id)!.height);
        const head = mount.headId ? byId.get(mount.headId)!.height : 0;
        let z = version.beamTop;
        return (
          <g key={mount.id} stroke="var(--ink)">
            {beams ? (
              <rect
                x={x - wide}
                y={scale.z(version.beamTop)}
                width={2 * wide}
                height={version.beamTop * scale.mm}
                fill="var(--faint)"
              />
            ) : null}
            {parts.map((height, i) => {
              z += height;
              return (
                <rect
                  key={i}
                  x={x - wide / 2}
                  y={scale.z(z)}
                  width={wide}
                  height={height * scale.mm}
                  fill="var(--sheet)"
                />
              );
            })}
            {mount.headId ? (
              <path
                d={`M${x - wide / 2} ${scale.z(z)}h${wide}L${x + 2} ${scale.z(z + head)}v${-(mount.lift ?? 0) * scale.mm}h-4v${(mount.lift ?? 0) * scale.mm}z`}
                fill="var(--ink)"
              />
            ) : (
              <line
                x1={x}
                x2={x}
                y1={scale.z(version.beamTop)}
                y2={scale.z(version.beamTop + mount.height)}
                strokeDasharray="3 3"
              />
            )}
            {mount.side < 0 ? (
              <text
                x={x}
                y={scale.z(version.beamTop + mount.height) - 5}
                fontSize={11}
                textAnchor="middle"
                stroke="none"
                fill="var(--ink)"
              >
                {nameOf(mount.id)}
              </text>
            ) : null}
          </g>
        );
      })}
    </g>
  );
}
