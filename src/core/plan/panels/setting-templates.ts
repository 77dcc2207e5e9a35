import type { HungPanel, PanelSetting } from '../../shell/job/entities';

type Draft = Omit<PanelSetting, 'id' | 'hungId'>;
type Shape = Pick<HungPanel, 'kind' | 'long' | 'high' | 'hungAt' | 'side'>;

/** So far a slot lets a panel go each way, and so finely one can set it, mm. */
const SLOT = { least: -4, most: 4, step: 0.5, inNow: 0 } as const;
/** Packed out or in by no more than this, mm; the shims on the shelf say in which steps. */
const SHIMS = { least: -3, most: 3, step: null, inNow: 0 } as const;
/** Hinges stand at this share of the height, or the width, from the middle. */
const HINGES = 0.3;

const slot = (name: string, way: Draft['way'], x: number, y: number): Omit<Draft, 'ordinal'> => ({
  ...{ name, kind: 'slot', x, y, way },
  ...SLOT,
});
const shims = (name: string, way: Draft['way'], x: number, y: number): Omit<Draft, 'ordinal'> => ({
  ...{ name, kind: 'shims', x, y, way },
  ...SHIMS,
});

/**
 * The six conditions that say where a panel of a kind is, as they are on most cars; each can be changed, or made a hold. A door:
 * each hinge along and out, both hinges up, the striker out. A lid: each hinge along and up, both sideways, its far edge up by
 * rubbers and catch. A tailgate the same, hung from its top. What is bolted: its bolts along its upper edge, and its foot.
 */
export function settingsFor({ kind, long, high, hungAt, side }: Shape): readonly Draft[] {
  const drafts = ((): Omit<Draft, 'ordinal'>[] => {
    if (kind === 'door') {
      const [at, far] = hungAt === 'rear' ? [long / 2, -long / 2] : [-long / 2, long / 2];
      const [upper, lower] = [HINGES * high, -HINGES * high];
      return [
        slot('Both hinges', 'high', at, lower),
        ...[slot('Upper hinge', 'long', at, upper), slot('Lower hinge', 'long', at, lower)],
        ...[shims('Upper hinge', 'out', at, upper), shims('Lower hinge', 'out', at, lower)],
        slot('Striker', 'out', far, 0),
      ];
    }
    if (kind === 'bonnet' || kind === 'bootLid' || (kind === 'skin' && side === 'centre')) {
      const atFront = hungAt === null ? kind === 'bootLid' : hungAt === 'front';
      const [at, far] = atFront ? [-long / 2, long / 2] : [long / 2, -long / 2];
      const [left, right] = [-high / 2, high / 2];
      return [
        ...[slot('Left hinge', 'long', at, left), slot('Right hinge', 'long', at, right)],
        slot('Both hinges', 'high', at, left),
        ...[shims('Left hinge', 'out', at, left), shims('Right hinge', 'out', at, right)],
        slot('Rubbers and catch', 'out', far, 0),
      ];
    }
    if (kind === 'tailgate') {
      const at = hungAt === 'bottom' ? -high / 2 : high / 2;
      const [left, right] = [-HINGES * long, HINGES * long];
      return [
        ...[slot('Left hinge', 'high', left, at), slot('Right hinge', 'high', right, at)],
        slot('Both hinges', 'long', left, at),
        ...[shims('Left hinge', 'out', left, at), shims('Right hinge', 'out', right, at)],
        slot('Striker', 'out', 0, -at),
      ];
    }
    const [front, rear, top, foot] = [-long / 2, long / 2, high / 2, -high / 2];
    return [
      ...[slot('Rear upper bolt', 'high', rear, top), slot('Front upper bolt', 'high', front, top)],
      slot('Upper bolts', 'long', rear, top),
      ...[shims('Rear upper bolt', 'out', rear, top), shims('Front upper bolt', 'out', front, top)],
      shims('Rear foot', 'out', rear, foot),
    ];
  })();
  return drafts.map((draft, ordinal) => ({ ...draft, ordinal }));
}
