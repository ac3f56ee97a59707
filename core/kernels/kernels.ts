import { compileWasm, PAGE, runWasm, wasmMemory, type WasmMemory } from '../maths/web-assembly';
import { KERNELS } from './wasm';

interface Exports {
  gradient(
    points: number,
    count: number,
    affine: number,
    perm: number,
    table: number,
    mask: number,
    weight: number,
    work: number,
    out: number,
  ): void;
  cellular(
    points: number,
    count: number,
    affine: number,
    perm: number,
    table: number,
    mask: number,
    mean: number,
    weight: number,
    work: number,
    out: number,
  ): void;
  cellularSecond(
    points: number,
    count: number,
    affine: number,
    perm: number,
    table: number,
    mask: number,
    mean: number,
    weight: number,
    work: number,
    out: number,
    edges: boolean,
  ): void;
  curl(points: number, count: number, place: number, perm: number, table: number, weight: number, out: number): void;
  finish(
    values: number,
    count: number,
    bends: number,
    contrast: number,
    brightness: number,
    low: number,
    high: number,
  ): void;
  product(start: number, index: number, weight: number, rows: number, from: number, to: number): void;
  averages(start: number, index: number, code: number, weights: number, rows: number, base: number, to: number): void;
  fours(index: number, a: number, b: number, rows: number, base: number, to: number): void;
  smooth(
    start: number,
    neighbours: number,
    held: number,
    count: number,
    strength: number,
    from: number,
    to: number,
  ): void;
  centres(matrices: number, count: number, out: number): void;
  placed(points: number, count: number, axis: number, low: number, span: number, out: number): void;
  shifted(
    matrices: number,
    count: number,
    weights: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    own: boolean,
    points: number,
  ): void;
  sized(
    matrices: number,
    count: number,
    weights: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
  ): void;
  turned(
    matrices: number,
    count: number,
    weights: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    lengths: number,
  ): void;
  coloured(weights: number, count: number, table: number, out: number): void;
  normals(
    faceStart: number,
    corners: number,
    target: number,
    faces: number,
    positions: number,
    out: number,
    count: number,
  ): void;
}

type Buffered = Float32Array | Float64Array | Uint32Array | Uint16Array | Uint8Array;

const MOST_PAGES = 16_384;
/** Tables that stay from call to call lie below this address, what one call needs above it. */
const RESIDENT = 128 * 1024 * 1024;

/**
 * The compiled kernels with their memory. A call puts its buffers there, runs, and copies the result
 * out; tables that depend on connectivity alone are put there once and found again.
 */
export class Kernels {
  private top = RESIDENT;
  private residentTop = 1024;
  private generation = 0;
  private full = false;
  private readonly known = new WeakMap<object, { generation: number; at: number }>();

  private constructor(
    readonly run: Exports,
    private readonly memory: WasmMemory,
  ) {}

  /** Null where WebAssembly or SIMD is missing; callers go on in plain TypeScript then. */
  static make(): Kernels | null {
    try {
      const memory = wasmMemory(16, MOST_PAGES);
      return new Kernels(runWasm<Exports>(compileWasm(KERNELS), { memory }), memory);
    } catch {
      return null;
    }
  }

  /** Begins a call: what the last one put there is let go. */
  begin(): void {
    this.top = RESIDENT;
    if (!this.full) return;
    // All tables are let go, and those still in use come back one by one.
    this.full = false;
    this.generation++;
    this.residentTop = 1024;
  }

  /** Room for a number of bytes, 16 more behind them, cleared if asked for. */
  room(bytes: number, cleared = false): number {
    const at = this.top;
    this.top = (at + bytes + 31) & ~15;
    this.fit(this.top);
    if (cleared) this.clear(at, bytes);
    return at;
  }

  /** Puts a buffer there for this call. */
  put(data: Buffered): number {
    const at = this.room(data.byteLength);
    this.write(at, data);
    return at;
  }

  /** Puts a table there to stay, found again by the buffer itself; `convert` makes what is put. */
  keep(data: Buffered, convert?: (data: Buffered) => Buffered): number {
    const hit = this.known.get(data);
    if (hit && hit.generation === this.generation) return hit.at;
    const made = convert ? convert(data) : data;
    const size = (made.byteLength + 31) & ~15;
    if (size > RESIDENT / 2) return this.put(made);
    if (this.residentTop + size > RESIDENT) {
      // Not now: other tables of this very call lie there.
      this.full = true;
      return this.put(made);
    }
    const at = this.residentTop;
    this.residentTop += size;
    this.fit(this.residentTop);
    this.write(at, made);
    this.known.set(data, { generation: this.generation, at });
    return at;
  }

  /** A copy of numbers from there. */
  take(at: number, length: number): Float32Array<ArrayBuffer> {
    return new Float32Array(this.memory.buffer, at, length).slice();
  }

  /** Copies numbers from there into an array, from `offset` on. */
  takeInto(target: Float32Array, offset: number, at: number, length: number): void {
    target.set(new Float32Array(this.memory.buffer, at, length), offset);
  }

  /** Zeros. */
  clear(at: number, bytes: number): void {
    new Uint8Array(this.memory.buffer, at, bytes).fill(0);
  }

  /** Writes a buffer where there is room for it. */
  write(at: number, data: Buffered): void {
    new Uint8Array(this.memory.buffer, at, data.byteLength).set(
      new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
    );
  }

  private fit(bytes: number): void {
    const missing = Math.ceil((bytes - this.memory.buffer.byteLength) / PAGE);
    // A quarter more, so that it does not grow at every call.
    if (missing > 0)
      this.memory.grow(Math.min(MOST_PAGES - this.memory.buffer.byteLength / PAGE, missing + Math.ceil(missing / 4)));
  }
}

let made: Kernels | null | undefined;

/** The kernels of this thread, made at the first call; null where they cannot be had. */
export function kernels(): Kernels | null {
  if (made === undefined) made = Kernels.make();
  return made;
}

/** For tests and benchmarks: runs something in plain TypeScript, as the reference. */
export function withoutKernels<T>(work: () => T): T {
  const before = made;
  made = null;
  try {
    return work();
  } finally {
    made = before;
  }
}
