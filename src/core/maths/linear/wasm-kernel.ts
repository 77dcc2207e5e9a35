import type { Kernel } from './loops';
import { KERNEL } from './kernel-module';
import { plainKernel } from './plain-kernel';

interface Exports {
  readonly memory: WebAssembly.Memory;
  free(): number;
  factorise(m: number, size: number): number;
  invert(lower: number, columns: number, inverse: number, size: number): void;
  coloured(lower: number, size: number, noise: number, count: number, result: number): void;
  product(a: number, rows: number, b: number, columns: number, length: number, result: number): void;
  solve(lower: number, size: number, x: number): void;
  times(matrix: number, size: number, v: number, result: number): void;
  less(matrix: number, size: number, u: number, v: number, count: number): void;
  factoriseBlocks(count: number, ...placesAndNothing: readonly number[]): number;
  solveBlocks(count: number, ...places: readonly number[]): void;
}

/** Below so many rows the way into the module's memory and back costs more than it saves. */
const WORTH_IT = 12;
const PAGE = 65_536;

/** The compiled kernel; undefined where the machine has no WebAssembly with SIMD, or forbids it. */
export function wasmKernel(): Kernel | undefined {
  try {
    const bytes = Uint8Array.from(atob(KERNEL), (character) => character.charCodeAt(0));
    const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), {});
    return kernelOf(exports as unknown as Exports);
  } catch {
    return undefined;
  }
}

function kernelOf(wasm: Exports): Kernel {
  const start = Math.ceil(wasm.free() / 16) * 16;
  /** The factor or matrix that lies at the start, which the next substitution or product need not lay there again. */
  let resident: Float64Array | undefined;
  /** The panels that lie there, and where everything of them does and the right-hand side. */
  let residentBlocks: { readonly values: Float64Array; readonly places: readonly number[] } | undefined;

  /** Lays arrays out one after the other, given or by their number of elements, and says where each begins. */
  function layOut(...parts: readonly (Float64Array | Int32Array | number)[]): number[] {
    const places: number[] = [];
    let end = start;
    for (const part of parts) {
      places.push(end);
      end += Math.ceil((typeof part === 'number' ? 8 * part : part.byteLength) / 16) * 16;
    }
    resident = residentBlocks = undefined;
    const missing = end - wasm.memory.buffer.byteLength;
    if (missing > 0) wasm.memory.grow(Math.ceil(missing / PAGE));
    const { buffer } = wasm.memory;
    const [all, whole] = [new Float64Array(buffer), new Int32Array(buffer)];
    parts.forEach((part, i) => {
      if (part instanceof Float64Array) all.set(part, places[i]! / 8);
      else if (typeof part !== 'number') whole.set(part, places[i]! / 4);
    });
    return places;
  }

  /** What is laid out first: nothing but its length where it lies there already. */
  const lies = (matrix: Float64Array) => (resident === matrix ? matrix.length : matrix);
  const view = (at: number, length: number) => new Float64Array(wasm.memory.buffer, at, length);

  return {
    name: 'simd',
    factorise(matrix, size) {
      if (size < WORTH_IT) return plainKernel.factorise(matrix, size);
      const [m] = layOut(matrix) as [number];
      const definite = wasm.factorise(m, size) === 1;
      matrix.set(view(m, matrix.length));
      if (definite) resident = matrix;
      return definite;
    },
    invert(lower, size) {
      if (size < WORTH_IT) return plainKernel.invert(lower, size);
      const [l, columns, inverse] = layOut(lies(lower), size * size, size * size) as [number, number, number];
      wasm.invert(l, columns, inverse, size);
      resident = lower;
      return view(inverse, size * size).slice();
    },
    coloured(lower, size, noise, count) {
      if (size < WORTH_IT) return plainKernel.coloured(lower, size, noise, count);
      const [l, z, result] = layOut(lies(lower), noise, count * size) as [number, number, number];
      wasm.coloured(l, size, z, count, result);
      resident = lower;
      return view(result, count * size).slice();
    },
    product(a, b, length) {
      if (length < WORTH_IT) return plainKernel.product(a, b, length);
      const [rows, columns] = [a.length / length, b.length / length];
      const [p, q, result] = layOut(a, b, rows * columns) as [number, number, number];
      wasm.product(p, rows, q, columns, length, result);
      return view(result, rows * columns).slice();
    },
    solve(lower, size, b) {
      if (size < WORTH_IT) return plainKernel.solve(lower, size, b);
      const [l, x] = layOut(lies(lower), b) as [number, number];
      wasm.solve(l, size, x);
      resident = lower;
      return view(x, size).slice();
    },
    multiplier(matrix, size) {
      if (size < WORTH_IT) return plainKernel.multiplier(matrix, size);
      let laid = false;
      return (v) => {
        const [m, vector, result] = layOut(laid ? lies(matrix) : matrix, v, size) as [number, number, number];
        wasm.times(m, size, vector, result);
        resident = matrix;
        laid = true;
        return view(result, size).slice();
      };
    },
    lessen(matrix, size, u, v) {
      if (size < WORTH_IT) return plainKernel.lessen(matrix, size, u, v);
      const [m, us, vs] = layOut(matrix, u, v) as [number, number, number];
      wasm.less(m, size, us, vs, u.length / size);
      matrix.set(view(m, matrix.length));
    },
    factoriseBlocks({ widths, first, panelAt, reachAt, reach, begins }, values, pivots, nothing) {
      const widest = widths.reduce((most, width) => Math.max(most, width), 0);
      const places = layOut(
        ...[widths, first, panelAt, reachAt, reach, begins, values],
        ...[pivots.length, pivots.length, widest * widest],
      );
      if (wasm.factoriseBlocks(widths.length, ...places, nothing) === 0) return false;
      values.set(view(places[6]!, values.length));
      pivots.set(view(places[7]!, pivots.length));
      return true;
    },
    solveBlocks({ widths, first, panelAt, reachAt, reach }, values, pivots, x) {
      if (residentBlocks?.values !== values) {
        const laid = layOut(widths, first, panelAt, reachAt, reach, values, pivots, x.length);
        residentBlocks = { values, places: laid };
      }
      const { places } = residentBlocks;
      const solution = view(places[7]!, x.length);
      solution.set(x);
      wasm.solveBlocks(widths.length, ...places);
      x.set(solution);
      return true;
    },
  };
}
