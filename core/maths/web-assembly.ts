/** A memory of WebAssembly, as every place this runs in has it. */
export interface WasmMemory<B extends ArrayBufferLike = ArrayBuffer> {
  readonly buffer: B;
  /** Grows by a number of pages; throws a RangeError where there is no more. */
  grow(pages: number): number;
}

/** Bytes in a page of a WebAssembly memory. */
export const PAGE = 65_536;

/** Code that is compiled, and can be given a memory any number of times. */
export type Compiled = object;

interface Platform {
  readonly WebAssembly: {
    Module: new (bytes: Uint8Array) => Compiled;
    Memory: new (limits: { initial: number; maximum: number; shared: boolean }) => WasmMemory<ArrayBufferLike>;
    Instance: new (code: Compiled, imports: object) => { readonly exports: object };
  };
  atob(text: string): string;
}

/** The core is written for no one place; browsers, workers and Node have these alike. */
const platform = () => globalThis as unknown as Platform;

/** Compiles code that is written in base64. Throws where WebAssembly, or what the code needs of it, is missing. */
export function compileWasm(base64: string): Compiled {
  const { WebAssembly: wasm, atob } = platform();
  return new wasm.Module(Uint8Array.from(atob(base64), (c) => c.charCodeAt(0)));
}

/** A memory of `initial` pages that may grow to `maximum`. */
export function wasmMemory(initial: number, maximum: number): WasmMemory {
  return new (platform().WebAssembly.Memory)({ initial, maximum, shared: false }) as WasmMemory;
}

/** The same of a kind that threads can share, where the page may: elsewhere it is this thread's alone. */
export function sharedMemory(initial: number, maximum: number): WasmMemory<SharedArrayBuffer> {
  return new (platform().WebAssembly.Memory)({ initial, maximum, shared: true }) as WasmMemory<SharedArrayBuffer>;
}

/** Compiled code with what it asks of its host; `E` says what it offers. */
export function runWasm<E extends object>(code: Compiled, env: object): E {
  return new (platform().WebAssembly.Instance)(code, { env }).exports as E;
}
