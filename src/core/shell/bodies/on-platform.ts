import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';

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
  lines: linesOf(
    places,
    `P1 P2, P2 P3, P3 P4, P4 P5, P5 P6, P1 =, P2 =, P3 =, P4 =, P5 =, P6 =, P2 A1, A1 A2, A2 A3, A3 A4, A4 A5, A4 =, A5 =,
A5 B4, B1 B2, B2 B4, P4 B1, B4 G3, G1 G3, G1 P6, G1 =, G3 =, A1 B1`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B2', 'B1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear opening', corners: ['G1L', 'G3L', 'G3R', 'G1R'] },
  ],
};
