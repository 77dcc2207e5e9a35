import { Room } from '../../maths/linear/room';
import type { Component } from '../../shell/components';
import { AXIS, isMean, sideShare } from './model';
import { share, type Hinge, type PatternPoint } from './sections';
import type { Weights } from './weights';

/** Of each axis one component that moves both sides alike and one that moves them apart: all others sum up the same. */
const KINDS = [
  ['mash', 'diamond'],
  ['sway', 'spread'],
  ['sag', 'twist'],
] as const satisfies readonly (readonly [Component, Component])[];

const SUMS = new Room();

/**
 * Products W b of the weights with the columns of hinges. A column is (x − hinge) / (end − hinge) at the points from one station
 * to another, so that sums of W's columns and of their stations' multiples, taken from the first station up to each, give every
 * product by two differences: it takes as long for a hundred points as for one. They are megabytes, so that those of one shell lie where
 * those of the last lay, and are made anew for one that is asked again after another.
 */
export class HingeSums {
  /** Points by their station, and the station of each, from the middle, mm. */
  private readonly order: readonly number[];
  private readonly from: number;
  /** Of each component, for each place in the order: the sum of the columns of W before it, and of these by their stations. */
  private sums: readonly { readonly columns: Float64Array; readonly stations: Float64Array }[] = [];

  constructor(
    private readonly points: readonly PatternPoint[],
    private readonly weights: Weights,
  ) {
    this.order = points.map((_, i) => i).sort((a, b) => points[a]!.at[0] - points[b]!.at[0]);
    this.from = points.reduce((sum, { at }) => sum + at[0] / points.length, 0);
  }

  private layOut(): void {
    if (SUMS.isHeldBy(this)) return;
    const each = this.weights.size * (this.points.length + 1);
    const room = SUMS.of(2 * KINDS.flat().length * each, this);
    const part = (k: number) => room.subarray(k * each, (k + 1) * each);
    this.sums = KINDS.flat().map((component, k) => this.summed(component, part(2 * k), part(2 * k + 1)));
  }

  /** W b of one component of a hinge. */
  product(hinge: Hinge, component: Component): Float64Array {
    this.layOut();
    const { order, points, from, weights } = this;
    const { size } = weights;
    const moves = (place: number) => share(hinge, points[order[place]!]!.at[0]) !== 0;
    let first = 0;
    while (first < order.length && !moves(first)) first++;
    let end = order.length;
    while (end > first && !moves(end - 1)) end--;
    const { columns, stations } = this.sums[2 * AXIS[component] + (isMean(component) ? 0 : 1)]!;
    const at = hinge.hinge - from;
    const lever = hinge.end - hinge.hinge;
    const [low, high] = [first * size, end * size];
    const product = new Float64Array(size);
    for (let i = 0; i < size; i++)
      product[i] = (stations[high + i]! - stations[low + i]! - at * (columns[high + i]! - columns[low + i]!)) / lever;
    return product;
  }

  private summed(component: Component, columns: Float64Array, stations: Float64Array) {
    const { order, points, from, weights } = this;
    const { size } = weights;
    columns.fill(0, 0, size);
    stations.fill(0, 0, size);
    order.forEach((point, place) => {
      const { side, at } = points[point]!;
      const own = sideShare(component, side);
      const column = weights.column(3 * point + AXIS[component]);
      const station = at[0] - from;
      const [last, next] = [place * size, (place + 1) * size];
      for (let i = 0; i < size; i++) {
        const value = own * column[i]!;
        columns[next + i] = columns[last + i]! + value;
        stations[next + i] = stations[last + i]! + station * value;
      }
    });
    return { columns, stations };
  }
}
