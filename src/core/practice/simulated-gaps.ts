import { dot, type Vector } from '../maths/geometry/vector';
import { seeded, type Random } from '../maths/random/seeded';
import type { CalledPanel } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { stationKey } from '../shell/references/chosen';
import { frameOf, inSpace, placeOnEdge, shareOf } from '../plan/panels/panel-frame';

/** A gap and a flush as a caliper reads them, mm. */
export interface SimulatedGap {
  readonly gap: number;
  readonly flush: number;
}

/** How far a hidden panel hangs off, mm, and how far it is turned, rad: one standard deviation. */
const SHIFTED = 1.2;
const TURNED = 0.0015;
/** What a gap is where nothing says what it should be, mm. */
const USUAL: SimulatedGap = { gap: 5, flush: 0 };

/**
 * Reads gap and flush of a station of a hidden car, whose panels each hang a little off, the same every time: what is wanted,
 * changed by how the panels on either side of the seam stand, with normal noise.
 *
 * @param sd of the instrument, mm
 * @returns undefined where there is no such station
 */
export function simulateGap(job: Job, stationId: string, sd: number, random: Random): SimulatedGap | undefined {
  const station = job.rows.seamStations.find(({ id }) => id === stationId);
  if (!station) return undefined;
  const own = job.rows.seamStations.filter(({ seamId }) => seamId === station.seamId);
  const i = own.toSorted((a, b) => a.number - b.number).findIndex(({ id }) => id === stationId);
  const wanted = (quantity: keyof SimulatedGap) =>
    job.references.stations.get(stationKey(stationId, quantity))?.row.value ?? USUAL[quantity];
  const moves = job.rows.panelSeams.flatMap((of): SimulatedGap[] => {
    const panel = of.seamId === station.seamId && job.hungPanels.find(({ id }) => id === of.hungId);
    const place = panel && placeOnEdge(panel, of.edge, shareOf(of, i, own.length));
    if (!panel || !place) return [];
    const frame = frameOf(panel);
    const by = hiddenMove(panel, inSpace(frame, place.x, place.y));
    return [{ gap: -dot(by, inSpace(frame, ...place.normal)), flush: dot(by, frame.out) }];
  });
  const read = (quantity: keyof SimulatedGap) => {
    const exact = moves.reduce((sum, each) => sum + each[quantity], wanted(quantity));
    return Math.round((exact + sd * random.normal()) * 10) / 10;
  };
  return { gap: read('gap'), flush: read('flush') };
}

/** How a place of a hidden panel stands off, chart axes, mm: its own shift and turn, told by its identity alone. */
function hiddenMove({ id }: CalledPanel, at: Vector): Vector {
  const random = seeded(Number.parseInt(id.slice(0, 8), 16));
  const vector = (size: number): Vector => [size * random.normal(), size * random.normal(), size * random.normal()];
  const [t, w] = [vector(SHIFTED), vector(TURNED)];
  return [t[0] + w[1] * at[2] - w[2] * at[1], t[1] + w[2] * at[0] - w[0] * at[2], t[2] + w[0] * at[1] - w[1] * at[0]];
}
