import { bothSides, membersOf, openingOnBothSides, sheetsOf, skinOnBothSides, type BodyPicture } from './body';
import {
  bumper,
  FRONT_POST_MEMBERS,
  FRONT_POSTS,
  FRONT_SKIN,
  unitFloor,
  UNIT_FLOOR_MEMBERS,
  UNIT_FLOOR_SHEETS,
} from './closed-floor';

const places = bothSides([
  ...unitFloor({ sillEnd: 2150, crossmember: 2330, axle: 3040, end: 3800, endHeight: 440, tunnelEnd: 2100 }),
  ...FRONT_POSTS,
  ['B1', 'B post, foot', 2180, 690, 300],
  ['B2', 'B post, striker', 2170, 705, 640],
  ['B3', 'B post, at the waist', 2180, 690, 900],
  ['B4', 'Cantrail over the B post', 2150, 570, 1380],
  ['D1', 'Side window, lower rear corner', 3500, 650, 930],
  ['D2', 'Cantrail, rear end', 3520, 560, 1350],
  ['G1', 'Tailgate opening, lower corner', 3790, 560, 520],
  ['G2', 'Tailgate opening, at the waist', 3760, 600, 930],
  ['G3', 'Tailgate opening, upper corner', 3560, 520, 1360],
]);

/** A closed unit body with two doors and a tailgate. */
export const ESTATE: BodyPicture = {
  type: 'estate',
  name: 'estate',
  size: { wheelbase: 2400, track: 1270, height: 1400 },
  places,
  members: membersOf(places, {
    ...UNIT_FLOOR_MEMBERS,
    ...{ post: `${FRONT_POST_MEMBERS.post}, S3 B1, B1 B2, B2 B3, B3 B4` },
    rail: `${FRONT_POST_MEMBERS.rail}, A5 B4, B4 D2, D2 G3, D1 D2, B3 D1, G3 G2, G2 G1, B4 =`,
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, G1 =, G3 =, G1 R4`,
    flange: 'D1 G2',
  }),
  sheets: sheetsOf(
    places,
    `${UNIT_FLOOR_SHEETS}
roof: A5L B4L B4R A5R
roof, rear: B4L D2L D2R B4R
roof, edge: D2L G3L G3R D2R
side, below the waist: B1 B3 D1 G1
wheelhouse: C1 R1 D1 B3
side, corner: D1 D2 G3 G2
tail, side: G1 G2 D1 R4
tail, sill: G1L R4L R4R G1R
heelboard: S3L C1L C1R S3R`,
  ),
  wheels: { frontAxle: 640, axleHeight: 260, radius: 300 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(3850, 1),
    ...skinOnBothSides('Rear quarter', [
      ...([
        [2200, 760, 190],
        [2640, 770, 250],
        [2690, 775, 480],
        [2820, 780, 610],
        [3040, 780, 650],
      ] as const),
      ...([
        [3260, 780, 610],
        [3390, 775, 480],
        [3430, 770, 330],
        [3800, 740, 400],
        [3840, 690, 560],
      ] as const),
      ...([
        [3800, 660, 920],
        [2190, 710, 920],
      ] as const),
    ]),
  ],
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    ...openingOnBothSides('Side window', ['B3', 'B4', 'D2', 'D1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Tailgate', corners: ['G1L', 'G2L', 'G3L', 'G3R', 'G2R', 'G1R'] },
  ],
};
