import type { Vector } from '../../maths/geometry/vector';
import { BODIES } from '../../shell/bodies';
import type { Job } from '../../shell/job/job';
import { knownPoints, structureOf, type JobStructure } from '../../plan/cut/structure-of';
import type { RoundJudgement } from '../../round/judge/judgement';

/** The shell as it is drawn behind the marks, so that anybody sees a car: chart axes, mm. */
export interface ShellDrawing {
  /** What is bolted to the shell: wings, bonnet, bumpers; the faintest. */
  readonly skin: readonly Face[];
  /** Sheets of the structure. */
  readonly faces: readonly Face[];
  readonly openings: readonly Face[];
  readonly members: readonly DrawnMember[];
  readonly wheels: readonly Wheel[];
}

export interface Face {
  readonly code: string;
  readonly name: string;
  readonly corners: readonly Vector[];
}

export interface DrawnMember {
  readonly code: string;
  readonly from: Vector;
  readonly to: Vector;
  /** As wide as its box, mm. */
  readonly width: number;
}

export interface Wheel {
  readonly at: Vector;
  readonly radius: number;
  readonly width: number;
}

const TYRE_WIDTH = 165;

/** What is drawn of a structure, with the car around it where its body is known. */
export function shellDrawing({ model, body }: JobStructure): ShellDrawing {
  const at = (node: number) => model.nodes[node]!.at;
  const structure = {
    faces: model.sheets.map(({ code, name, nodes }) => ({ code, name, corners: nodes.map(at) })),
    members: model.members.map(({ code, from, to, width, height }) => ({
      ...{ code, from: at(from), to: at(to) },
      width: (width + height) / 2,
    })),
  };
  if (!body) return { ...structure, skin: [], openings: [], wheels: [] };
  const { carry } = body.morph;
  const { skin, openings, places, wheels, size } = BODIES[body.type];
  const place = new Map(places.map((each) => [each.code, carry(each.at)]));
  const { frontAxle, axleHeight, radius } = wheels;
  const floor = carry([frontAxle, 0, axleHeight])[2] - carry([frontAxle, 0, axleHeight - radius])[2];
  return {
    ...structure,
    skin: skin.map(({ name, outline }) => ({ code: '', name, corners: outline.map((corner) => carry(corner)) })),
    openings: openings.map(({ name, corners }) => ({
      code: '',
      name,
      corners: corners.map((code) => place.get(code)!),
    })),
    wheels: [frontAxle, frontAxle + size.wheelbase].flatMap((x) =>
      [-1, 1].map((side) => ({
        at: carry([x, (side * size.track) / 2, axleHeight]),
        radius: Math.abs(floor),
        width: TYRE_WIDTH,
      })),
    ),
  };
}

/** The shell of a job as the sheet draws it; undefined where nothing is known to make it of. */
export function shellOf(job: Job, judgement: RoundJudgement | undefined): ShellDrawing | undefined {
  const structure = structureOf(job, knownPoints(job, judgement));
  return structure && shellDrawing(structure);
}

/** Everything that must be seen of it. */
export const cornersOf = ({ skin, members }: ShellDrawing): Vector[] => [
  ...skin.flatMap(({ corners }) => corners),
  ...members.flatMap(({ from, to }) => [from, to]),
];
