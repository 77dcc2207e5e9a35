import { norm, subtract, type Vector } from '../../maths/geometry/vector';
import {
  conductionOf,
  coolsNoSooner,
  riseAt,
  seenFrom,
  type Conduction,
  type HeatSource,
  type Sheet,
} from '../../structure/heat';

export interface Plug {
  readonly at: Vector;
  /** What it puts into the sheet, J, and how long it is laid, s. */
  readonly energy: number;
  readonly seconds: number;
}

export interface WeldTask {
  readonly sheet: Sheet;
  readonly plugs: readonly Plug[];
  /** Between the end of one and the begin of the next, s. */
  readonly moving: number;
  /** How warm the metal may be where one is begun, K over its surroundings. */
  readonly most: number;
  /** Plugs laid within this of one that is begun must be as cool, mm. */
  readonly near: number;
  /** One must be laid before the other, by their places. */
  readonly hold: readonly (readonly [before: number, after: number])[];
  /** Heat from further away is left out, mm, and moments are told to so much, s: for many plugs. All of it, and exactly, where it is absent. */
  readonly rough?: { readonly reach: number; readonly moment: number };
}

export interface LaidPlug {
  readonly plug: number;
  readonly begun: number;
  /** K, where and when it is begun. */
  readonly rise: number;
}

export type WeldResult =
  | { readonly ok: true; readonly order: readonly LaidPlug[]; readonly finished: number; readonly proven: boolean }
  /** These wait for each other in a circle. */
  | { readonly ok: false; readonly circle: readonly number[] };

/** Up to so many plugs every order is looked at. */
const ALL_ORDERS = 8;
/** With more, so many orders are followed at once, and improved so many times at most. */
const BEAM = 80;
const MOST_SWEEPS = 8;

/** Some plugs laid in an order. */
interface Laid {
  readonly order: readonly LaidPlug[];
  readonly sources: readonly HeatSource[];
  readonly finished: number;
}

const NOTHING: Laid = { order: [], sources: [], finished: 0 };

/**
 * The order that finishes earliest. Each plug is begun at the first moment at which its own place and every plug already laid near it
 * are cool enough. Few plugs: every order, cut off where even without waiting it cannot be earlier. Many: the earliest of each length
 * are followed, then plugs are exchanged and moved in the order as long as that helps.
 */
export function weldOrder(task: WeldTask): WeldResult {
  const circle = circleIn(task);
  if (circle) return { ok: false, circle };
  const order = new WeldOrder(task);
  const isFew = task.plugs.length <= ALL_ORDERS;
  const best = isFew ? order.best() : order.improved(order.followed());
  return { ok: true, order: best.order, finished: best.finished, proven: isFew };
}

/** Plugs laid in an order that was decided elsewhere, each at the first moment it may be begun. */
export function laidIn(task: WeldTask, plugs: readonly number[]): Pick<Laid, 'order' | 'finished'> {
  const order = new WeldOrder(task);
  return plugs.reduce((laid, plug) => order.with(laid, plug), NOTHING);
}

class WeldOrder {
  private readonly conduction: Conduction;
  /** Which plugs must be laid before each. */
  private readonly needs: readonly (readonly number[])[];
  /** Which plugs lie near each. */
  private readonly near: readonly ReadonlySet<number>[];
  /** Which plugs' heat counts at each; none where all does. */
  private readonly within: readonly ReadonlySet<number>[];

  constructor(private readonly task: WeldTask) {
    const { plugs, hold, near, sheet } = task;
    this.conduction = conductionOf(sheet);
    this.needs = plugs.map((_, i) => hold.flatMap(([before, after]) => (after === i ? [before] : [])));
    const nearer = (most: number) =>
      plugs.map(({ at }) => new Set(plugs.flatMap((other, j) => (norm(subtract(at, other.at)) <= most ? [j] : []))));
    this.near = nearer(near);
    this.within = task.rough ? nearer(task.rough.reach) : [];
  }

  /** One more plug laid, at the first moment it may be begun. */
  with({ order, sources, finished }: Laid, plug: number): Laid {
    const { plugs, moving, most } = this.task;
    const { at, energy, seconds } = plugs[plug]!;
    const moment = this.task.rough?.moment;
    const near = this.near[plug]!;
    const seen = (place: number) => seenFrom(plugs[place]!.at, this.reaching(place, order, sources));
    const own = seen(plug);
    const watched = [own, ...order.flatMap((laid) => (near.has(laid.plug) ? [seen(laid.plug)] : []))];
    let begun = order.length === 0 ? 0 : finished + moving;
    for (;;) {
      const wait = watched.reduce((longest, seen) => {
        const rise = riseAt(this.conduction, seen, begun);
        return rise <= most * (1 + 1e-12)
          ? longest
          : Math.max(longest, coolsNoSooner(this.conduction, seen, begun, most, moment));
      }, 0);
      if (wait === 0) break;
      begun += wait;
    }
    const since = begun + seconds;
    return {
      order: [...order, { plug, begun, rise: riseAt(this.conduction, own, begun) }],
      sources: [...sources, { at, energy, since }],
      finished: since,
    };
  }

  /** The sources that count at a place. */
  private reaching(place: number, order: Laid['order'], sources: Laid['sources']): readonly HeatSource[] {
    const within = this.within[place];
    return within ? sources.filter((_, i) => within.has(order[i]!.plug)) : sources;
  }

  private ready({ order }: Laid): number[] {
    const laid = new Set(order.map(({ plug }) => plug));
    return this.needs.flatMap((needs, i) => (!laid.has(i) && needs.every((each) => laid.has(each)) ? [i] : []));
  }

  /** When all the rest would be laid if nothing had to cool. */
  private soonest(laid: Laid): number {
    const { plugs, moving } = this.task;
    const there = new Set(laid.order.map(({ plug }) => plug));
    const begins = laid.order.length === 0 ? -moving : 0;
    return plugs.reduce((sum, { seconds }, i) => (there.has(i) ? sum : sum + moving + seconds), laid.finished + begins);
  }

  best(): Laid {
    let best: Laid | undefined;
    const go = (laid: Laid): void => {
      if (laid.order.length === this.task.plugs.length) {
        if (!best || laid.finished < best.finished) best = laid;
        return;
      }
      const next = this.ready(laid)
        .map((plug) => this.with(laid, plug))
        .toSorted((a, b) => a.finished - b.finished);
      for (const each of next) if (!best || this.soonest(each) < best.finished) go(each);
    };
    go(NOTHING);
    return best ?? NOTHING;
  }

  followed(): Laid {
    let beam: Laid[] = [NOTHING];
    for (let length = 0; length < this.task.plugs.length; length++) {
      const seen = new Set<string>();
      beam = beam
        .flatMap((laid) => this.ready(laid).map((plug) => this.with(laid, plug)))
        .toSorted((a, b) => this.soonest(a) - this.soonest(b))
        // Of the same plugs laid with the same one last the earliest is enough.
        .filter(({ order }) => {
          const key = `${order
            .map(({ plug }) => plug)
            .toSorted((a, b) => a - b)
            .join()} ${order.at(-1)!.plug}`;
          return !seen.has(key) && seen.add(key);
        })
        .slice(0, BEAM);
    }
    return beam[0]!;
  }

  /** Plugs exchanged in the order, or moved elsewhere in it, as long as that finishes earlier. */
  improved(start: Laid): Laid {
    let best = start;
    const n = start.order.length;
    for (let sweep = 0, again = true; again && sweep < MOST_SWEEPS; sweep++) {
      again = false;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          if (i === j) continue;
          for (const tried of i < j ? [exchanged(best, i, j), moved(best, i, j)] : [moved(best, i, j)]) {
            const laid = this.inOrder(tried, best, Math.min(i, j));
            if (laid && laid.finished < best.finished - 1e-9) [best, again] = [laid, true];
          }
        }
    }
    return best;
  }

  /** The plugs laid in an order, the first so many as they were; undefined where it is not allowed, or no earlier. */
  private inOrder(plugs: readonly number[], like: Laid, same: number): Laid | undefined {
    let laid: Laid = {
      order: like.order.slice(0, same),
      sources: like.sources.slice(0, same),
      finished: same === 0 ? 0 : like.sources[same - 1]!.since,
    };
    const there = new Set(laid.order.map(({ plug }) => plug));
    for (const plug of plugs.slice(same)) {
      if (!this.needs[plug]!.every((each) => there.has(each))) return undefined;
      laid = this.with(laid, plug);
      there.add(plug);
      if (this.soonest(laid) >= like.finished) return undefined;
    }
    return laid;
  }
}

const plugsOf = ({ order }: Laid): number[] => order.map(({ plug }) => plug);

function exchanged(laid: Laid, i: number, j: number): number[] {
  const plugs = plugsOf(laid);
  [plugs[i], plugs[j]] = [plugs[j]!, plugs[i]!];
  return plugs;
}

function moved(laid: Laid, from: number, to: number): number[] {
  const plugs = plugsOf(laid);
  const [plug] = plugs.splice(from, 1);
  plugs.splice(to, 0, plug!);
  return plugs;
}

/** Plugs that wait for each other in a circle; undefined where none do. */
function circleIn({ plugs, hold }: WeldTask): number[] | undefined {
  const after = plugs.map((_, i) => hold.flatMap(([first, second]) => (first === i ? [second] : [])));
  const state = new Uint8Array(plugs.length);
  const path: number[] = [];
  const visit = (i: number): number[] | undefined => {
    if (state[i] === 2) return undefined;
    if (state[i] === 1) return path.slice(path.indexOf(i));
    state[i] = 1;
    path.push(i);
    for (const next of after[i]!) {
      const found = visit(next);
      if (found) return found;
    }
    path.pop();
    state[i] = 2;
    return undefined;
  };
  for (let i = 0; i < plugs.length; i++) {
    const found = visit(i);
    if (found) return found;
  }
  return undefined;
}
