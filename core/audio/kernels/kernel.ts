import { bytesOf } from '../growingBytes.ts';

/** What every kernel has: memory that both sides see. */
export interface KernelExports {
  memory: { readonly buffer: ArrayBuffer };
}

/** What of WebAssembly is used here; core is compiled without the names of browsers. */
interface Compiling {
  validate(bytes: Uint8Array): boolean;
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object) => { exports: unknown };
  CompileError: new () => Error;
}

/**
 * A kernel compiled from `source/`, ready to run; null where this machine, or the page's rules, allow no
 * WebAssembly with SIMD: then the plain form does the work.
 * @param wasm its bytes as text, as `npm run kernels` writes them
 */
export function openKernel<Exports extends KernelExports>(wasm: string): Exports | null {
  const bytes = bytesOf(wasm);
  const { WebAssembly: compiling } = globalThis as { WebAssembly?: Compiling };
  if (!compiling?.validate(bytes)) return null;
  try {
    return new compiling.Instance(new compiling.Module(bytes)).exports as Exports;
  } catch (refused) {
    if (refused instanceof compiling.CompileError) return null;
    throw refused;
  }
}
