import { slackByStage, type Slack } from '@/core/structure/slack';
import type { Computed } from './computed';
import { named } from './frame';
import { frameOf, lengthsOf, stagesOf, type SlackDocument } from './shell-file';

/** How one length gives; of one whose end is gone that alone. */
export type SlackRow =
  (Omit<Slack, 'node'> & { readonly id: string; readonly node: string }) | { readonly id: string; readonly gone: true };

/** `vinkel.slack/1`. */
export interface SlackAnswer {
  readonly format: 'vinkel.slack/1';
  readonly stages: readonly { readonly name: string; readonly dimensions: readonly SlackRow[] }[];
}

export const rowsOf = (document: SlackDocument, lengths: readonly (Slack | undefined)[]): SlackRow[] =>
  document.dimensions.map(({ id }, i) => {
    const slack = lengths[i];
    return slack ? { id, ...slack, node: document.nodes[slack.node]!.id } : { id, gone: true };
  });

/** A stage that nothing can be said of. */
export const looseReason = (stage: string | undefined, loose: readonly string[]): string =>
  `${stage === undefined ? 'before the first stage' : `stage "${stage}"`}: nothing holds ${named(loose)}: add a support or a member there`;

/** Computes how every length gives at every stage. */
export function computeSlack(document: SlackDocument): Computed<SlackAnswer> {
  const result = slackByStage(frameOf(document), stagesOf(document), lengthsOf(document), document.handling);
  if (!result.ok) return { ok: false, reason: looseReason(result.stage, result.loose) };
  const stages = result.stages.map(({ name, lengths }) => ({ name, dimensions: rowsOf(document, lengths) }));
  return { ok: true, value: { format: 'vinkel.slack/1', stages } };
}
