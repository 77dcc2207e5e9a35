import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';
import { FRONT_POST_LINES, FRONT_POSTS, unitFloor, UNIT_FLOOR_LINES } from './closed-floor';

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
  lines: linesOf(
    places,
    `${UNIT_FLOOR_LINES},
${FRONT_POST_LINES},
S1 A1, B1 B2, B2 B3, B3 B4, A5 B4, B4 D2, D1 D2, B3 D1, D2 G3, G3 G2, G2 G1, G1 R4, S3 B1, G1 =, G3 =`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    ...openingOnBothSides('Side window', ['B3', 'B4', 'D2', 'D1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Tailgate', corners: ['G1L', 'G2L', 'G3L', 'G3R', 'G2R', 'G1R'] },
  ],
};
