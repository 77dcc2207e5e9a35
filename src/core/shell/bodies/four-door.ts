import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';
import { FRONT_POST_LINES, FRONT_POSTS, unitFloor, UNIT_FLOOR_LINES } from './closed-floor';

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
  lines: linesOf(
    places,
    `${UNIT_FLOOR_LINES},
${FRONT_POST_LINES},
S1 A1, B1 B2, B2 B3, B3 B4, A5 B4, B4 C4, C2 C3, C3 C4, C4 Q1, Q1 L1, L1 L2, S3 C2, L2 R4, Q1 =, C4 =, L1 =, L2 =`,
  ),
  openings: [
    ...openingOnBothSides('Front door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B3', 'B2', 'B1']),
    ...openingOnBothSides('Rear door', ['B1', 'B2', 'B3', 'B4', 'C4', 'C3', 'C2']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear window', corners: ['Q1L', 'C4L', 'C4R', 'Q1R'] },
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
