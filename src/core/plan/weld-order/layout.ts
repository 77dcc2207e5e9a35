import type { Joint, WeldSeam, WeldStretch } from '../../shell/job/entities';

/** One plug, spot, tack or stitch of a seam, as it is marked out. */
export interface LaidOut {
  readonly number: number;
  /** Its middle from the first end of the seam, mm. */
  readonly along: number;
  /** How much of the seam it takes: a stitch its length, a plug its hole, mm. */
  readonly size: number;
  /** Sheets that meet there. */
  readonly sheets: 2 | 3;
  readonly unreachable: boolean;
  /** Nothing lies behind it. */
  readonly overVoid: boolean;
}

/** What speaks against a layout, or is to be done for it; figures in mm. */
export type LayoutFault =
  | { readonly kind: 'noThickness' | 'noProcess' }
  | { readonly kind: 'soft'; readonly what: 'brass' | 'lead'; readonly from: number; readonly to: number }
  | { readonly kind: 'flangeNarrow'; readonly flange: number; readonly least: number }
  | { readonly kind: 'tooNear'; readonly pitch: number; readonly least: number };
export type LayoutNote =
  | { readonly kind: 'scrapePrimer' | 'peelFirst' | 'bondCold' }
  | { readonly kind: 'backing' | 'unreachable'; readonly numbers: readonly number[] }
  | { readonly kind: 'gap'; readonly gap: number }
  | { readonly kind: 'more'; readonly count: number; readonly factory: number };

export interface WeldLayout {
  readonly places: readonly LaidOut[];
  /** Where a run stops anyhow: corners and where sheets begin or end, from the first end, mm. */
  readonly stops: readonly number[];
  readonly faults: readonly LayoutFault[];
  readonly notes: readonly LayoutNote[];
  readonly minutes: number;
  /** Wire, g. */
  readonly wire: number;
}

/** Holes for plugs by the thickness of the sheet that is drilled: skins, structural sheet, above; mm. */
const HOLES = [
  { upTo: 1, hole: 6 },
  { upTo: 1.5, hole: 8 },
  { upTo: Infinity, hole: 10 },
] as const;
/** A shop's spot gun is weaker than the factory's: so many more spots. */
const MORE_SPOTS = 1.3;
/** Between plugs where nobody counted the factory's, mm. */
const PLUG_PITCH = 40;
/** A tack every so many millimetres of a butt joint: thin sheet, thicker sheet. */
const TACKS = { thin: 30, thick: 40, upTo: 1 } as const;
/** From the end of a seam or a corner to the first plug, and from a plug to the next at least: so many holes. */
const FROM_END = 1.5;
const APART = 3;
/** A hole is no nearer to the edge than its own width: the flange is two wide at least. */
const FLANGE = 2;
/** Minutes at a place besides the arc: drilled, clamped and dressed; and for a scrap welded and peeled. */
const AT_A_PLACE = 1.8;
const PEEL = 15;
/** g/mm³, with what spatters off. */
const WIRE = 7.85e-3 * 1.1;
/** A plug's crown over its hole, mm. */
const CROWN = 1;

export const isSpotted = ({ kind }: Pick<WeldSeam, 'kind'>): boolean => kind === 'plug' || kind === 'spot';

/** The hole in a sheet, mm; one size up where it goes through to a third. */
export function holeFor(thickness: number, sheets: 2 | 3): number {
  const size = HOLES.findIndex(({ upTo }) => thickness <= upTo);
  return HOLES[Math.min(size + sheets - 2, HOLES.length - 1)]!.hole;
}

/**
 * Marks a seam out. Plugs and spots are never fewer than the factory's (a shop's gun needs 30 % more), in stretches between
 * corners, ends and changes of sheets, each stretch by its length; holes by the thickness of the thinner sheet. A butt joint is
 * tacked and then closed from tack to tack. Nothing is laid over brass or lead: that is a fault until it is off.
 */
export function layOut(
  seam: WeldSeam,
  joint: Pick<Joint, 'thicknessA' | 'thicknessB' | 'factorySpots'>,
  stretches: readonly WeldStretch[],
): WeldLayout {
  const faults: LayoutFault[] = [];
  const notes: LayoutNote[] = [];
  const thin = Math.min(joint.thicknessA ?? Infinity, joint.thicknessB ?? Infinity);
  if (!Number.isFinite(thin)) faults.push({ kind: 'noThickness' });
  if (seam.process === null && seam.kind !== 'bond') faults.push({ kind: 'noProcess' });
  const t = Number.isFinite(thin) ? thin : 1;
  for (const { what, starts, ends } of stretches)
    if (what === 'brass' || what === 'lead') faults.push({ kind: 'soft', what, from: starts, to: ends });
  const parts = partsOf(seam, stretches);
  const stops = parts.slice(1).map(({ from }) => from);
  if (seam.kind === 'bond') {
    notes.push({ kind: 'bondCold' });
    return { places: [], stops, faults, notes, minutes: seam.clampedFor ?? 0, wire: 0 };
  }
  const at = (along: number, what: WeldStretch['what']) =>
    stretches.some((each) => each.what === what && along >= each.starts && along <= each.ends);
  const laid = isSpotted(seam) ? spots(seam, joint.factorySpots, parts, t) : stitches(seam, parts, t);
  const places = laid.map(({ along, size, sheets }, i): LaidOut => ({
    ...{ number: i + 1, along, size, sheets },
    unreachable: at(along, 'unreachable'),
    overVoid: at(along, 'void'),
  }));
  const numbers = (of: (place: LaidOut) => boolean) => places.flatMap((place) => (of(place) ? [place.number] : []));
  const [voids, far] = [numbers(({ overVoid }) => overVoid), numbers(({ unreachable }) => unreachable)];
  if (voids.length > 0) notes.push({ kind: 'backing', numbers: voids });
  if (far.length > 0) notes.push({ kind: 'unreachable', numbers: far });
  if (isSpotted(seam)) {
    const widest = Math.max(...places.map(({ size }) => size));
    if (seam.flange !== null && seam.flange < FLANGE * widest)
      faults.push({ kind: 'flangeNarrow', flange: seam.flange, least: FLANGE * widest });
    const near = places.flatMap(({ along, size }, i) => {
      const next = places[i + 1];
      return next && next.along - along < APART * size - 1e-9
        ? [{ pitch: next.along - along, least: APART * size }]
        : [];
    });
    const [worst] = near.toSorted((a, b) => a.pitch - b.pitch);
    if (worst) faults.push({ kind: 'tooNear', ...worst });
    if (seam.kind === 'plug') notes.push({ kind: 'scrapePrimer' });
    if (joint.factorySpots !== null && places.length > joint.factorySpots)
      notes.push({ kind: 'more', count: places.length, factory: joint.factorySpots });
  } else if (seam.kind === 'butt') notes.push({ kind: 'gap', gap: seam.process === 'mig' ? t : 0 });
  notes.push({ kind: 'peelFirst' });
  return { places, stops, faults, notes, ...costOf(seam, places, t) };
}

interface Part {
  readonly from: number;
  readonly to: number;
  readonly sheets: 2 | 3;
}

/** The seam from corner to corner and from one number of sheets to another, without what lies over brass or lead. */
function partsOf({ long }: WeldSeam, stretches: readonly WeldStretch[]): Part[] {
  const split = stretches.flatMap(({ what, starts, ends }) =>
    what === 'corner' ? [starts] : what === 'double' || what === 'brass' || what === 'lead' ? [starts, ends] : [],
  );
  const marks = [...new Set([0, ...split.filter((each) => each > 0 && each < long), long])].toSorted((a, b) => a - b);
  const inside = (middle: number, ...whats: readonly WeldStretch['what'][]) =>
    stretches.some(({ what, starts, ends }) => whats.includes(what) && middle > starts && middle < ends);
  return marks.slice(1).flatMap((to, i): Part[] => {
    const from = marks[i]!;
    const middle = (from + to) / 2;
    return inside(middle, 'brass', 'lead') ? [] : [{ from, to, sheets: inside(middle, 'double') ? 3 : 2 }];
  });
}

type Laid = Pick<LaidOut, 'along' | 'size' | 'sheets'>;

function spots(seam: WeldSeam, factory: number | null, parts: readonly Part[], thin: number): Laid[] {
  const room = parts.map((part) => {
    const size = holeFor(thin, part.sheets);
    const end = FROM_END * size;
    return { ...part, size, from: part.from + end, room: Math.max(0, part.to - part.from - 2 * end) };
  });
  const all = room.reduce((sum, each) => sum + each.room, 0);
  const wanted = Math.max(
    factory === null ? 0 : Math.ceil(factory * (seam.kind === 'spot' ? MORE_SPOTS : 1) - 1e-9),
    seam.pitch === null && factory !== null ? 0 : Math.floor(all / (seam.pitch ?? PLUG_PITCH)) + 1,
  );
  // Rounded up in every stretch: never fewer than are wanted.
  return room.flatMap(({ from, room: own, size, sheets }): Laid[] => {
    const count = Math.max(own > 0 ? 2 : 1, all > 0 ? Math.ceil((wanted * own) / all - 1e-9) : 1);
    return Array.from({ length: count }, (_, i) => ({
      along: count === 1 ? from + own / 2 : from + (own * i) / (count - 1),
      ...{ size, sheets },
    }));
  });
}

/** From tack to tack, each part closed by stitches that are as long as tacks are apart. */
function stitches(seam: WeldSeam, parts: readonly Part[], thin: number): Laid[] {
  const pitch = seam.pitch ?? (thin <= TACKS.upTo ? TACKS.thin : TACKS.thick);
  return parts.flatMap(({ from, to, sheets }): Laid[] => {
    const count = Math.max(1, Math.round((to - from) / pitch));
    const size = (to - from) / count;
    return Array.from({ length: count }, (_, i) => ({ along: from + (i + 0.5) * size, size, sheets }));
  });
}

/** What the arc puts into one place, J, and how long it burns, s. */
export interface Arc {
  readonly energy: number;
  readonly seconds: number;
}

/** Power that reaches the sheet, W, and how fast a run goes, mm/s: usual settings for car sheet. */
const POWER = { mig: 1100, tig: 350, gas: 600, resistance: 4000 } as const;
const SPEED = { mig: 6, tig: 2, gas: 3, resistance: 1 } as const;
/** An arc fills so much of a plug, mm³/s. */
const FILLS = 40;
const SPOT_SECONDS = 0.25;

/** The heat of one place by its process and size. */
export function arcOf(seam: WeldSeam, { size }: Pick<LaidOut, 'size'>, thin: number): Arc {
  const process = seam.process ?? 'mig';
  const seconds =
    seam.kind === 'spot'
      ? SPOT_SECONDS
      : seam.kind === 'plug'
        ? Math.max(1, plugVolume(size, thin) / FILLS)
        : size / SPEED[process];
  return { energy: POWER[process] * seconds, seconds };
}

const plugVolume = (hole: number, thin: number): number => (Math.PI / 4) * hole ** 2 * (thin + CROWN);

function costOf(seam: WeldSeam, places: readonly LaidOut[], thin: number): Pick<WeldLayout, 'minutes' | 'wire'> {
  const arcs = places.reduce((sum, place) => sum + arcOf(seam, place, thin).seconds, 0);
  const filled = places.reduce((sum, { size }) => {
    if (seam.kind === 'spot') return sum;
    return sum + (seam.kind === 'plug' ? plugVolume(size, thin) : size * (thin + CROWN) ** 2);
  }, 0);
  return { minutes: PEEL + places.length * AT_A_PLACE + arcs / 60, wire: filled * WIRE };
}
