import type { BodyType, Side } from '../job/entities';

/** A place on a bare shell that can be measured: a leg end, a post, a sill end, a hole, a corner of an opening. */
export interface BodyPlace {
  /** What its point is called unless somebody says otherwise. */
  readonly code: string;
  readonly name: string;
  readonly side: Side;
  /** Length rearward from the front legs' ends, width to the right, height over the floor's lowest holes; mm at this picture's size. */
  readonly at: readonly [x: number, y: number, z: number];
}

/** A bare shell as a picture: the places to measure, and the lines by which one recognises it. */
export interface BodyPicture {
  readonly type: BodyType;
  readonly name: string;
  /** The size it is drawn at, mm. */
  readonly size: BodySize;
  readonly places: readonly BodyPlace[];
  /** Members, from place to place by their codes, each of the kind that says how stout it is. */
  readonly members: readonly BodyMember[];
  /** Sheets that carry shear: floors, roof, bulkhead, sides. */
  readonly sheets: readonly BodySheet[];
  /** Where the front axle stands, and how large a wheel is, mm at this picture's size. */
  readonly wheels: { readonly frontAxle: number; readonly axleHeight: number; readonly radius: number };
  /** What is bolted to the shell and makes a car of it at a glance, drawn for orientation alone. */
  readonly skin: readonly BodySkin[];
  /** Openings by the codes of their corners, in order round. */
  readonly openings: readonly { readonly name: string; readonly corners: readonly string[] }[];
}

/** Kinds of members, each with the box that is usual for it: width × height × sheet, mm. */
export const MEMBER_BOXES = {
  leg: { width: 60, height: 90, wall: 1.4 },
  sill: { width: 90, height: 130, wall: 1.1 },
  post: { width: 70, height: 90, wall: 1 },
  rail: { width: 50, height: 60, wall: 0.9 },
  crossmember: { width: 80, height: 60, wall: 1.1 },
  tunnel: { width: 180, height: 140, wall: 0.9 },
  tower: { width: 100, height: 100, wall: 1.4 },
  flange: { width: 20, height: 20, wall: 0.9 },
  frame: { width: 60, height: 110, wall: 2.5 },
} as const;
export type MemberKind = keyof typeof MEMBER_BOXES;

export interface BodyMember {
  readonly from: string;
  readonly to: string;
  readonly kind: MemberKind;
}

export interface BodySheet {
  readonly name: string;
  readonly corners: readonly [string, string, string, string];
  /** mm */
  readonly thickness: number;
}

/** A face of sheet by the corners of its outline in order round, mm at the picture's size. */
export interface BodySkin {
  readonly name: string;
  readonly outline: readonly (readonly [x: number, y: number, z: number])[];
}

/** Three measures that anybody can take of a car: between the axles, between the wheels, and of the shell's height. */
export interface BodySize {
  readonly wheelbase: number;
  readonly track: number;
  readonly height: number;
}

/** A place of one side: its code and name, then its length, width and height. */
export type PlaceRow = readonly [code: string, name: string, x: number, y: number, z: number];

/** Rows of one side as the two sides they stand for: `F1` becomes F1L and F1R; a width of 0 is a place in the middle. */
export const bothSides = (rows: readonly PlaceRow[]): BodyPlace[] =>
  rows.flatMap(([code, name, x, y, z]): BodyPlace[] =>
    y === 0
      ? [{ code, name, side: 'centre', at: [x, 0, z] }]
      : [
          { code: `${code}L`, name, side: 'left', at: [x, -y, z] },
          { code: `${code}R`, name, side: 'right', at: [x, y, z] },
        ],
  );

/** Lines of one side as those of both; `F1 S1` joins F1L to S1L and F1R to S1R, `F1 =` joins F1L to F1R. */
const linesOf = (places: readonly BodyPlace[], text: string): [string, string][] => {
  const known = new Set(places.map(({ code }) => code));
  const onSide = (code: string, side: 'L' | 'R') => (known.has(code) ? code : `${code}${side}`);
  return text
    .trim()
    .split(/\s*[,\n]\s*/)
    .flatMap((line): [string, string][] => {
      const [a, b] = line.split(' ') as [string, string];
      if (b === '=') return [[`${a}L`, `${a}R`]];
      const middle = known.has(a) && known.has(b);
      return (middle ? (['L'] as const) : (['L', 'R'] as const)).map((side) => [onSide(a, side), onSide(b, side)]);
    });
};

/** Members of one side as those of both, written under their kinds as `linesOf` reads them. */
export const membersOf = (places: readonly BodyPlace[], texts: Partial<Record<MemberKind, string>>): BodyMember[] =>
  (Object.keys(texts) as MemberKind[]).flatMap((kind) =>
    linesOf(places, texts[kind]!).map(([from, to]) => ({ from, to, kind })),
  );

/** Usual thickness of a body's sheet, mm. */
const SHEET = 0.8;

/** Sheets written a line each, `name: A1 B2 C3 D4`: of one side as those of both; with L and R written out as it stands. */
export const sheetsOf = (places: readonly BodyPlace[], text: string): BodySheet[] => {
  const known = new Set(places.map(({ code }) => code));
  return text
    .trim()
    .split('\n')
    .flatMap((row): BodySheet[] => {
      const [name = '', codes = ''] = row.trim().split(': ');
      const corners = codes.split(' ');
      const whole = corners.every((code) => known.has(code));
      return (whole ? ([''] as const) : (['L', 'R'] as const)).map((side) => ({
        name,
        corners: corners.map((code) => (known.has(code) ? code : `${code}${side}`)) as unknown as BodySheet['corners'],
        thickness: SHEET,
      }));
    });
};

/** A face of one side on both. */
export const skinOnBothSides = (name: string, outline: BodySkin['outline']): BodySkin[] =>
  [-1, 1].map((side) => ({ name, outline: outline.map(([x, y, z]) => [x, side * y, z] as const) }));

/** An opening of either side: its corners in order round. */
export const openingOnBothSides = (name: string, corners: readonly string[]): BodyPicture['openings'] =>
  (['L', 'R'] as const).map((side) => ({ name, corners: corners.map((code) => `${code}${side}`) }));

/**
 * The picture brought to a shell's size: each axis by the measure that belongs to it. What was not measured keeps the
 * picture's own proportion to what was.
 *
 * @param size typed measures, mm; null where nobody took one
 */
export function morphed(
  { places, size: own }: BodyPicture,
  size: { readonly [M in keyof BodySize]: number | null },
): Map<string, readonly [number, number, number]> {
  const ratios = (['wheelbase', 'track', 'height'] as const).map((measure) => {
    const typed = size[measure];
    return typed === null ? undefined : typed / own[measure];
  });
  const known = ratios.filter((ratio) => ratio !== undefined);
  const usual = known.length > 0 ? known.reduce((sum, ratio) => sum + ratio, 0) / known.length : 1;
  const [x, y, z] = ratios.map((ratio) => ratio ?? usual) as [number, number, number];
  return new Map(places.map(({ code, at }) => [code, [at[0] * x, at[1] * y, at[2] * z]]));
}
