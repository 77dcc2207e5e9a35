/** A bench as it stands in the shop. Bench axes: X along the rails, Y across from their middle, Z up from the rails' top; mm. */
export interface Bench {
  /** Length of the rails. */
  readonly rails: number;
  /** Distance of two holes along the rails, and where the first stands. */
  readonly pitch: number;
  readonly firstHole: number;
  /** How far a beam reaches across, end to end. */
  readonly span: number;
  /** How wide a beam is along the rails. */
  readonly beamWidth: number;
  /** From the rails' top to a beam's top face. */
  readonly beamTop: number;
  /** Beams there are. */
  readonly beams: number;
  /** How far fore and aft of its beam a head can stand. */
  readonly reach: number;
  /** Room a tower needs along its beam. */
  readonly footprint: number;
}

/** A mount where the shell would have it. Bench axes, mm. */
export interface BenchPlace {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** Where a mount stands on the bench: hole of its beam, how far fore (−) or aft (+) of the beam's middle, and across. */
export interface OnBeam {
  readonly id: string;
  readonly hole: number;
  readonly offset: number;
  readonly side: number;
  /** From the beam's top face to the point, mm. */
  readonly height: number;
}

export type BenchFault =
  /** Beyond the first or last hole: so many mm too far forward (−) or back (+). */
  | { readonly kind: 'beyondRails'; readonly id: string; readonly by: number }
  | { readonly kind: 'beyondBeam'; readonly id: string; readonly by: number }
  /** The point stands lower than the beam's top. */
  | { readonly kind: 'underBeam'; readonly id: string; readonly by: number }
  /** Two towers in each other's way on one beam. */
  | { readonly kind: 'collide'; readonly ids: readonly [string, string]; readonly by: number }
  /** Two beams in each other's way. */
  | { readonly kind: 'beamsTooNear'; readonly holes: readonly [number, number]; readonly ids: readonly string[] }
  | { readonly kind: 'beamsShort'; readonly wanted: number; readonly there: number };

export interface Laid {
  readonly mounts: readonly OnBeam[];
  readonly faults: readonly BenchFault[];
}

export const lastHole = ({ rails, pitch, firstHole }: Bench): number =>
  Math.max(0, Math.floor((rails - firstHole) / pitch + 1e-9));

/** Where a hole stands along the rails, mm; the holes are counted from 0. */
export const holeAt = ({ pitch, firstHole }: Bench, hole: number): number => firstHole + hole * pitch;

/**
 * Lays beams under the mounts: as few as can be, each mount within the reach of its head of some beam's middle. The holes
 * that would do for a mount are an interval; taken by their ends, the last hole of the first interval not yet served is
 * the best for it and for all that share it (stabbing intervals, e.g. Cormen et al., Introduction to Algorithms, §16).
 *
 * @param held holes chosen by hand, for the mounts they would serve
 */
export function layBeams(
  bench: Bench,
  places: readonly BenchPlace[],
  held: ReadonlyMap<string, number> = new Map(),
): Laid {
  const faults: BenchFault[] = [];
  const last = lastHole(bench);
  const within = places.flatMap((place) => {
    const from = Math.max(0, Math.ceil((place.x - bench.reach - bench.firstHole) / bench.pitch - 1e-9));
    const to = Math.min(last, Math.floor((place.x + bench.reach - bench.firstHole) / bench.pitch + 1e-9));
    const over = Math.abs(place.y) + bench.footprint / 2 - bench.span / 2;
    if (over > 0) faults.push({ kind: 'beyondBeam', id: place.id, by: over });
    if (place.z < bench.beamTop) faults.push({ kind: 'underBeam', id: place.id, by: bench.beamTop - place.z });
    if (from > to) {
      const ends = [holeAt(bench, 0) - bench.reach, holeAt(bench, last) + bench.reach] as const;
      const nearest = place.x < ends[0] ? ends[0] : place.x > ends[1] ? ends[1] : place.x;
      faults.push({ kind: 'beyondRails', id: place.id, by: place.x - nearest });
      return [];
    }
    return [{ place, from, to }];
  });
  const holes = new Map<string, number>();
  for (const { place } of within) if (held.has(place.id)) holes.set(place.id, held.get(place.id)!);
  const laid = [...new Set(holes.values())];
  for (const { place, from, to } of [...within].sort((a, b) => a.to - b.to)) {
    if (holes.has(place.id)) continue;
    const shared = laid.filter((hole) => hole >= from && hole <= to);
    const ideal = (place.x - bench.firstHole) / bench.pitch;
    const hole = shared.sort((a, b) => Math.abs(a - ideal) - Math.abs(b - ideal))[0] ?? to;
    if (!laid.includes(hole)) laid.push(hole);
    holes.set(place.id, hole);
  }
  centre(bench, within, holes, held);
  const mounts = places.flatMap((place): OnBeam[] => {
    const hole = holes.get(place.id);
    if (hole === undefined) return [];
    return [
      { id: place.id, hole, offset: place.x - holeAt(bench, hole), side: place.y, height: place.z - bench.beamTop },
    ];
  });
  return { mounts, faults: [...faults, ...conflicts(bench, mounts)] };
}

interface Within {
  readonly place: BenchPlace;
  readonly from: number;
  readonly to: number;
}

/** Moves each beam, where its mounts leave it room, to the hole nearest the middle of them. */
function centre(
  bench: Bench,
  within: readonly Within[],
  holes: Map<string, number>,
  held: ReadonlyMap<string, number>,
) {
  for (const hole of new Set(holes.values())) {
    const on = within.filter(({ place }) => holes.get(place.id) === hole);
    if (on.length === 0 || on.some(({ place }) => held.has(place.id))) continue;
    const [from, to] = [Math.max(...on.map((each) => each.from)), Math.min(...on.map((each) => each.to))];
    const mean = on.reduce((sum, { place }) => sum + place.x, 0) / on.length;
    const best = Math.min(to, Math.max(from, Math.round((mean - bench.firstHole) / bench.pitch)));
    const taken = [...holes].some(([id, other]) => other === best && !on.some(({ place }) => place.id === id));
    if (!taken) for (const { place } of on) holes.set(place.id, best);
  }
}

function conflicts(bench: Bench, mounts: readonly OnBeam[]): BenchFault[] {
  const faults: BenchFault[] = [];
  const holes = [...new Set(mounts.map(({ hole }) => hole))].sort((a, b) => a - b);
  const on = (hole: number) => mounts.filter((mount) => mount.hole === hole);
  for (const hole of holes) {
    const across = on(hole).sort((a, b) => a.side - b.side);
    across.slice(1).forEach((mount, i) => {
      const apart = mount.side - across[i]!.side;
      if (apart < bench.footprint)
        faults.push({ kind: 'collide', ids: [across[i]!.id, mount.id], by: bench.footprint - apart });
    });
  }
  holes.slice(1).forEach((hole, i) => {
    const before = holes[i]!;
    if ((hole - before) * bench.pitch < bench.beamWidth)
      faults.push({
        kind: 'beamsTooNear',
        holes: [before, hole],
        ids: [...on(before), ...on(hole)].map(({ id }) => id),
      });
  });
  if (holes.length > bench.beams) faults.push({ kind: 'beamsShort', wanted: holes.length, there: bench.beams });
  return faults;
}
