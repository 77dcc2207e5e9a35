import { bothSides, membersOf, openingOnBothSides, sheetsOf, skinOnBothSides, type BodyPicture } from './body';

const places = bothSides([
  ['F1', 'Front leg end', 0, 400, 500],
  ['F2', 'Cab mount, front', 950, 400, 420],
  ['S1', 'Sill, front end', 1050, 680, 320],
  ['S3', 'Sill, rear end', 2050, 690, 320],
  ['M2', 'Cab mount, rear', 2080, 420, 430],
  ['R1', 'Rear axle mount', 3000, 440, 460],
  ['R4', 'Rear leg end', 4100, 420, 520],
  ['T1', 'Tunnel, front hole', 1250, 0, 460],
  ['A1', 'A post, foot', 1060, 700, 400],
  ['A2', 'A post, lower hinge', 1050, 720, 580],
  ['A3', 'A post, upper hinge', 1060, 720, 900],
  ['A4', 'Windscreen, lower corner', 1130, 660, 1080],
  ['A5', 'Windscreen, upper corner', 1500, 590, 1480],
  ['B1', 'B post, foot', 2060, 700, 400],
  ['B2', 'B post, striker', 2060, 720, 760],
  ['B4', 'Cantrail over the B post', 2040, 600, 1490],
  ['W1', 'Rear window, lower corner', 2090, 520, 1060],
  ['W2', 'Rear window, upper corner', 2070, 500, 1420],
]);

/** A cab on a frame. */
export const PICKUP_CAB: BodyPicture = {
  type: 'pickupCab',
  name: 'pickup cab',
  size: { wheelbase: 2700, track: 1350, height: 1500 },
  places,
  members: membersOf(places, {
    frame: 'F1 F2, F2 M2, M2 R1, R1 R4, F1 =, M2 =, R1 =, R4 =',
    ...{ sill: 'S1 S3', post: 'S1 A1, A1 A2, A2 A3, A3 A4, S3 B1, B1 B2, B2 B4' },
    rail: 'A4 A5, A4 =, A5 =, A5 B4, B4 W2, W1 W2, W1 =, W2 =, B4 =',
    crossmember: 'F2 =, S3 =, F2 S1, M2 S3, T1 S1, T1 S3',
  }),
  sheets: sheetsOf(
    places,
    `floor: F2L F2R M2R M2L
floor, side: F2 S1 S3 M2
bulkhead: A1L A1R A4R A4L
toe board: S1L S1R A1R A1L
roof: A5L B4L B4R A5R
back, below the window: S3L S3R W1R W1L
back, beside the window: B1 B4 W2 W1`,
  ),
  wheels: { frontAxle: 420, axleHeight: 340, radius: 330 },
  skin: [
    ...skinOnBothSides('Front wing', [
      ...([
        [1045, 770, 420],
        [860, 780, 420],
        [800, 785, 620],
        [640, 790, 740],
        [420, 790, 780],
      ] as const),
      ...([
        [200, 790, 740],
        [60, 785, 620],
        [10, 780, 430],
        [-250, 720, 430],
        [-290, 660, 800],
      ] as const),
      ...([
        [-180, 640, 1000],
        [1060, 690, 1080],
      ] as const),
    ]),
    {
      name: 'Bonnet',
      outline: [
        ...([
          [-270, -560, 990],
          [1060, -640, 1095],
          [1060, 640, 1095],
          [-270, 560, 990],
        ] as const),
      ],
    },
    ...skinOnBothSides('Bed side', [
      ...([
        [2160, 800, 560],
        [2720, 810, 560],
        [2780, 815, 720],
        [2930, 820, 830],
        [3120, 820, 860],
      ] as const),
      ...([
        [3310, 820, 830],
        [3460, 815, 720],
        [3520, 810, 560],
        [4200, 800, 560],
        [4200, 800, 1000],
      ] as const),
      ...([[2160, 800, 1000]] as const),
    ]),
  ],
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B2', 'B1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear window', corners: ['W1L', 'W2L', 'W2R', 'W1R'] },
  ],
};
