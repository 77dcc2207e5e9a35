import { bothSides, linesOf, openingOnBothSides, type BodyPicture } from './body';

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
  lines: linesOf(
    places,
    `F1 F2, F2 M2, M2 R1, R1 R4, F1 =, F2 =, M2 =, R1 =, R4 =, S1 S3, S1 A1, A1 A2, A2 A3, A3 A4, A4 A5, A4 =, A5 =,
A5 B4, B1 B2, B2 B4, S3 B1, B4 W2, W1 W2, W1 =, W2 =, B4 =, S3 =`,
  ),
  openings: [
    ...openingOnBothSides('Door', ['A1', 'A2', 'A3', 'A4', 'A5', 'B4', 'B2', 'B1']),
    { name: 'Windscreen', corners: ['A4L', 'A5L', 'A5R', 'A4R'] },
    { name: 'Rear window', corners: ['W1L', 'W2L', 'W2R', 'W1R'] },
  ],
};
