import type { PlaceRow } from './body';

/** Where the floor of a unit body ends: stations of the sill's end, the crossmember, the axle, the legs' end; mm. */
interface FloorStations {
  readonly sillEnd: number;
  readonly crossmember: number;
  readonly axle: number;
  readonly end: number;
  readonly endHeight: number;
  readonly tunnelEnd: number;
}

/** The floor of a unit body with its legs, sills and tunnel. */
export const unitFloor = (at: FloorStations): PlaceRow[] => [
  ['F1', 'Front leg end', 0, 400, 480],
  ['F2', 'Front leg, behind the bumper bracket', 420, 405, 430],
  ['F3', 'Strut tower, top', 640, 470, 820],
  ['F4', 'Front crossmember hole', 700, 380, 250],
  ['S1', 'Sill, front end', 1080, 640, 170],
  ['S2', 'Sill, middle hole', 1680, 655, 160],
  ['S3', 'Sill, rear end', at.sillEnd, 645, 170],
  ['C1', 'Rear seat crossmember hole', at.crossmember, 480, 260],
  ['R1', 'Rear axle mount', at.axle, 470, 330],
  ['R4', 'Rear leg end', at.end, 430, at.endHeight],
  ['T1', 'Tunnel, front hole', 1250, 0, 330],
  ['T2', 'Tunnel, rear hole', at.tunnelEnd, 0, 300],
];

export const UNIT_FLOOR_LINES =
  'F1 F2, F2 F4, F4 S1, S1 S2, S2 S3, S3 R1, C1 R1, R1 R4, F1 =, F4 =, C1 =, R4 =, F2 F3, F3 A4, F3 =';

/** The A posts and the windscreen of a closed unit body. */
export const FRONT_POSTS: readonly PlaceRow[] = [
  ['A1', 'A post, foot', 1090, 690, 300],
  ['A2', 'A post, lower hinge', 1060, 700, 480],
  ['A3', 'A post, upper hinge', 1070, 700, 760],
  ['A4', 'Windscreen, lower corner', 1120, 620, 930],
  ['A5', 'Windscreen, upper corner', 1560, 540, 1300],
];

export const FRONT_POST_LINES = 'A1 A2, A2 A3, A3 A4, A4 A5, A4 =, A5 =';
