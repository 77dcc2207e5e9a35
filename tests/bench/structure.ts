import type { Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { chooseBraces, type BracingTask } from '@/core/plan/braces/choose';
import { choosePulls } from '@/core/plan/pulls/choose';
import { evenRoom } from '@/core/plan/pulls/room';
import { solveFrame } from '@/core/structure/frame';
import { STEEL, type Member, type ShearPanel, type ShellFrame } from '@/core/structure/shell-frame';
import { slackOf, stageStiffness, type CriticalLength } from '@/core/structure/slack';
import { factorise } from '@/core/structure/stiffness';
import type { Case } from './case';

const TUBE = { A: 291, Iy: 79_398, Iz: 148_988, J: 156_885 };
const STATIONS = 20;
const ROUND = 14;

/** A closed body of rings along the car: 20 stations of 14 nodes, members along and round, sheets between. */
function body(): ShellFrame {
  const random = seeded(280);
  const at = (s: number, r: number) => ROUND * s + (r % ROUND);
  const nodes = Array.from({ length: STATIONS * ROUND }, (_, i) => {
    const [s, r] = [Math.floor(i / ROUND), i % ROUND];
    const angle = (2 * Math.PI * r) / ROUND;
    const place: Vector = [
      200 * s + 8 * random.normal(),
      680 * Math.cos(angle) + 8 * random.normal(),
      700 + 520 * Math.sin(angle) + 8 * random.normal(),
    ];
    return { id: `N${i}`, at: place };
  });
  const members: Member[] = [];
  const panels: ShearPanel[] = [];
  const member = (from: number, to: number) => void members.push({ ...STEEL, ...TUBE, id: `${from}-${to}`, from, to });
  for (let s = 0; s < STATIONS; s++)
    for (let r = 0; r < ROUND; r++) {
      member(at(s, r), at(s, r + 1));
      if (s + 1 === STATIONS) continue;
      member(at(s, r), at(s + 1, r));
      if (r % 3 !== 0)
        panels.push({
          ...{ ...STEEL, id: `p${s}-${r}`, t: 0.8 },
          nodes: [at(s, r), at(s, r + 1), at(s + 1, r + 1), at(s + 1, r)],
        });
    }
  const supports = [at(2, 10), at(2, 11), at(17, 10), at(17, 11)].map((node, i) => ({
    node,
    fix: (['x', 'y', 'z'] as const).filter((freedom) => freedom === 'z' || i === 0 || (i === 1 && freedom === 'x')),
  }));
  return { nodes, members, panels, struts: [], supports };
}

const frame = body();
const at = (s: number, r: number) => ROUND * s + r;
const lengths: CriticalLength[] = Array.from({ length: 10 }, (_, i) => ({
  ...{ id: `D${i}`, from: at(4 + (i % 5) * 2, i % 7), to: at(6 + (i % 5) * 2, (i % 7) + 7) },
  limit: 0.25,
}));
const cut = frame.members.filter(
  ({ from }) => Math.floor(from / ROUND) >= 8 && Math.floor(from / ROUND) < 12 && from % ROUND < 5,
);
const stages = [{ name: 'side out', remove: cut.map(({ id }) => id), add: [] }];
const stage = stageStiffness(frame, []);
if (!stage.ok) throw new Error(stage.loose.join());
const task: BracingTask = {
  ...{ frame, stages, lengths, handling: 200, most: 6 },
  choice: {
    nodes: Array.from({ length: 64 }, (_, i) => at(3 + Math.floor(i / 5), (3 * i) % ROUND)),
    ...{ area: () => 224, maxLength: 2400, forbid: [], keepOut: [] },
  },
};
/** Five hundred pulls, of which three are to bring ten nodes back while twelve stay. */
const pulls = Array.from({ length: 500 }, (_, i) => ({
  node: at(2 + (i % 16), Math.floor(i / 16)),
  direction: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
    [-1, 0, 0],
  ][i % 4] as unknown as Vector,
  most: 8000,
}));
const wanted = Array.from({ length: 10 }, (_, i) => ({
  ...{ node: at(15 + (i % 4), i), limit: 1.5 },
  move: [8 - i / 2, (i % 3) - 1, 2] as const,
}));
const keep = Array.from({ length: 12 }, (_, i) => ({ node: at(1 + (i % 5), i), ...evenRoom(1) }));
const load = new Float64Array(6 * frame.nodes.length);
load[6 * at(10, 3) + 2] = 500;

/** The shell as a structure: about 280 nodes and 1,670 unknowns. */
export const structure: readonly Case[] = [
  { of: 'structure', what: 'assemble and factor, 1,670 unknowns', run: () => factorise(frame) },
  { of: 'structure', what: 'assemble, factor and solve', run: () => solveFrame(frame, load, true) },
  { of: 'structure', what: 'one length of a stage', run: () => slackOf(stage.value, lengths[0]!, 200, 0) },
  { of: 'structure', what: 'pulls, 500 candidates', run: () => choosePulls(frame, wanted, keep, pulls, 3) },
  { of: 'structure', what: 'braces, 10 lengths', run: () => chooseBraces(task) },
];
