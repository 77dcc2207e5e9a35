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
  ...unitFloor({ sillEnd: 2450, crossmember: 2560, axle: 3190, end: 3980, endHeight: 430, tunnelEnd: 2250 }),
  ...FRONT_POSTS,
  ['B1', 'B post, foot', 2020, 700, 290],
  ['B2', 'B post, striker', 2020, 710, 640],
  ['B3', 'B post, at the waist', 2030, 695, 920],
  ['B4', 'Cantrail over the B post', 2060, 565, 1380],
  ['C2', 'C post, foot at the wheel arch', 2640, 690, 420],
  ['C3', 'C post, striker', 2760, 700, 720],
  ['C4', 'Cantrail over the C post', 2760, 545, 1350],
  ['Q1', 'Rear window, lower corner', 3150, 570, 960],
  ['L1', 'Boot opening, front corner', 3250, 560, 940],
  ['L2', 'Boot opening, rear corner', 3920, 540, 780],
]);

/** A closed unit body with four doors and a boot. */
export const FOUR_DOOR: BodyPicture = {
  type: 'fourDoor',
  name: 'closed, four doors',
  size: { wheelbase: 2550, track: 1330, height: 1400 },
  places,
  members: membersOf(places, {
    ...UNIT_FLOOR_MEMBERS,
    ...{ post: `${FRONT_POST_MEMBERS.post}, S2 B1, B1 B2, B2 B3, B3 B4, S3 C2, C2 C3, C3 C4` },
    rail: `${FRONT_POST_MEMBERS.rail}, A5 B4, B4 C4, C4 Q1, Q1 L1, L1 L2, Q1 =, C4 =, L1 =, B4 =`,
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, L2 =, L2 R4`,
    flange: 'C3 Q1',
  }),
  sheets: sheetsOf(
    places,
    `${UNIT_FLOOR_SHEETS}
roof: A5L B4L B4R A5R
roof, rear: B4L C4L C4R B4R
side, rear: C2 C3 L1 R1
side, tail: R1 L1 L2 R4
quarter: C3 C4 Q1 L1
parcel shelf: Q1L L1L L1R Q1R
seat bulkhead: C1L C1R Q1R Q1L
tail: L2L R4L R4R L2R
heelboard: S3L C1L C1R S3R`,
  ),
  wheels: { frontAxle: 640, axleHeight: 260, radius: 300 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(4030, 1),
    ...skinOnBothSides('Rear quarter', [
      ...([
        [2660, 760, 420],
        [2740, 770, 540],
        [2870, 780, 620],
        [3190, 780, 660],
        [3410, 780, 610],
      ] as const),
      ...([
        [3540, 775, 480],
        [3580, 770, 330],
        [3960, 720, 400],
        [4000, 660, 720],
        [3250, 640, 940],
      ] as const),
      ...([
        [2780, 700, 940],
        [2760, 705, 720],
      ] as const),
    ]),
    {
      name: 'Boot lid',
      outline: [
        ...([
          [3260, -560, 945],
          [3920, -540, 790],
          [3980, -540, 540],
          [3980, 540, 540],
        ] as const),
        ...([
          [3920, 540, 790],
          [3260, 560, 945],
        ] as const),
      ],
    },
  ],
  openings: [
    ...openingOnBothSides('Front door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    ...openingOnBothSides('Rear door', ['B1', 'B2', 'B3', 'B4', 'C4', 'C3', 'C2']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear window', corners: ['Q1L', 'C4L', 'C4R', 'Q1R'] },
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
