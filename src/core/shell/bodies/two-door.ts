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
  ...unitFloor({ sillEnd: 2150, crossmember: 2330, axle: 3040, end: 3700, endHeight: 430, tunnelEnd: 2100 }),
  ...FRONT_POSTS,
  ['B1', 'B post, foot', 2180, 690, 300],
  ['B2', 'B post, striker', 2170, 705, 640],
  ['B3', 'B post, at the waist', 2180, 690, 900],
  ['B4', 'Cantrail over the B post', 2150, 560, 1310],
  ['Q1', 'Rear window, lower corner', 2850, 560, 940],
  ['Q2', 'Rear window, upper corner', 2560, 520, 1280],
  ['L1', 'Boot opening, front corner', 2980, 540, 920],
  ['L2', 'Boot opening, rear corner', 3640, 520, 760],
]);

/** A closed unit body with two doors and a boot. */
export const TWO_DOOR: BodyPicture = {
  type: 'twoDoor',
  name: 'closed, two doors',
  size: { wheelbase: 2400, track: 1270, height: 1330 },
  places,
  members: membersOf(places, {
    ...UNIT_FLOOR_MEMBERS,
    ...{ post: `${FRONT_POST_MEMBERS.post}, S3 B1, B1 B2, B2 B3, B3 B4` },
    rail: `${FRONT_POST_MEMBERS.rail}, A5 B4, B4 Q2, Q2 Q1, Q1 L1, L1 L2, Q1 =, Q2 =, L1 =, B4 =`,
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, L2 =, L2 R4`,
    flange: 'B3 Q1',
  }),
  sheets: sheetsOf(
    places,
    `${UNIT_FLOOR_SHEETS}
roof: A5L B4L B4R A5R
roof, rear: B4L Q2L Q2R B4R
side, below the waist: B1 B3 L1 R1
side, rear: R1 L1 L2 R4
quarter: B3 B4 Q2 Q1
parcel shelf: Q1L L1L L1R Q1R
seat bulkhead: C1L C1R Q1R Q1L
tail: L2L R4L R4R L2R
heelboard: S3L C1L C1R S3R`,
  ),
  wheels: { frontAxle: 640, axleHeight: 260, radius: 300 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(3750, 1),
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
        [3700, 720, 400],
        [3730, 660, 700],
      ] as const),
      ...([
        [2980, 640, 920],
        [2190, 710, 920],
      ] as const),
    ]),
    {
      name: 'Boot lid',
      outline: [
        ...([
          [2990, -560, 925],
          [3640, -540, 770],
          [3700, -540, 540],
          [3700, 540, 540],
        ] as const),
        ...([
          [3640, 540, 770],
          [2990, 560, 925],
        ] as const),
      ],
    },
  ],
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear window', corners: ['Q1L', 'Q2L', 'Q2R', 'Q1R'] },
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
