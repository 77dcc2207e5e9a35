import { goesThrough } from '../../maths/geometry/through';
import type { Vector } from '../../maths/geometry/vector';
import { sectionModulus, boxSection } from '../../structure/box-section';
import { once, onceFor } from '../../maths/once';
import { APART_FROM_METAL } from '../../shell/job/apart';
import type { Section } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { slackOf } from '../../structure/slack';
import { chooseBraces, type Bracing } from '../braces/choose';
import { touches, type BraceCandidate, type KeepOut } from '../braces/candidates';
import type { Proposal } from '../proposal';
import { frameAfter, type CutModel } from './cut-model';
import { HANDLING, stiffnessAfter, uncutSags } from './worked-stages';
import { bracesIn, END_STIFFNESS, strutsOf } from './stages';

/** A brace that is proposed: between which points, of which tube, on what. */
export interface ProposedBrace {
  readonly fromPointId: string;
  readonly toPointId: string;
  readonly sectionId: string;
  /** Bolted where both ends find a threaded hole, with a thread where it is to set a length right. */
  readonly kind: 'weldedTube' | 'adjustable' | 'boltedFrame';
  /** What each end would sit on. */
  readonly fromEnd: ProposedEnd;
  readonly toEnd: ProposedEnd;
  /** mm, between the points. */
  readonly length: number;
}

type ProposedEnd = 'doubled' | 'flange' | 'bolted';

export type BraceReason =
  /** What it holds, and how far it gave and gives, at the softest the shell can be, mm. */
  | { readonly kind: 'holds'; readonly lengthId: string; readonly before: number; readonly after: number }
  /** The way of a new panel that it stands clear of. */
  | { readonly kind: 'clears'; readonly ways: number }
  /** Both ends find a threaded hole. */
  | { readonly kind: 'bolts' }
  /** A length it holds that is outside what it may be, or that nobody can decide, by so much, mm: it is set right first. */
  | { readonly kind: 'sets'; readonly lengthId: string; readonly off: number }
  /** The hand's force sideways on its middle, and the stress it makes of what the tube bears. */
  | { readonly kind: 'bears'; readonly share: number };

export type BraceProposal = Proposal<ProposedBrace, BraceReason>;

export type BraceAdvice =
  | {
      readonly outcome: 'advised' | 'notEnough' | 'holdsAlready';
      readonly proposals: readonly BraceProposal[];
      /** Lengths that stay loose whatever is put in, by how much of their limit. */
      readonly stillLoose: readonly { readonly lengthId: string; readonly ratio: number }[];
    }
  | { readonly outcome: 'noPlaces' | 'noTubes' | 'loosePart'; readonly nodes: readonly string[] };

/** Somebody climbing on a brace, N; mild steel bears so much in bending, N/mm². */
const CLIMBED_ON = 800;
const BEARS = 235;
/** Minutes to cut, fit and weld one in, and to bolt one in. */
const MINUTES = { weldedTube: 25, adjustable: 30, boltedFrame: 15 } as const;
const MOST = 10;
const LONGEST = 1950;
/** As stiff as the shell was is stiff enough, whatever the limit says. */
export const AS_BEFORE = 1.05;
/**
 * How far a shell gives is known to a factor of two, how much of its stiffness a cut takes much better: what lost two thirds of
 * it is held too, where it gives a tenth of what it may.
 */
const LOST = 3;
const SHARE_NOTICED = 0.1;

/** Rooms that no brace may stand in during a stage: those that always hold, and the ways of panels that come in by then. */
export function keptClear(job: Job, cut: CutModel, stage: number): KeepOut[] {
  const coming = new Set(cut.stages.slice(0, stage + 1).flatMap(({ panels }) => panels.map(({ id }) => id)));
  return job.rows.keepOuts
    .filter(({ panelId }) => panelId === null || coming.has(panelId))
    .map((row) => ({
      min: [row.minX, row.minY, row.minZ],
      max: [row.maxX, row.maxY, row.maxZ],
      move: [row.moveX, row.moveY, row.moveZ],
    }));
}

/** The lightest tube of the shop that somebody can climb on over this length; the stoutest where none bears it. */
export function tubeFor(sections: readonly Section[], length: number): Section | undefined {
  const byWeight = sections.toSorted((a, b) => boxSection(a).A - boxSection(b).A);
  return byWeight.find((section) => stressShare(section, length) <= 1) ?? byWeight.at(-1);
}

/** Bending stress of a tube with somebody on its middle, F·L/4 over its modulus, of what the steel bears. */
export const stressShare = (section: Pick<Section, 'width' | 'height' | 'wall'>, length: number): number =>
  (CLIMBED_ON * length) / 4 / sectionModulus(section) / BEARS;

/**
 * Proposes the fewest braces that, besides those planned, hold every length after a stage: chosen at the softest the shell can
 * be, since what holds then holds when it is stiffer. A length is held that gives no more than its limit, and not three times
 * what it gave in the uncut shell; as much as it gave there is always enough.
 *
 * @param forbidden pairs of points somebody said no to
 */
export const adviseBraces = (
  job: Job,
  cut: CutModel,
  stage: number,
  forbidden: readonly (readonly [string, string])[],
  progress: (share: number) => void = () => undefined,
): BraceAdvice =>
  once(adviceOn(cut), JSON.stringify([stage, forbidden]), () =>
    adviseAnew(job.without(APART_FROM_METAL), cut, stage, { forbidden, progress }),
  );

/** The next page of the same shell proposes the same. */
const adviceOn = onceFor((_: CutModel) => new Map<string, BraceAdvice>());

interface Asked {
  readonly forbidden: readonly (readonly [string, string])[];
  readonly progress: (share: number) => void;
}

function adviseAnew(job: Job, cut: CutModel, stage: number, { forbidden, progress }: Asked): BraceAdvice {
  const soft = cut.stiffness.low;
  const { model } = cut.structure;
  const whole = frameAfter(cut, -1, soft);
  const uncutState = stiffnessAfter(cut, -1, soft, false);
  if (!uncutState.ok) return { outcome: 'loosePart', nodes: uncutState.loose };
  const sags = uncutSags(cut, soft);
  const { goneIds, left } = cut.stages[stage]!;
  const isThere = (node: number) => !goneIds.has(model.nodes[node]!.pointId ?? '');
  const lengths = cut.lengths.flatMap((length, d) => {
    // A length that loses an end with the metal is not there to be held.
    if (!isThere(length.from) || !isThere(length.to)) return [];
    const slack = slackOf(uncutState.value, length, HANDLING, sags[d]!);
    const before = slack ? Math.max(Math.abs(slack.push), Math.abs(slack.worst)) : 0;
    const lost = Math.max(LOST * before, SHARE_NOTICED * length.limit);
    return [{ ...length, limit: Math.max(Math.min(length.limit, lost), AS_BEFORE * before) }];
  });
  const { sections } = job.rows;
  const metalAt = (node: number) =>
    model.members.filter(
      ({ code, from, to, condition }) =>
        (from === node || to === node) && condition >= 0.5 && (left.get(code) ?? 1) >= 0.5,
    ).length;
  const nodes = model.nodes.flatMap(({ pointId }, i) =>
    pointId !== null && !goneIds.has(pointId) && metalAt(i) > 0 ? [i] : [],
  );
  if (sections.length === 0) return { outcome: 'noTubes', nodes: [] };
  if (nodes.length < 2) return { outcome: 'noPlaces', nodes: [] };
  const nodeOf = new Map(model.nodes.map(({ pointId }, i) => [pointId, i]));
  const keepOut = keptClear(job, cut, stage);
  const takesBolt = new Set(job.rows.points.flatMap(({ id, kind }) => (kind === 'bolt' ? [id] : [])));
  const endOf = (node: number): ProposedEnd => {
    if (takesBolt.has(model.nodes[node]!.pointId ?? '')) return 'bolted';
    return metalAt(node) > 1 ? 'doubled' : 'flange';
  };
  const bolts = ({ from, to }: Pick<BraceCandidate, 'from' | 'to'>) =>
    endOf(from) === 'bolted' && endOf(to) === 'bolted';
  const planned = bracesIn(cut.braces, cut.stages, stage);
  const result = chooseBraces({
    ...{ frame: whole, stages: [], cut: frameAfter(cut, stage, soft), lengths, handling: HANDLING, most: MOST },
    ...{ planned: strutsOf(planned), progress },
    choice: {
      nodes,
      area: (length) => boxSection(tubeFor(sections, length)!).A,
      end: (node) => END_STIFFNESS[endOf(node)],
      maxLength: LONGEST,
      // The shortest stands best and is soonest out of the way; from one side to the other it bars the cabin.
      cost: ({ from, to, length }) =>
        length +
        (crosses(model.nodes[from]!.at, model.nodes[to]!.at) ? ACROSS : 0) +
        (bolts({ from, to }) ? 0 : WELDED),
      forbid: [
        ...forbidden.flatMap(([a, b]): (readonly [number, number])[] => {
          const [from, to] = [nodeOf.get(a), nodeOf.get(b)];
          return from === undefined || to === undefined ? [] : [[from, to]];
        }),
        ...planned.map(({ from, to }) => [from, to] as const),
      ],
      keepOut,
    },
  });
  if (!result.ok) return { outcome: 'loosePart', nodes: result.loose };
  const { value } = result;
  const ratios = value.after.map((row, d) => (row ? worst(row) / lengths[d]!.limit : 0));
  return {
    outcome: value.ok ? (value.braces.length === 0 ? 'holdsAlready' : 'advised') : 'notEnough',
    proposals: value.braces.map((_, k) => proposalOf(cut, lengths, k, value, sections, endOf, keepOut.length)),
    stillLoose: ratios.flatMap((ratio, d) => (ratio > 1 + 1e-9 ? [{ lengthId: lengths[d]!.id, ratio }] : [])),
  };
}

/** What barring the cabin counts for, mm of length. */
const ACROSS = 400;
/** What welding one in, burnt paint and grinding it off again count for, mm of length. */
const WELDED = 300;
const crosses = (a: Vector, b: Vector): boolean => a[1] * b[1] < 0 && Math.max(a[2], b[2]) > 450;

const worst = ({ push, worst: anywhere, sag }: { push: number; worst: number; sag: number }): number =>
  Math.max(Math.abs(push), Math.abs(anywhere), Math.abs(sag));

/** A brace is told to hold a length that would give so much more of its limit without it. */
const HOLDS = 0.05;
const MOST_HELD = 3;

function proposalOf(
  cut: CutModel,
  lengths: CutModel['lengths'],
  k: number,
  { braces, before, after, missing }: Bracing,
  sections: readonly Section[],
  endOf: (node: number) => ProposedBrace['fromEnd'],
  ways: number,
): BraceProposal {
  const { model } = cut.structure;
  const { from, to, length } = braces[k]!;
  const section = tubeFor(sections, length)!;
  const pointAt = (node: number) => model.nodes[node]!.pointId!;
  const mayGive = new Map(cut.lengths.map(({ id, limit }) => [id, limit]));
  const held = lengths
    .flatMap(({ id }, d) => {
      const [without, is] = [missing[k]![d], after[d]];
      const more = without && is ? (worst(without) - worst(is)) / mayGive.get(id)! : 0;
      return more > 0 ? [{ id, more, without: worst(without!), is: worst(is!) }] : [];
    })
    .toSorted((a, b) => b.more - a.more)
    // What it holds most is said however little that is.
    .filter(({ more }, i) => more > HOLDS || i === 0)
    .slice(0, MOST_HELD);
  const ends = { fromEnd: endOf(from), toEnd: endOf(to) };
  const sets = held.flatMap(({ id }) => offBy(cut, id) ?? []).toSorted((a, b) => Math.abs(b.off) - Math.abs(a.off))[0];
  const bolted = ends.fromEnd === 'bolted' && ends.toEnd === 'bolted';
  const kind = bolted ? 'boltedFrame' : sets ? 'adjustable' : 'weldedTube';
  return {
    what: {
      ...{ fromPointId: pointAt(from), toPointId: pointAt(to), sectionId: section.id, kind, length },
      ...ends,
    },
    cost: { minutes: MINUTES[kind] },
    gain: {
      before: Math.max(0, ...before.map((row) => (row ? worst(row) : 0))),
      after: Math.max(0, ...after.map((row) => (row ? worst(row) : 0))),
    },
    why: [
      ...held.map(({ id, without, is }) => ({ kind: 'holds' as const, lengthId: id, before: without, after: is })),
      ...(bolted ? [{ kind: 'bolts' as const }] : []),
      ...(kind === 'adjustable' && sets ? [{ kind: 'sets' as const, ...sets }] : []),
      ...(ways > 0 ? [{ kind: 'clears' as const, ways }] : []),
      { kind: 'bears', share: stressShare(section, length) },
    ],
  };
}

/** How far a dimension is from what it should be, where the last round did not find it inside: bracing freezes it so. */
function offBy(
  { latest }: CutModel,
  lengthId: string,
): { readonly lengthId: string; readonly off: number } | undefined {
  const judged = latest?.dimensions.find(({ dimension }) => dimension.id === lengthId)?.judged;
  return judged && judged.verdict !== 'inside' ? { lengthId, off: judged.deviation } : undefined;
}

/** A brace, and the room it stands in: the way in of a panel, or one that something else needs. */
export interface InTheWay {
  readonly code: string;
  readonly of: string;
  readonly isWayIn: boolean;
}

/** Braces of the plan that stand in the way of a panel when it comes in: they have to come out, or stand elsewhere. */
export function inTheWay(job: Job, cut: CutModel, stage: number): InTheWay[] {
  const { nodes } = cut.structure.model;
  const names = job.rows.keepOuts.filter(({ panelId }) => panelId === null || panelsBy(cut, stage).has(panelId));
  const rooms = keptClear(job, cut, stage);
  return bracesIn(cut.braces, cut.stages, stage).flatMap(({ brace, from, to }) =>
    rooms.flatMap((room, i) =>
      touches(room, nodes[from]!.at, nodes[to]!.at)
        ? [{ code: brace.code, of: names[i]!.name, isWayIn: names[i]!.panelId !== null }]
        : [],
    ),
  );
}

/**
 * Braces that go through where the sheet of a panel comes in again while they are in: they are cut out before it, or cannot come out in
 * one piece afterwards.
 */
export function trappedBy(job: Job, cut: CutModel, stage: number): { readonly code: string; readonly of: string }[] {
  const { nodes, sheets } = cut.structure.model;
  const coming = cut.stages.slice(0, stage + 1).flatMap(({ panels }) => panels);
  return bracesIn(cut.braces, cut.stages, stage).flatMap(({ brace, from, to }) =>
    coming.flatMap((panel) => {
      const codes = new Set(job.rows.panelParts.flatMap(({ panelId, code }) => (panelId === panel.id ? [code] : [])));
      const isThrough = sheets.some(
        (sheet) =>
          codes.has(sheet.code) &&
          !sheet.nodes.some((node) => node === from || node === to) &&
          goesThrough(nodes[from]!.at, nodes[to]!.at, sheet.nodes.map((node) => nodes[node]!.at) as unknown as Face),
      );
      return isThrough ? [{ code: brace.code, of: panel.part }] : [];
    }),
  );
}

type Face = Parameters<typeof goesThrough>[2];

/** Braces of the plan that stand on metal which leaves by this stage, and where. */
export function onMetalThatGoes(
  { braces, stages }: CutModel,
  stage: number,
): { readonly code: string; readonly at: string }[] {
  const { goneIds } = stages[stage]!;
  return braces.flatMap(({ brace, codes }) =>
    ([0, 1] as const).flatMap((end) =>
      goneIds.has([brace.fromPointId, brace.toPointId][end]!) ? [{ code: brace.code, at: codes[end] }] : [],
    ),
  );
}

const panelsBy = ({ stages }: CutModel, stage: number): ReadonlySet<string> =>
  new Set(stages.slice(0, stage + 1).flatMap(({ panels }) => panels.map(({ id }) => id)));
