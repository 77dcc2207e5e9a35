import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';
import { unitFloor, UNIT_FLOOR_LINES } from './closed-floor';

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
  lines: linesOf(
    places,
    `${UNIT_FLOOR_LINES},
A1 A2, A2 A3, A3 A4, A4 =, S1 A1, B1 B2, B2 B3, S3 B1, B3 L1, L1 L2, L2 R4, B3 =, L1 =, L2 =`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'B3', 'B2', 'B1']),
    { name: 'Boot', corners: ['L1L', 'L2L', 'L2R', 'L1R'] },
  ],
};
