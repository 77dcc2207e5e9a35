import { skinOnBothSides, type BodySkin, type PlaceRow } from './body';

/** Where the floor of a unit body ends: stations of the sill's end, the crossmember, the axle, the legs' end; mm. */
interface FloorStations {
  readonly sillEnd: number;
  readonly crossmember: number;
  readonly axle: number;
  readonly end: number;
  readonly endHeight: number;
  readonly tunnelEnd: number;
}

/** The floor of a unit body with its legs, sills and tunnel. */
export const unitFloor = (at: FloorStations): PlaceRow[] => [
  ['F1', 'Front leg end', 0, 400, 480],
  ['F2', 'Front leg, behind the bumper bracket', 420, 405, 430],
  ['F3', 'Strut tower, top', 640, 470, 820],
  ['F4', 'Front crossmember hole', 700, 380, 250],
  ['S1', 'Sill, front end', 1080, 640, 170],
  ['S2', 'Sill, middle hole', 1680, 655, 160],
  ['S3', 'Sill, rear end', at.sillEnd, 645, 170],
  ['C1', 'Rear seat crossmember hole', at.crossmember, 480, 260],
  ['R1', 'Rear axle mount', at.axle, 470, 330],
  ['R4', 'Rear leg end', at.end, 430, at.endHeight],
  ['T1', 'Tunnel, front hole', 1250, 0, 330],
  ['T2', 'Tunnel, rear hole', at.tunnelEnd, 0, 300],
];

/** Members of the floor and the front of a unit body. */
export const UNIT_FLOOR_MEMBERS = {
  leg: 'F1 F2, F2 F4, F4 S1, C1 R1, R1 R4, F4 T1',
  sill: 'S1 S2, S2 S3',
  crossmember: 'F1 =, F4 =, S3 T2, T1 S1, C1 =, S3 C1, R4 =, S2 T1',
  tunnel: 'T1 T2, T2 C1',
  tower: 'F2 F3, F3 A4, F4 F3',
} as const;

export const UNIT_FLOOR_SHEETS = `front floor: T1 S1 S2 T2
rear floor: T2 S2 S3 C1
boot floor: C1L R1L R1R C1R
boot floor, rear: R1L R4L R4R R1R
bulkhead: A1L A1R A4R A4L
toe board: S1L S1R A1R A1L
inner wing: F2 F4 A4 F3`;

/** The A posts and the windscreen of a closed unit body. */
export const FRONT_POSTS: readonly PlaceRow[] = [
  ['A1', 'A post, foot', 1090, 690, 300],
  ['A2', 'A post, lower hinge', 1060, 700, 480],
  ['A3', 'A post, upper hinge', 1070, 700, 760],
  ['A4', 'Windscreen, lower corner', 1120, 620, 930],
  ['A5', 'Windscreen, upper corner', 1560, 540, 1300],
];

/** Members of the posts and the windscreen. */
export const FRONT_POST_MEMBERS = { post: 'S1 A1, A1 A2, A2 A3, A3 A4', rail: 'A4 A5, A4 =, A5 =' } as const;

/** The wing and the bonnet, back to the posts. */
export const FRONT_SKIN: readonly BodySkin[] = [
  ...skinOnBothSides('Front wing', [
    ...([
      [1055, 760, 260],
      [1000, 770, 300],
      [960, 775, 450],
      [860, 780, 600],
      [720, 780, 660],
    ] as const),
    ...([
      [560, 780, 640],
      [420, 775, 520],
      [370, 770, 330],
      [60, 740, 330],
      [-60, 700, 420],
    ] as const),
    ...([
      [-70, 660, 700],
      [60, 660, 830],
      [500, 690, 880],
      [1080, 690, 930],
    ] as const),
  ]),
  {
    name: 'Bonnet',
    outline: [
      ...([
        [-60, -600, 800],
        [500, -640, 890],
        [1060, -620, 945],
        [1060, 620, 945],
      ] as const),
      ...([
        [500, 640, 890],
        [-60, 600, 800],
      ] as const),
    ],
  },
];

/** The bumper, so that one sees where a car begins and ends. */
export const bumper = (x: number, towards: 1 | -1, z = 430): BodySkin => ({
  name: 'Bumper',
  outline: [
    ...([
      [x, -700, z - 60],
      [x + 60 * towards, -500, z - 60],
      [x + 60 * towards, 500, z - 60],
    ] as const),
    ...([
      [x, 700, z - 60],
      [x, 700, z + 60],
      [x + 60 * towards, 500, z + 60],
    ] as const),
    ...([
      [x + 60 * towards, -500, z + 60],
      [x, -700, z + 60],
    ] as const),
  ],
});
