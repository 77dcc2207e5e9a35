import type { Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { Braced } from '@/core/plan/braces/braced';
import { braceCandidates, strutOf } from '@/core/plan/braces/candidates';
import { chooseBraces, type BracingTask } from '@/core/plan/braces/choose';
import { choosePulls } from '@/core/plan/pulls/choose';
import { evenRoom } from '@/core/plan/pulls/room';
import { solveFrame } from '@/core/structure/frame';
import { STEEL, type Member, type ShearPanel, type ShellFrame } from '@/core/structure/shell-frame';
import { sagOf, slackOf, stageStiffness, type CriticalLength } from '@/core/structure/slack';
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
  ...{ id: `D${i}`, from: at(6 + (i % 2), 5 + (i % 7)), to: at(13 + (i % 2), i % 7) },
  limit: 0.018,
}));
/** The side between two stations: its members and sheets. */
const isCut = (node: number) => Math.floor(node / ROUND) >= 8 && Math.floor(node / ROUND) < 12 && node % ROUND < 5;
const cut = [
  ...frame.members.filter(({ from, to }) => isCut(from) || isCut(to)),
  ...frame.panels.filter(({ nodes }) => nodes.some(isCut)),
];
const stages = [{ name: 'side out', remove: cut.map(({ id }) => id), add: [] }];
const stage = stageStiffness(frame, []);
if (!stage.ok) throw new Error(stage.loose.join());
const task: BracingTask = {
  ...{ frame, stages, lengths, handling: 200, most: 6 },
  choice: {
    nodes: frame.nodes
      .flatMap((_, i) => (isCut(i) || i < at(3, 0) || i >= at(17, 0) ? [] : [i]))
      .filter((_, k) => (k % 11) % 3 === 0),
    ...{ area: () => 224, maxLength: 4000, forbid: [], keepOut: [] },
  },
};
/** A brace tried in a stage that stands, by one rank and by factorising the stage with it. */
const cutStage = stageStiffness(frame, stages);
if (!cutStage.ok) throw new Error(cutStage.loose.join());
const candidates = braceCandidates(frame, cutStage.value.stands, task.choice);
const bare = Braced.of(
  cutStage.value,
  { lengths, handling: 200, uncut: sagOf(stage.value, lengths) },
  task.choice.nodes,
);
const [tried] = candidates;

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
  { of: 'structure', what: `braces, 10 lengths, ${candidates.length} candidates`, run: () => chooseBraces(task) },
  { of: 'structure', what: 'a brace tried, by one rank', run: () => bare.ratiosWith(tried!) },
  {
    of: 'structure',
    what: 'a brace tried, by factorising anew',
    run: () => {
      const braced = stageStiffness(frame, stages, [strutOf(tried!, 'tried')]);
      return braced.ok && lengths.map((length) => slackOf(braced.value, length, 200, 0));
    },
  },
];
