import { plainKernel } from './plain-kernel';
import type { Kernel } from './loops';
import { wasmKernel } from './wasm-kernel';

/** The kernel of this machine: WebAssembly with SIMD where there is any. */
export const kernel: Kernel = wasmKernel() ?? plainKernel;
