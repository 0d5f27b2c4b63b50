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

/** Modules by their text; each is compiled once, and instances of their own are cheap. */
const modules = new Map<string, object | null>();

/**
 * A kernel compiled from `source/`, ready to run; null where this machine, or the page's rules, allow no
 * WebAssembly with SIMD: then the plain form does the work.
 * @param wasm its bytes as text, as `npm run kernels` writes them
 */
export function openKernel<Exports extends KernelExports>(wasm: string): Exports | null {
  const { WebAssembly: compiling } = globalThis as { WebAssembly?: Compiling };
  if (!compiling) return null;
  let module = modules.get(wasm);
  if (module === undefined) {
    module = compiled(compiling, bytesOf(wasm));
    modules.set(wasm, module);
  }
  return module && (new compiling.Instance(module).exports as Exports);
}

function compiled(compiling: Compiling, bytes: Uint8Array): object | null {
  if (!compiling.validate(bytes)) return null;
  try {
    return new compiling.Module(bytes);
  } catch (refused) {
    if (refused instanceof compiling.CompileError) return null;
    throw refused;
  }
}
