import { bothSides, membersOf, openingOnBothSides, sheetsOf, skinOnBothSides, type BodyPicture } from './body';

const places = bothSides([
  ['P1', 'Platform, front end', 150, 300, 330],
  ['P2', 'Platform mount, front', 900, 520, 260],
  ['P3', 'Platform mount, middle', 1700, 560, 250],
  ['P4', 'Platform mount, rear', 2450, 540, 270],
  ['P5', 'Platform, rear axle mount', 2950, 440, 340],
  ['P6', 'Platform, rear end', 3600, 380, 400],
  ['T1', 'Tunnel, front hole', 1150, 0, 320],
  ['T2', 'Tunnel, rear hole', 2250, 0, 300],
  ['A1', 'A post, foot', 1000, 660, 330],
  ['A2', 'A post, lower hinge', 980, 680, 500],
  ['A3', 'A post, upper hinge', 990, 680, 780],
  ['A4', 'Windscreen, lower corner', 1050, 600, 950],
  ['A5', 'Windscreen, upper corner', 1420, 520, 1320],
  ['B1', 'B post, foot', 2050, 670, 330],
  ['B2', 'B post, striker', 2050, 690, 660],
  ['B4', 'Cantrail over the B post', 2030, 540, 1340],
  ['G1', 'Rear opening, lower corner', 3550, 520, 560],
  ['G3', 'Rear opening, upper corner', 3380, 480, 1300],
]);

/** A body bolted to a platform of its own. */
export const ON_PLATFORM: BodyPicture = {
  type: 'onPlatform',
  name: 'body on a platform',
  size: { wheelbase: 2400, track: 1290, height: 1350 },
  places,
  members: membersOf(places, {
    frame: 'P1 P2, P2 P3, P3 P4, P4 P5, P5 P6, P1 =, P5 =, P6 =',
    crossmember: 'P2 =, P3 =, P4 =, P2 A1, P4 B1, T1 P2, T2 P4',
    ...{ tunnel: 'T1 T2', sill: 'A1 B1', post: 'A1 A2, A2 A3, A3 A4, B1 B2, B2 B4' },
    rail: 'A4 A5, A4 =, A5 =, A5 B4, B4 G3, G1 G3, G1 P6, G1 =, G3 =, B4 =',
  }),
  sheets: sheetsOf(
    places,
    `platform: P2L P2R P3R P3L
platform, rear: P3L P3R P4R P4L
platform, tail: P4L P4R P5R P5L
bulkhead: A1L A1R A4R A4L
roof: A5L B4L B4R A5R
roof, rear: B4L G3L G3R B4R
side: B1 B4 G3 G1
side, wheelhouse: P4 B1 G1 P6`,
  ),
  wheels: { frontAxle: 540, axleHeight: 280, radius: 310 },
  skin: [
    ...skinOnBothSides('Front wing', [
      ...([
        [975, 740, 330],
        [900, 760, 340],
        [850, 770, 520],
        [720, 775, 640],
        [540, 775, 670],
      ] as const),
      ...([
        [360, 775, 640],
        [230, 770, 520],
        [190, 760, 340],
        [0, 700, 350],
        [-40, 600, 700],
      ] as const),
      ...([
        [300, 560, 880],
        [1000, 620, 950],
      ] as const),
    ]),
    {
      name: 'Bonnet',
      outline: [
        ...([
          [-30, -420, 720],
          [300, -540, 890],
          [1000, -590, 965],
          [1000, 590, 965],
        ] as const),
        ...([
          [300, 540, 890],
          [-30, 420, 720],
        ] as const),
      ],
    },
    ...skinOnBothSides('Rear quarter', [
      ...([
        [2070, 740, 330],
        [2560, 760, 340],
        [2600, 770, 520],
        [2750, 775, 650],
        [2940, 775, 680],
      ] as const),
      ...([
        [3130, 775, 640],
        [3270, 770, 520],
        [3310, 760, 360],
        [3560, 640, 450],
        [3560, 600, 760],
      ] as const),
      ...([
        [3480, 560, 900],
        [2060, 690, 930],
      ] as const),
    ]),
  ],
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B2', 'B1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear opening', corners: ['G1L', 'G3L', 'G3R', 'G1R'] },
  ],
};
