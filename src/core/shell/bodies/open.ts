import { bothSides, membersOf, openingOnBothSides, sheetsOf, skinOnBothSides, type BodyPicture } from './body';
import { bumper, FRONT_SKIN, unitFloor, UNIT_FLOOR_MEMBERS, UNIT_FLOOR_SHEETS } from './closed-floor';

const places = bothSides([
  ...unitFloor({ sillEnd: 2050, crossmember: 2200, axle: 2880, end: 3480, endHeight: 420, tunnelEnd: 2000 }),
  ['A1', 'A post, foot', 1090, 660, 290],
  ['A2', 'A post, lower hinge', 1060, 670, 440],
  ['A3', 'A post, upper hinge', 1065, 670, 660],
  ['A4', 'Windscreen, lower corner', 1130, 600, 840],
  ['B1', 'B post, foot', 2060, 660, 290],
  ['B2', 'B post, striker', 2060, 670, 560],
  ['B3', 'B post, top', 2080, 655, 790],
  ['L1', 'Boot opening, front corner', 2640, 500, 830],
  ['L2', 'Boot opening, rear corner', 3380, 480, 680],
]);

/** An open unit body with two doors: no roof to hold it. */
export const OPEN: BodyPicture = {
  type: 'open',
  name: 'open, two seats',
  size: { wheelbase: 2250, track: 1220, height: 900 },
  places,
  members: membersOf(places, {
    ...UNIT_FLOOR_MEMBERS,
    post: 'S1 A1, A1 A2, A2 A3, A3 A4, S3 B1, B1 B2, B2 B3',
    rail: 'A4 =, B3 L1, L1 L2, B3 =, L1 =',
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, L2 =, L2 R4`,
  }),
  sheets: sheetsOf(
    places,
    `${UNIT_FLOOR_SHEETS}
rear deck: B3L L1L L1R B3R
side, below the waist: B1 B3 L1 R1
side, rear: R1 L1 L2 R4
rear bulkhead: S3L S3R B3R B3L
tail: L2L R4L R4R L2R
heelboard: S3L C1L C1R S3R`,
  ),
  wheels: { frontAxle: 640, axleHeight: 250, radius: 290 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(3530, 1),
    ...skinOnBothSides('Rear quarter', [
      ...([
        [2070, 740, 190],
        [2490, 750, 250],
        [2540, 760, 460],
        [2670, 760, 590],
        [2890, 760, 630],
      ] as const),
      ...([
        [3110, 760, 590],
        [3240, 750, 460],
        [3280, 740, 330],
        [3480, 690, 400],
        [3510, 620, 640],
      ] as const),
      ...([
        [2640, 600, 840],
        [2080, 690, 800],
      ] as const),
    ]),
    {
      name: 'Boot lid',
      outline: [
        ...([
          [2650, -520, 835],
          [3380, -500, 690],
          [3460, -500, 500],
          [3460, 500, 500],
        ] as const),
        ...([
          [3380, 500, 690],
          [2650, 520, 835],
        ] as const),
      ],
    },
    ...skinOnBothSides('Seat back', [
      ...([
        [1900, 80, 420],
        [1900, 560, 420],
        [2040, 560, 900],
        [2040, 80, 900],
      ] as const),
    ]),
    {
      name: 'Windscreen',
      outline: [
        ...([
          [1130, -590, 845],
          [1330, -500, 1110],
          [1330, 500, 1110],
          [1130, 590, 845],
        ] as const),
      ],
    },
  ],
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'B3', 'B2', 'B1']),
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
