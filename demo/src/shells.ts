import type { ChartDraft, DraftPoint, DraftSeam } from '@/core/shell/chart/draft';
import { distance, levelDistance, position, type Vector } from '@/core/maths/geometry/vector';
import type { Measure, Side } from '@/core/shell/job/entities';

/** A pair of points left and right: code without its side, name, and the right-hand position. */
type Pair = readonly [code: string, name: string, x: number, y: number, z: number, hole?: number];

const SOLBRIS_PAIRS: readonly Pair[] = [
  ['F1', 'Chassis leg front end hole', -420, 395, 320, 16],
  ['F2', 'Chassis leg hole at the crossmember', 0, 400, 230, 16],
  ['F3', 'Strut tower centre', 250, 500, 760, 60],
  ['F4', 'Chassis leg hole behind the crossmember', 520, 405, 225, 16],
  ['M1', 'Bulkhead foot seam', 640, 560, 180],
  ['S1', 'Sill front jacking hole', 760, 690, 150, 22],
  ['S2', 'Sill middle drain hole', 1400, 700, 148, 12],
  ['S3', 'Sill rear jacking hole', 2010, 690, 152, 22],
  ['A1', 'A post lower hinge bolt', 690, 735, 420, 10],
  ['A2', 'A post upper hinge bolt', 690, 735, 700, 10],
  ['A3', 'Windscreen lower corner', 740, 640, 930],
  ['A4', 'Windscreen upper corner', 1180, 540, 1330],
  ['B1', 'B post foot', 1760, 700, 200],
  ['B2', 'B post striker bolt', 1775, 735, 640, 10],
  ['B3', 'B post top at the cantrail', 1795, 545, 1345],
  ['C1', 'Rear seat crossmember hole', 2050, 480, 215, 16],
  ['R1', 'Rear spring front eye', 2210, 460, 240, 14],
  ['R2', 'Axle bump stop bolt', 2650, 450, 360, 10],
  ['R3', 'Rear spring hanger bolt', 3000, 455, 330, 12],
  ['R4', 'Rear chassis leg end hole', 3240, 430, 345, 16],
  ['C2', 'C post waist corner', 2600, 720, 900],
  ['D1', 'Tailgate opening lower corner', 3330, 520, 480],
  ['D2', 'Tailgate opening upper corner', 3050, 500, 1330],
];

const SOLBRIS_CENTRE: readonly Pair[] = [
  ['K1', 'Slam panel centre', -430, 0, 700],
  ['K2', 'Front crossmember centre hole', 0, 0, 225, 16],
  ['K3', 'Tunnel rear hole', 1500, 0, 240, 16],
  ['K4', 'Tailgate sill centre', 3345, 0, 470],
  ['K5', 'Roof rear edge centre', 3060, 0, 1362],
];

type Length = readonly [code: string, name: string, from: string, to: string, measure?: Measure, tolerance?: number];

const SOLBRIS_LENGTHS: readonly Length[] = [
  ['FW1', 'Across the front leg ends', 'F1L', 'F1R'],
  ['FW2', 'Across the legs at the crossmember', 'F2L', 'F2R'],
  ['FW3', 'Across the strut towers', 'F3L', 'F3R', 'tip', 2],
  ['FD1', 'Front diagonal', 'F1L', 'F4R'],
  ['FD2', 'Front diagonal', 'F1R', 'F4L'],
  ['FS1', 'Strut tower to sill', 'F3L', 'S1L'],
  ['FS2', 'Strut tower to sill', 'F3R', 'S1R'],
  ['CW1', 'Across the sills, front', 'S1L', 'S1R', 'level'],
  ['CW2', 'Across the sills, middle', 'S2L', 'S2R', 'level'],
  ['CW3', 'Across the sills, rear', 'S3L', 'S3R', 'level'],
  ['CD1', 'Floor diagonal', 'S1L', 'S3R', 'level', 3],
  ['CD2', 'Floor diagonal', 'S1R', 'S3L', 'level', 3],
  ['CL1', 'Sill length', 'S1L', 'S3L'],
  ['CL2', 'Sill length', 'S1R', 'S3R'],
  ['DL1', 'Door opening, hinge to striker', 'A2L', 'B2L', 'tip', 2],
  ['DL2', 'Door opening, lower diagonal', 'A2L', 'B1L', 'tip', 2],
  ['DL3', 'Door opening, upper diagonal', 'A1L', 'B3L', 'tip', 2],
  ['DR1', 'Door opening, hinge to striker', 'A2R', 'B2R', 'tip', 2],
  ['DR2', 'Door opening, lower diagonal', 'A2R', 'B1R', 'tip', 2],
  ['DR3', 'Door opening, upper diagonal', 'A1R', 'B3R', 'tip', 2],
  ['WS1', 'Windscreen diagonal', 'A3L', 'A4R', 'tip', 2],
  ['WS2', 'Windscreen diagonal', 'A3R', 'A4L', 'tip', 2],
  ['RW1', 'Across the rear leg ends', 'R4L', 'R4R'],
  ['RW2', 'Across the spring hangers', 'R3L', 'R3R', 'tip', 1.5],
  ['RL1', 'Seat crossmember to leg end', 'C1L', 'R4L'],
  ['RL2', 'Seat crossmember to leg end', 'C1R', 'R4R'],
  ['RD1', 'Rear diagonal', 'C1L', 'R4R'],
  ['RD2', 'Rear diagonal', 'C1R', 'R4L'],
  ['TG1', 'Tailgate opening diagonal', 'D1L', 'D2R', 'tip', 2],
  ['TG2', 'Tailgate opening diagonal', 'D1R', 'D2L', 'tip', 2],
  ['XL1', 'Whole length, left', 'F2L', 'R4L'],
  ['XL2', 'Whole length, right', 'F2R', 'R4R'],
];

/** Outline for orientation: chains of codes, each side where the code has no side. */
const SOLBRIS_CHAINS: readonly string[] = [
  'F1 F2 F4 M1 S1 S2 S3 C1 R1 R2 R3 R4',
  'F3 A3 A4 B3 D2 D1',
  'A1 A2 A3',
  'S1 A1',
  'S3 B1 B2 B3',
  'C2 D1',
  'B2 C2',
  'F1 K1',
];
const SOLBRIS_CROSS: readonly string[] = ['F2', 'F4', 'S1', 'S3', 'C1', 'R3', 'R4', 'A3', 'A4', 'B3', 'D1', 'D2'];

const doorSeams = (side: 'L' | 'R'): DraftSeam[] =>
  [
    ['DF', 'Door front edge to front wing'],
    ['DB', 'Door rear edge to B post'],
  ].map(([code, name]) => ({
    code: `${code}${side}`,
    name: name!,
    side: side === 'L' ? ('left' as const) : ('right' as const),
    pairing: code!,
    stations: ['bottom', 'swage line', 'top'].map((place, i) => ({
      number: i + 1,
      name: place,
      gap: { value: 4.5, tolerance: 1 },
      flush: { value: 0, tolerance: 1 },
    })),
  }));

const lidSeam = (code: string, name: string): DraftSeam[] =>
  (['L', 'R'] as const).map((side) => ({
    code: `${code}${side}`,
    name,
    side: side === 'L' ? 'left' : 'right',
    pairing: code,
    stations: ['front', 'middle', 'rear'].map((place, i) => ({
      number: i + 1,
      name: place,
      gap: { value: 5, tolerance: 1 },
    })),
  }));

function pointsOf(pairs: readonly Pair[], centre: readonly Pair[], tolerance: (code: string) => number): DraftPoint[] {
  const point = (code: string, side: Side, [base, name, x, y, z, hole]: Pair): DraftPoint => ({
    code,
    name,
    side,
    x,
    y: side === 'left' ? -y : y,
    z,
    tolerance: tolerance(base),
    holeDiameter: hole ?? null,
  });
  return [
    ...pairs.flatMap((pair) => [point(`${pair[0]}L`, 'left', pair), point(`${pair[0]}R`, 'right', pair)]),
    ...centre.map((pair) => point(pair[0], 'centre', pair)),
  ];
}

export const positionOf = (point: Pick<DraftPoint, 'x' | 'y' | 'z'>): Vector => [point.x, point.y, point.z];

function chartOf(
  points: readonly DraftPoint[],
  lengths: readonly Length[],
  chains: readonly string[],
  cross: readonly string[],
  seams: readonly DraftSeam[],
): ChartDraft {
  const at = new Map(points.map((point) => [point.code, positionOf(point)]));
  const sided = (code: string, side: string) => (at.has(code) ? code : `${code}${side}`);
  const lines = ['L', 'R'].flatMap((side) =>
    chains.flatMap((chain) => {
      const codes = chain.split(' ').map((code) => sided(code, side));
      return codes.slice(1).map((code, i): [string, string] => [codes[i]!, code]);
    }),
  );
  return {
    points,
    dimensions: lengths.map(([code, name, from, to, measure = 'tip', tolerance = 3]) => {
      const length = (measure === 'tip' ? distance : levelDistance)(
        position<'chart'>(at.get(from)!),
        position(at.get(to)!),
      );
      return { code, name, from, to, measure, tolerance, value: Math.round(length * 10) / 10 };
    }),
    lines: [...lines, ...cross.map((code): [string, string] => [`${code}L`, `${code}R`])],
    seams,
  };
}

const SUSPENSION = new Set(['F3', 'R1', 'R3']);

export const solbrisChart = (): ChartDraft =>
  chartOf(
    pointsOf(SOLBRIS_PAIRS, SOLBRIS_CENTRE, (code) => (SUSPENSION.has(code) ? 1.5 : 3)),
    SOLBRIS_LENGTHS,
    SOLBRIS_CHAINS,
    SOLBRIS_CROSS,
    [
      ...doorSeams('L'),
      ...doorSeams('R'),
      ...lidSeam('BN', 'Bonnet to front wing'),
      ...lidSeam('TG', 'Tailgate to rear wing'),
    ],
  );

/**
 * The Solbris as it really stands, chart axes: beyond the rear seat crossmember (x = 2050) each
 * side moves linearly to the leg ends (x = 3240), and the left B post foot is dented inward.
 */
export function solbrisTruth(point: Pick<DraftPoint, 'code' | 'side' | 'x' | 'y' | 'z'>): Vector {
  const left: Vector = [-14, 6, 9];
  const right: Vector = [-2, 5, 1];
  const share = Math.max(0, (point.x - 2050) / (3240 - 2050));
  const half = [0, 1, 2].map((i) => (left[i]! + right[i]!) / 2) as unknown as Vector;
  const move = point.side === 'left' ? left : point.side === 'right' ? right : half;
  const dent = point.code === 'B1L' ? 5 : 0;
  return [point.x + share * move[0], point.y + share * move[1] + dent, point.z + share * move[2]];
}

const LODD_PAIRS: readonly Pair[] = [
  ['F1', 'Nose leg front end hole', -520, 380, 300, 14],
  ['F2', 'Nose leg hole at the crossmember', 0, 390, 210, 14],
  ['F3', 'Strut tower centre', 180, 480, 700, 60],
  ['P1', 'Slam panel end', -540, 520, 610],
  ['M1', 'Bulkhead foot seam', 600, 540, 170],
  ['S1', 'Sill front jacking hole', 720, 660, 140, 20],
  ['S2', 'Sill rear jacking hole', 1820, 660, 142, 20],
  ['A1', 'A post lower hinge bolt', 660, 700, 390, 10],
  ['A2', 'A post upper hinge bolt', 660, 700, 640, 10],
  ['A3', 'Windscreen lower corner', 700, 600, 840],
  ['A4', 'Windscreen upper corner', 1200, 480, 1180],
  ['B1', 'B post foot', 1660, 670, 190],
  ['B2', 'B post striker bolt', 1680, 700, 570, 10],
  ['R1', 'Rear spring front eye', 1980, 440, 230, 14],
  ['R2', 'Rear chassis leg end hole', 2860, 410, 320, 14],
];
const LODD_LENGTHS: readonly Length[] = [
  ['NW1', 'Across the nose leg ends', 'F1L', 'F1R', 'tip', 2],
  ['NW2', 'Across the legs at the crossmember', 'F2L', 'F2R', 'tip', 2],
  ['NL1', 'Nose leg length', 'F1L', 'M1L', 'tip', 2],
  ['NL2', 'Nose leg length', 'F1R', 'M1R', 'tip', 2],
  ['ND1', 'Nose diagonal', 'F1L', 'M1R', 'tip', 2],
  ['ND2', 'Nose diagonal', 'F1R', 'M1L', 'tip', 2],
  ['TW1', 'Across the strut towers', 'F3L', 'F3R', 'tip', 1.5],
  ['SP1', 'Slam panel end to strut tower', 'P1L', 'F3L', 'tip', 2],
  ['SP2', 'Slam panel end to strut tower', 'P1R', 'F3R', 'tip', 2],
  ['CD1', 'Floor diagonal', 'S1L', 'S2R', 'level'],
  ['CD2', 'Floor diagonal', 'S1R', 'S2L', 'level'],
  ['DL1', 'Door opening, hinge to striker', 'A2L', 'B2L', 'tip', 2],
  ['DR1', 'Door opening, hinge to striker', 'A2R', 'B2R', 'tip', 2],
];

export const loddChart = (): ChartDraft =>
  chartOf(
    pointsOf(LODD_PAIRS, [], (code) => (code === 'F3' ? 1.5 : 3)),
    LODD_LENGTHS,
    ['F1 F2 F3', 'F1 P1', 'F2 M1 S1 S2 R1 R2', 'F3 A3 A4', 'A1 A2 A3', 'S1 A1', 'S2 B1 B2'],
    ['F1', 'F2', 'P1', 'M1', 'S1', 'S2', 'A3', 'A4', 'R2'],
    [...doorSeams('L'), ...doorSeams('R'), ...lidSeam('BN', 'Bonnet to front wing')],
  );

const KVIST_PAIRS: readonly Pair[] = [
  ['P1', 'Platform front corner bolt', -300, 520, 200, 12],
  ['P2', 'Platform front mount bolt', 250, 560, 190, 12],
  ['P3', 'Platform middle mount bolt', 1050, 600, 185, 12],
  ['P4', 'Platform rear mount bolt', 1900, 600, 190, 12],
  ['P5', 'Platform rear corner bolt', 2700, 560, 260, 12],
  ['A1', 'Windscreen lower corner', 300, 640, 980],
  ['A2', 'Windscreen upper corner', 560, 590, 1520],
  ['B1', 'Cab rear lower corner', 1150, 700, 420],
];
const KVIST_LENGTHS: readonly Length[] = [
  ['P11', 'Across the front corners', 'P1L', 'P1R'],
  ['P22', 'Across the front mounts', 'P2L', 'P2R'],
  ['P33', 'Across the middle mounts', 'P3L', 'P3R'],
  ['P44', 'Across the rear mounts', 'P4L', 'P4R'],
  ['P24L', 'Platform diagonal', 'P2L', 'P4R'],
  ['P24R', 'Platform diagonal', 'P2R', 'P4L'],
  ['P35L', 'Rear diagonal', 'P3L', 'P5R'],
  ['P35R', 'Rear diagonal', 'P3R', 'P5L'],
  ['WS1', 'Windscreen diagonal', 'A1L', 'A2R'],
  ['WS2', 'Windscreen diagonal', 'A1R', 'A2L'],
];

/** The Kvist has no chart: these are the positions it really has, known to nobody in the demo. */
export const kvistShell = (): ChartDraft =>
  chartOf(
    pointsOf(KVIST_PAIRS, [], () => 4),
    KVIST_LENGTHS,
    [],
    [],
    [],
  );

const MAAKE_PAIRS: readonly Pair[] = [
  ['F1', 'Front leg end hole', -380, 370, 300, 14],
  ['F2', 'Front crossmember bolt', 40, 380, 225, 12],
  ['M1', 'Bulkhead foot seam', 620, 520, 185],
  ['S1', 'Sill front jacking hole', 820, 640, 165, 20],
  ['S2', 'Sill rear jacking hole', 1760, 645, 168, 20],
  ['C1', 'Rear crossmember hole', 1950, 450, 225, 14],
  ['R1', 'Rear spring front eye', 2050, 430, 240, 14],
  ['R2', 'Rear leg end hole', 2980, 400, 350, 14],
  ['A1', 'A post lower hinge bolt', 760, 650, 420, 10],
  ['A2', 'A post upper hinge bolt', 765, 650, 640, 10],
  ['B1', 'B post foot', 1720, 645, 260],
  ['B2', 'B post striker bolt', 1725, 655, 560, 10],
];
const MAAKE_LENGTHS: readonly Length[] = [
  ['FW1', 'Across the front leg ends', 'F1L', 'F1R'],
  ['CD1', 'Floor diagonal', 'S1L', 'S2R', 'level'],
  ['CD2', 'Floor diagonal', 'S1R', 'S2L', 'level'],
  ['CL1', 'Sill length', 'S1L', 'S2L'],
  ['CL2', 'Sill length', 'S1R', 'S2R'],
  ['DL1', 'Door opening, hinge to striker', 'A2L', 'B2L', 'tip', 2],
  ['DR1', 'Door opening, hinge to striker', 'A2R', 'B2R', 'tip', 2],
  ['DL2', 'Door opening diagonal', 'A2L', 'B1L'],
  ['DR2', 'Door opening diagonal', 'A2R', 'B1R'],
  ['RW1', 'Across the rear leg ends', 'R2L', 'R2R'],
];

/** The roadster's figures, as they were read off a sister car. */
export const maakeChart = (): ChartDraft =>
  chartOf(
    pointsOf(MAAKE_PAIRS, [], () => 3),
    MAAKE_LENGTHS,
    ['F1 F2 M1 S1 S2 C1 R1 R2', 'M1 A1 A2', 'S2 B1 B2', 'S1 A1'],
    ['F1', 'F2', 'M1', 'S1', 'S2', 'R2', 'A2', 'B2'],
    [...doorSeams('L'), ...doorSeams('R')],
  );
