import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';
import { FRONT_POST_LINES, FRONT_POSTS, unitFloor, UNIT_FLOOR_LINES } from './closed-floor';

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
  lines: linesOf(
    places,
    `${UNIT_FLOOR_LINES},
${FRONT_POST_LINES},
S1 A1, B1 B2, B2 B3, B3 B4, A5 B4, B4 Q2, Q2 Q1, Q1 L1, L1 L2, S3 B1, L2 R4, Q1 =, Q2 =, L1 =, L2 =`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear window', corners: ['Q1L', 'Q2L', 'Q2R', 'Q1R'] },
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
