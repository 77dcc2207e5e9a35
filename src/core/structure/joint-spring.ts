import { norm, subtract } from '../maths/geometry/vector';
import { boxSection } from './box-section';
import { panelSize, STEEL } from './shell-frame';
import { JOINTS, RIBBED, type ModelMember, type ModelSheet, type ShellModel } from './shell-model';

/** A row of fasteners: how far each gives in shear, N/mm, and from one to the next, mm. */
export interface JointRow {
  readonly stiffness: number;
  readonly pitch: number;
}

/** How a panel is joined to what stays. */
export type JointHold = 'tacked' | 'spots' | 'plugs' | 'seam' | 'brazed' | 'leaded' | 'bonded' | 'bolted';

/**
 * Rows as they are usual. A spot of 5 mm in two sheets of a millimetre gives some 30 kN/mm, a tack a third of it; a run, solder
 * and adhesive hold all along. What lead is run over is held by its spots.
 */
export const JOINT_ROWS: Readonly<Record<JointHold, JointRow>> = {
  tacked: { stiffness: 10_000, pitch: 60 },
  spots: { stiffness: 30_000, pitch: 40 },
  plugs: { stiffness: 40_000, pitch: 35 },
  seam: { stiffness: 40_000, pitch: 10 },
  brazed: { stiffness: 30_000, pitch: 10 },
  leaded: { stiffness: 30_000, pitch: 40 },
  bonded: { stiffness: 20_000, pitch: 10 },
  bolted: { stiffness: 12_000, pitch: 100 },
};

/**
 * What a joint leaves of a member it is put back by at both ends, of what the factory's own spots leave: n fasteners round an end
 * give as one spring n·k, two of them in line with the member's own E·A/L (springs one behind the other). Bending goes through the
 * same fasteners by their distance from the middle, in the same share.
 */
export function memberThrough({ nodes }: ShellModel, member: ModelMember, row: JointRow): number {
  const long = norm(subtract(nodes[member.to]!.at, nodes[member.from]!.at));
  const own = (JOINTS * STEEL.E * boxSection(member).A) / long;
  const round = 2 * (member.width + member.height);
  const through = ({ stiffness, pitch }: JointRow) => 1 / (1 + (2 * own) / ((stiffness * round) / pitch));
  return Math.min(1, through(row) / through(JOINT_ROWS.spots));
}

/**
 * What a joint leaves of a sheet it is put back by along all four edges, of what the factory's own spots leave. A shear flow q turns
 * the sheet by q/(G·t), and the slip of a pair of edges, q·pitch/k each, by twice that over the distance between them.
 */
export function sheetThrough(model: ShellModel, sheet: ModelSheet, row: JointRow): number {
  const { m, n } = panelSize({ nodes: model.nodes.map(({ code, at }) => ({ id: code, at })) }, sheet);
  const own = 1 / (JOINTS * RIBBED * STEEL.G * sheet.thickness);
  const through = ({ stiffness, pitch }: JointRow) => own / (own + ((2 * pitch) / stiffness) * (1 / m + 1 / n));
  return Math.min(1, through(row) / through(JOINT_ROWS.spots));
}
