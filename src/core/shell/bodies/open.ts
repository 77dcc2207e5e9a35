import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';

const places = bothSides([
  ['F1', 'Front leg end', 0, 400, 480],
  ['F2', 'Front leg, behind the bumper bracket', 420, 405, 430],
  ['F3', 'Strut tower, top', 640, 470, 820],
  ['F4', 'Front crossmember hole', 700, 380, 250],
  ['S1', 'Sill, front end', 1080, 640, 170],
  ['S2', 'Sill, middle hole', 1680, 655, 160],
  ['S3', 'Sill, rear end', 2050, 645, 170],
  ['C1', 'Rear seat crossmember hole', 2200, 480, 260],
  ['R1', 'Rear axle mount', 2880, 470, 330],
  ['R4', 'Rear leg end', 3480, 430, 420],
  ['T1', 'Tunnel, front hole', 1250, 0, 330],
  ['T2', 'Tunnel, rear hole', 2000, 0, 300],
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
  lines: linesOf(
    places,
    `F1 F2, F2 F4, F4 S1, S1 S2, S2 S3, S3 R1, C1 R1, R1 R4, F1 =, F4 =, C1 =, R4 =, F2 F3, F3 A4, F3 =,
A1 A2, A2 A3, A3 A4, A4 =, S1 A1, B1 B2, B2 B3, S3 B1, B3 L1, L1 L2, L2 R4, B3 =, L1 =, L2 =`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'B3', 'B2', 'B1']),
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
