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
/** Tables kept from call to call lie below this address; buffers of one call lie above. */
const RESIDENT = 128 * 1024 * 1024;

/**
 * The compiled kernels and their memory. A call copies its buffers in, runs, and copies the result out; tables that
 * depend on connectivity alone are copied once and reused.
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

  /** Null if WebAssembly or SIMD is missing; callers then use plain TypeScript. */
  static make(): Kernels | null {
    try {
      const memory = wasmMemory(16, MOST_PAGES);
      return new Kernels(runWasm<Exports>(compileWasm(KERNELS), { memory }), memory);
    } catch {
      return null;
    }
  }

  /** Begins a call and frees the buffers of the last one. */
  begin(): void {
    this.top = RESIDENT;
    if (!this.full) return;
    // Drops all tables; those still in use come back one by one.
    this.full = false;
    this.generation++;
    this.residentTop = 1024;
  }

  /** Reserves bytes, with 16 spare bytes behind them; zeroed on request. */
  room(bytes: number, cleared = false): number {
    const at = this.top;
    this.top = (at + bytes + 31) & ~15;
    this.fit(this.top);
    if (cleared) this.clear(at, bytes);
    return at;
  }

  /** Copies a buffer in for this call. */
  put(data: Buffered): number {
    const at = this.room(data.byteLength);
    this.write(at, data);
    return at;
  }

  /** Copies a table in to stay, looked up by the buffer's identity; `convert` makes what is stored. */
  keep(data: Buffered, convert?: (data: Buffered) => Buffered): number {
    const hit = this.known.get(data);
    if (hit && hit.generation === this.generation) return hit.at;
    const made = convert ? convert(data) : data;
    const size = (made.byteLength + 31) & ~15;
    if (size > RESIDENT / 2) return this.put(made);
    if (this.residentTop + size > RESIDENT) {
      // Not now: this very call uses other tables.
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

  /** Copies numbers out. */
  take(at: number, length: number): Float32Array<ArrayBuffer> {
    return new Float32Array(this.memory.buffer, at, length).slice();
  }

  /** Copies numbers out into an array, from `offset` on. */
  takeInto(target: Float32Array, offset: number, at: number, length: number): void {
    target.set(new Float32Array(this.memory.buffer, at, length), offset);
  }

  /** Zeroes memory. */
  clear(at: number, bytes: number): void {
    new Uint8Array(this.memory.buffer, at, bytes).fill(0);
  }

  /** Writes a buffer to a reserved address. */
  write(at: number, data: Buffered): void {
    new Uint8Array(this.memory.buffer, at, data.byteLength).set(
      new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
    );
  }

  private fit(bytes: number): void {
    const missing = Math.ceil((bytes - this.memory.buffer.byteLength) / PAGE);
    // A quarter more than needed, so that memory does not grow at every call.
    if (missing > 0)
      this.memory.grow(Math.min(MOST_PAGES - this.memory.buffer.byteLength / PAGE, missing + Math.ceil(missing / 4)));
  }
}

let made: Kernels | null | undefined;

/** The kernels of this thread, created at the first call; null if unavailable. */
export function kernels(): Kernels | null {
  if (made === undefined) made = Kernels.make();
  return made;
}

/** For tests and benchmarks: runs `work` with plain TypeScript as the reference. */
export function withoutKernels<T>(work: () => T): T {
  const before = made;
  made = null;
  try {
    return work();
  } finally {
    made = before;
  }
}
