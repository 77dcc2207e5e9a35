import { z } from 'zod';
import { chooseBraces } from '@/core/plan/braces/choose';
import type { Computed } from './computed';
import { pathText, type Fault, type Parsed } from './faults';
import {
  frameOf,
  lengthsOf,
  listOf,
  nodeIndex,
  parseShell,
  SLACK_FIELDS,
  stageFaults,
  stagesOf,
  unknownNode,
} from './shell-file';
import { looseReason, rowsOf, type SlackRow } from './slack';

const id = z.string().min(1);
const above = z.number().positive();
const vector = z.tuple([z.number(), z.number(), z.number()]);
const USUAL_MOST = 12;

const bracingDocument = z.strictObject({
  ...SLACK_FIELDS,
  stage: id,
  candidates: z.strictObject({
    nodes: z.array(id),
    section: z.strictObject({ A: above, Iy: above, Iz: above, J: above }),
    maxLength: above.optional(),
    forbid: z.array(z.tuple([id, id])).default([]),
    keepOut: z.array(z.strictObject({ min: vector, max: vector })).default([]),
    most: z.int().min(0).default(USUAL_MOST),
  }),
});
export type BracingDocument = z.infer<typeof bracingDocument>;

/** `vinkel.bracing/1`. */
export interface BracingAnswer {
  readonly format: 'vinkel.bracing/1';
  readonly ok: boolean;
  readonly braces: readonly {
    readonly from: string;
    readonly to: string;
    readonly length: number;
    readonly gain: number;
  }[];
  readonly slack: { readonly before: readonly SlackRow[]; readonly after: readonly SlackRow[] };
}

function choiceFaults(value: unknown): Fault[] {
  const { stage, candidates } = (value ?? {}) as { readonly stage?: unknown; readonly candidates?: unknown };
  const named = listOf(value, 'stages').map(({ name }) => name);
  const { nodes, forbid } = (candidates ?? {}) as { readonly nodes?: unknown; readonly forbid?: unknown };
  const path = ['candidates'];
  return [
    ...(typeof stage === 'string' && stage !== '' && !named.includes(stage)
      ? [{ path: 'stage', message: `no stage "${stage}"` }]
      : []),
    ...(Array.isArray(nodes) ? nodes : []).flatMap((name: unknown, i) =>
      unknownNode(value, name, [...path, 'nodes', i]),
    ),
    ...(Array.isArray(forbid) ? forbid : []).flatMap((pair: unknown, i) =>
      (Array.isArray(pair) ? pair : []).flatMap((name: unknown, k) =>
        unknownNode(value, name, [...path, 'forbid', i, k]),
      ),
    ),
    ...listOf(candidates, 'keepOut').flatMap(({ min, max }, i) =>
      Array.isArray(min) && Array.isArray(max) && min.some((least, k) => least > max[k])
        ? [{ path: pathText([...path, 'keepOut', i]), message: 'its min lies beyond its max' }]
        : [],
    ),
  ];
}

export const parseBracing = (value: unknown): Parsed<BracingDocument> =>
  parseShell(bracingDocument, value, [...stageFaults(value), ...choiceFaults(value)]);

/** Computes which braces hold a stage. */
export function computeBracing(document: BracingDocument): Computed<BracingAnswer> {
  const { candidates, stage } = document;
  const at = nodeIndex(document);
  const stages = stagesOf(document);
  const result = chooseBraces({
    frame: frameOf(document),
    stages: stages.slice(0, stages.findIndex(({ name }) => name === stage) + 1),
    lengths: lengthsOf(document),
    handling: document.handling,
    most: candidates.most,
    choice: {
      nodes: candidates.nodes.map((name) => at.get(name)!),
      area: () => candidates.section.A,
      ...(candidates.maxLength === undefined ? {} : { maxLength: candidates.maxLength }),
      forbid: candidates.forbid.map(([a, b]) => [at.get(a)!, at.get(b)!] as const),
      keepOut: candidates.keepOut,
    },
  });
  if (!result.ok) return { ok: false, reason: looseReason(result.stage, result.loose) };
  const { ok, braces, before, after } = result.value;
  const name = (node: number) => document.nodes[node]!.id;
  return {
    ok: true,
    value: {
      format: 'vinkel.bracing/1',
      ok,
      braces: braces.map(({ from, to, length, gain }) => ({ from: name(from), to: name(to), length, gain })),
      slack: { before: rowsOf(document, before), after: rowsOf(document, after) },
    },
  };
}
