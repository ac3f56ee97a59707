/** A WebAssembly memory, as every host has it. */
export interface WasmMemory<B extends ArrayBufferLike = ArrayBuffer> {
  readonly buffer: B;
  /** Grows by pages; throws a RangeError if there are no more. */
  grow(pages: number): number;
}

/** Bytes of a WebAssembly page. */
export const PAGE = 65_536;

/** A compiled module, which can be instantiated any number of times. */
export type Compiled = object;

interface Platform {
  readonly WebAssembly: {
    Module: new (bytes: Uint8Array) => Compiled;
    Memory: new (limits: { initial: number; maximum: number; shared: boolean }) => WasmMemory<ArrayBufferLike>;
    Instance: new (code: Compiled, imports: object) => { readonly exports: object };
  };
  atob(text: string): string;
}

/** Core is written for no particular host; browsers, workers and Node share these globals. */
const platform = () => globalThis as unknown as Platform;

/** Compiles a module given in base64. Throws if WebAssembly, or a feature the module needs, is missing. */
export function compileWasm(base64: string): Compiled {
  const { WebAssembly: wasm, atob } = platform();
  return new wasm.Module(Uint8Array.from(atob(base64), (c) => c.charCodeAt(0)));
}

/** A memory of `initial` pages that may grow to `maximum`. */
export function wasmMemory(initial: number, maximum: number): WasmMemory {
  return new (platform().WebAssembly.Memory)({ initial, maximum, shared: false }) as WasmMemory;
}

/** The same as shared memory where the page may have it; otherwise this thread's own. */
export function sharedMemory(initial: number, maximum: number): WasmMemory<SharedArrayBuffer> {
  return new (platform().WebAssembly.Memory)({ initial, maximum, shared: true }) as WasmMemory<SharedArrayBuffer>;
}

/** Instantiates a module with its imports; `E` declares its exports. */
export function runWasm<E extends object>(code: Compiled, env: object): E {
  return new (platform().WebAssembly.Instance)(code, { env }).exports as E;
}
