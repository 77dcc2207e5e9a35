/**
 * Memory for matrices of which each is done with before the next is made. The system clears what it hands out and takes
 * it back when it pleases: a fresh matrix of 450 × 450 costs 0.8 ms where its factorisation takes 3, one that lies
 * where others lay a tenth of that.
 */
export class Room {
  private kept = new Float64Array(0);

  /** So many numbers, whatever they are; what lay there before is no more. */
  of(length: number): Float64Array {
    if (this.kept.length < length) this.kept = new Float64Array(length);
    return this.kept.subarray(0, length);
  }

  /** A copy that lies there. */
  copyOf(values: Float64Array): Float64Array {
    const copy = this.of(values.length);
    copy.set(values);
    return copy;
  }
}
