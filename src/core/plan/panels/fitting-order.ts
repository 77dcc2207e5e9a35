/** A seam between two parts, and how well a gap is set along it: variance over the square of its limit, weighed by how much is seen. */
export interface FitSeam {
  readonly code: string;
  readonly a: string;
  readonly b: string;
  /** One standard deviation of one part set by the other across it, mm. */
  readonly sd: number;
  /** mm */
  readonly limit: number;
  readonly weight: number;
}

/** A part: one that is sure is where it belongs, and so is whatever else is. */
export interface FitPart {
  readonly id: string;
  readonly sure: boolean;
}

/** One part set by another across a seam, or the part one begins with. */
export interface FitStep {
  readonly id: string;
  readonly by?: { readonly id: string; readonly seam: string };
  /** What has added up when it is set, from where one began, mm: one standard deviation. */
  readonly sd: number;
}

export interface FittingOrder {
  readonly steps: readonly FitStep[];
  /** The seam that ends worst, and what has added up across it, mm: one standard deviation; absent with no seam. */
  readonly worst?: { readonly seam: string; readonly sd: number; readonly share: number };
  /** Parts that no seam ties to the others. */
  readonly apart: readonly string[];
  readonly proven: boolean;
}

/** One part comes before another. */
export type Before = readonly [string, string];

/** So many parts set in every way; of more, the best of what a beam keeps. */
const EVERY_WAY = 9;
const BEAM = 400;
/** The whole of what is sure is one part, where everything begins. */
const GROUND = '';

interface State {
  readonly steps: readonly FitStep[];
  /** Variance between any two parts that are set, by their names. */
  readonly between: ReadonlyMap<string, number>;
  /** The worst share over the seams that are closed, sorted from the worst. */
  readonly shares: readonly number[];
}

/**
 * The order in which panels are set, each by one that is set already, and the one to begin with, so that the worst seam is as
 * good as can be. What is set across a seam adds that seam's variance; across a seam that closes a ring everything along the
 * way between its two parts has added up. Equal orders are told apart by the next worst seam, then by fewer links.
 */
export function fittingOrder(
  parts: readonly FitPart[],
  seams: readonly FitSeam[],
  before: readonly Before[],
): FittingOrder {
  const called = (id: string) => (parts.find((part) => part.id === id)?.sure ? GROUND : id);
  const own = seams.flatMap((seam) => {
    const [a, b] = [called(seam.a), called(seam.b)];
    return a === b ? [] : [{ ...seam, a, b }];
  });
  const loose = parts.filter(({ sure }) => !sure).map(({ id }) => id);
  const hasGround = parts.some(({ sure }) => sure);
  const rules = before.filter(([a, b]) => called(a) !== GROUND && called(b) !== GROUND);
  const reach = reachable(hasGround ? [GROUND] : loose.slice(0, 1), own);
  const tied = hasGround ? loose.filter((id) => reach.has(id)) : largestPiece(loose, own);
  const apart = loose.filter((id) => !tied.includes(id));
  const inside = own.filter(({ a, b }) => [a, b].every((id) => id === GROUND || tied.includes(id)));
  const free = (id: string, set: ReadonlySet<string>) =>
    rules.every(([a, b]) => b !== id || set.has(a) || !tied.includes(a));
  const begin: State[] = hasGround
    ? [{ steps: [], between: new Map(), shares: [] }]
    : tied
        .filter((id) => free(id, new Set()))
        .map((id) => ({ steps: [{ id, sd: 0 }], between: new Map(), shares: [] }));
  let states = begin;
  const every = tied.length <= EVERY_WAY;
  const count = hasGround ? tied.length : Math.max(0, tied.length - 1);
  let proven = every;
  for (let i = 0; i < count; i++) {
    const next = states.flatMap((state) => onwards(state, inside, hasGround, free));
    if (next.length === 0) break;
    const sorted = unique(next).toSorted(compare);
    if (!every && sorted.length > BEAM) proven = false;
    states = every ? sorted : sorted.slice(0, BEAM);
  }
  const best = states.toSorted(compare)[0] ?? { steps: [], between: new Map(), shares: [] };
  const worst = inside
    .map((seam) => {
      const sd = Math.sqrt(best.between.get(pairOf(seam.a, seam.b)) ?? 0);
      return { seam: seam.code, sd, share: (seam.weight * sd) / seam.limit };
    })
    .toSorted((a, b) => b.share - a.share)[0];
  return { steps: best.steps, ...(worst ? { worst } : {}), apart, proven };
}

const pairOf = (a: string, b: string): string => (a < b ? `${a}\n${b}` : `${b}\n${a}`);

/** Every part that can be set next, by every seam that ties it to one that is. */
function onwards(
  state: State,
  seams: readonly FitSeam[],
  hasGround: boolean,
  free: (id: string, set: ReadonlySet<string>) => boolean,
): State[] {
  const set = new Set([...(hasGround ? [GROUND] : []), ...state.steps.map(({ id }) => id)]);
  return seams.flatMap((seam) => {
    const [by, id] = set.has(seam.a) ? [seam.a, seam.b] : [seam.b, seam.a];
    if (!set.has(by) || set.has(id) || !free(id, set)) return [];
    const between = new Map(state.between);
    for (const other of set) {
      const along = other === by ? 0 : state.between.get(pairOf(other, by))!;
      between.set(pairOf(other, id), along + seam.sd ** 2);
    }
    const closed = seams.flatMap((each) => {
      const other = each.a === id ? each.b : each.b === id ? each.a : undefined;
      if (other === undefined || !set.has(other)) return [];
      return [(each.weight * Math.sqrt(between.get(pairOf(other, id))!)) / each.limit];
    });
    const first = hasGround ? GROUND : state.steps[0]!.id;
    return [
      {
        steps: [
          ...state.steps,
          { id, by: { id: by, seam: seam.code }, sd: Math.sqrt(between.get(pairOf(first, id))!) },
        ],
        between,
        shares: [...state.shares, ...closed].toSorted((a, b) => b - a),
      },
    ];
  });
}

/** The same parts set with the same variances between them are one, whatever their order. */
function unique(states: readonly State[]): State[] {
  const known = new Map<string, State>();
  for (const state of states) {
    const key =
      [...state.between]
        .map(([pair, variance]) => `${pair} ${variance.toFixed(9)}`)
        .toSorted()
        .join('\n') +
      state.steps
        .map(({ id }) => id)
        .toSorted()
        .join(' ');
    const other = known.get(key);
    if (!other || compare(state, other) < 0) known.set(key, state);
  }
  return [...known.values()];
}

const NEAR = 1e-12;

/** Worst seam first, then the next worst; then what has added up in all. */
function compare(a: State, b: State): number {
  for (let i = 0; i < Math.max(a.shares.length, b.shares.length); i++) {
    const by = (a.shares[i] ?? 0) - (b.shares[i] ?? 0);
    if (Math.abs(by) > NEAR) return by;
  }
  const sum = ({ steps }: State) => steps.reduce((total, { sd }) => total + sd, 0);
  return sum(a) - sum(b);
}

function reachable(from: readonly string[], seams: readonly FitSeam[]): ReadonlySet<string> {
  const reached = new Set(from);
  for (let more = true; more;) {
    more = false;
    for (const { a, b } of seams)
      if (reached.has(a) !== reached.has(b)) {
        reached.add(a).add(b);
        more = true;
      }
  }
  return reached;
}

/** Of parts with nothing sure among them those that most hang together. */
function largestPiece(parts: readonly string[], seams: readonly FitSeam[]): readonly string[] {
  const pieces = parts.map((id) => parts.filter((other) => reachable([id], seams).has(other)));
  return pieces.reduce<readonly string[]>((most, piece) => (piece.length > most.length ? piece : most), []);
}
