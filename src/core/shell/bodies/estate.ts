import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';

const places = bothSides([
  ['F1', 'Front leg end', 0, 400, 480],
  ['F2', 'Front leg, behind the bumper bracket', 420, 405, 430],
  ['F3', 'Strut tower, top', 640, 470, 820],
  ['F4', 'Front crossmember hole', 700, 380, 250],
  ['S1', 'Sill, front end', 1080, 640, 170],
  ['S2', 'Sill, middle hole', 1680, 655, 160],
  ['S3', 'Sill, rear end', 2150, 645, 170],
  ['C1', 'Rear seat crossmember hole', 2330, 480, 260],
  ['R1', 'Rear axle mount', 3040, 470, 330],
  ['R4', 'Rear leg end', 3800, 430, 440],
  ['T1', 'Tunnel, front hole', 1250, 0, 330],
  ['T2', 'Tunnel, rear hole', 2100, 0, 300],
  ['A1', 'A post, foot', 1090, 690, 300],
  ['A2', 'A post, lower hinge', 1060, 700, 480],
  ['A3', 'A post, upper hinge', 1070, 700, 760],
  ['A4', 'Windscreen, lower corner', 1120, 620, 930],
  ['A5', 'Windscreen, upper corner', 1560, 540, 1300],
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
  lines: linesOf(
    places,
    `F1 F2, F2 F4, F4 S1, S1 S2, S2 S3, S3 R1, C1 R1, R1 R4, F1 =, F4 =, C1 =, R4 =, F2 F3, F3 A4, F3 =,
A1 A2, A2 A3, A3 A4, A4 A5, A4 =, A5 =,
S1 A1, B1 B2, B2 B3, B3 B4, A5 B4, B4 D2, D1 D2, B3 D1, D2 G3, G3 G2, G2 G1, G1 R4, S3 B1, G1 =, G3 =`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    ...openingOnBothSides('Side window', ['B3', 'B4', 'D2', 'D1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Tailgate', corners: ['G1L', 'G2L', 'G3L', 'G3R', 'G2R', 'G1R'] },
  ],
};
