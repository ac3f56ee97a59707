import { compileWasm, PAGE, runWasm, sharedMemory, type Compiled, type WasmMemory } from '../../maths/web-assembly';
import { filmTable } from '../scene/film-table';
import { MarchedFields } from '../scene/distance-fields';
import { SceneLock, READERS_BYTES } from './scene-lock';
import { TRACER } from '../wasm';
import { PatternEvaluator } from '../scene/pattern-evaluator';

/** Exports of the compiled tracer; see core/trace/assembly. Addresses and sizes are in bytes. */
interface Exports {
  prepare(): void;
  buildTree(
    boxes: number,
    count: number,
    nodes: number,
    firstNode: number,
    packets: number,
    firstPacket: number,
    corners: number,
    allocate: number,
  ): bigint;
  triangleBoxes(
    points: number,
    triangles: number,
    count: number,
    some: number,
    boxes: number,
    corners: number,
    whole: number,
  ): void;
  planSplits(boxes: number, corners: number, count: number, most: number): number;
  splitTriangles(boxes: number, corners: number, count: number, more: number): number;
  moveTree(nodes: number, first: number, end: number, nodeShift: number, packetShift: number): void;
  refitTree(
    nodes: number,
    first: number,
    end: number,
    packets: number,
    points: number,
    triangles: number,
    some: number,
    whole: number,
    allocate: number,
  ): number;
  loadScene(table: number): void;
  addSamples(
    x: number,
    y: number,
    width: number,
    height: number,
    first: number,
    end: number,
    sums: number,
    features: number,
    passes: number,
    look: boolean,
  ): number;
  trace(rays: number, count: number, out: number, any: boolean): void;
  beginSample(x: number, y: number, frame: number, n: number): void;
  next(): number;
  sinTurns(turns: number): number;
  exp(x: number): number;
  atan2Turns(y: number, x: number): number;
  log(x: number): number;
  beta(a: number, b: number): number;
  fresnel(cosine: number, eta: number): number;
  thinFilm(cosine: number, film: number, thickness: number, red: number, green: number, blue: number): void;
  readonly filmRed: { readonly value: number };
  readonly filmGreen: { readonly value: number };
  readonly filmBlue: { readonly value: number };
  filmTable(): number;
  denoise(planes: number, width: number, height: number, behind: number, cargo: boolean): void;
  denoiseRoom(width: number, height: number, cargo: boolean): number;
  layCargo(planes: number, width: number, height: number, from: number, rows: number, values: number): void;
  readCargo(planes: number, width: number, height: number, from: number, rows: number, values: number): void;
  layRows(
    planes: number,
    width: number,
    height: number,
    from: number,
    rows: number,
    values: number,
    stride: number,
    features: number,
    variance: number,
  ): void;
  readRows(
    planes: number,
    width: number,
    height: number,
    from: number,
    rows: number,
    values: number,
    stride: number,
  ): void;
  setStrategies(how: number): void;
  queryAddress(): number;
  perThreadBytes(): number;
}

/** 2 GB: addresses stay positive 32-bit integers. */
const MAX_PAGES = 32_768;
/** Bytes of each thread's own numbers and tables; see core/trace/assembly/base/per-thread.ts. */
const PER_THREAD_BYTES = 2 * PAGE;
/** Milliseconds to wait for readers before the next scene is laid out elsewhere. */
const READER_TIMEOUT = 500;

/** A memory lent to another thread, with scratch space there. */
export interface LentMemory {
  /** Number of the memory within the thread that lends it. */
  readonly id: number;
  readonly memory: WasmMemory<SharedArrayBuffer>;
  /** Index of the borrowing thread, from 1: thread 0 lays out scenes. */
  readonly thread: number;
  /** The scene, as `SceneLock` numbers it. */
  readonly scene: number;
  /** Scratch space of the thread, in bytes. */
  readonly at: number;
  readonly bytes: number;
}

let compiled: Compiled | undefined;
let made = 0;
/** Initial contents of each thread's own memory. */
let tables: Uint8Array | undefined;

/** The scene needs more memory than there is. */
export class SceneTooLarge extends Error {
  override readonly name = 'SceneTooLarge';
}

/** The lent scene has been replaced by another. */
export class SceneGone extends Error {
  override readonly name = 'SceneGone';
}

/**
 * The compiled tracer with its memory. From low to high addresses: the scene lock, each thread's own numbers, the
 * scene, and scratch space for each thread.
 */
export class TraceMemory {
  readonly run: Exports;
  readonly id = ++made;
  private memory: WasmMemory<SharedArrayBuffer>;
  private readonly readers: SceneLock;
  /** Range of addresses to allocate from, and the next free one. */
  private first = 0;
  private end = 0;
  private top = 0;
  /** Patterns of the current scene. */
  patterns = new PatternEvaluator();
  /** Distance fields of the current scene. */
  fields = new MarchedFields();
  private views: { readonly floats: Float32Array; readonly whole: Uint32Array } | undefined;
  private readonly queryAt: number;

  /**
   * @param threads how many read what is laid out here, this one included
   * @param lent memory of another thread to read
   */
  constructor(
    readonly threads = 1,
    private lent?: LentMemory,
  ) {
    compiled ??= compileWasm(TRACER);
    this.memory = lent?.memory ?? sharedMemory(16, MAX_PAGES);
    if (lent) this.setRange(lent.at, lent.at + lent.bytes);
    else this.setRange(PAGE + PER_THREAD_BYTES * threads, MAX_PAGES * PAGE - 16);
    if (!lent) this.grow(this.first);
    const own = PAGE + PER_THREAD_BYTES * (lent?.thread ?? 0);
    this.run = runWasm<Exports>(compiled, {
      memory: this.memory,
      threadBase: own,
      evaluatePatterns: this.evaluatePatterns,
      ...this.marching,
    });
    if (this.run.perThreadBytes() > PER_THREAD_BYTES)
      throw new RangeError(`A thread has ${this.run.perThreadBytes()} bytes of its own.`);
    this.readers = new SceneLock(new Int32Array(this.memory.buffer, 0, READERS_BYTES / 4));
    this.queryAt = this.run.queryAddress() / 4;
    this.prepare(own);
  }

  /** Fills the tables of this thread; they are computed once and equal everywhere. */
  private prepare(own: number): void {
    const size = this.run.perThreadBytes();
    // The lending thread has them.
    if (this.lent) tables ??= this.bytes(PAGE, size).slice();
    if (tables) return this.bytes(own, size).set(tables);
    this.run.prepare();
    const film = filmTable();
    this.floats(this.run.filmTable(), film.length).set(film);
    tables = this.bytes(own, size).slice();
  }

  /** From now on, allocates from `first` up to `end`. */
  private setRange(first: number, end: number): void {
    [this.first, this.end, this.top] = [first, end, first];
  }

  /** Switches to another scene in the lent memory. */
  take(lent: LentMemory): void {
    this.lent = lent;
    this.memory = lent.memory;
    this.patterns = new PatternEvaluator();
    this.setRange(lent.at, lent.at + lent.bytes);
  }

  /**
   * Lends the scene to the other threads, each with scratch space of this many bytes; valid until something else is
   * laid out.
   */
  lend(bytes: number): readonly LentMemory[] {
    return Array.from({ length: this.threads - 1 }, (_, i) => ({
      id: this.id,
      memory: this.memory,
      thread: i + 1,
      scene: this.readers.scene,
      at: this.allocate(bytes),
      bytes,
    }));
  }

  /** Frees everything. Returns whether this memory may be reused: no reader is left. */
  reset(): boolean {
    this.top = this.first;
    this.patterns = new PatternEvaluator();
    return this.readers.end(READER_TIMEOUT);
  }

  /**
   * Runs work that reads the scene.
   *
   * @throws SceneGone if the lent scene has been replaced
   */
  read<T>(work: () => T): T {
    if (!this.lent) return work();
    if (!this.readers.enter(this.lent.scene)) throw new SceneGone('The scene has made room for another.');
    try {
      return work();
    } finally {
      this.readers.leave();
    }
  }

  /** Views of the memory; growing replaces its buffer. */
  private view(): { readonly floats: Float32Array; readonly whole: Uint32Array } {
    const { buffer } = this.memory;
    if (this.views?.floats.buffer !== buffer)
      this.views = { floats: new Float32Array(buffer), whole: new Uint32Array(buffer) };
    return this.views;
  }

  /** Called by the tracer at every hit with patterns; see core/trace/assembly/paths/shading-point.ts. */
  private readonly evaluatePatterns = (patterned: number, at: number): void => {
    const { floats, whole } = this.view();
    this.patterns.evaluate(patterned, floats, whole, this.queryAt, at / 4);
  };

  /** Called for distance fields; see core/trace/assembly/trees/field.ts. */
  private readonly marching = {
    march: (
      k: number,
      ox: number,
      oy: number,
      oz: number,
      dx: number,
      dy: number,
      dz: number,
      from: number,
      to: number,
    ) => this.fields.march(k, ox, oy, oz, dx, dy, dz, from, to),
    evaluateField: (k: number, x: number, y: number, z: number, far: number, out: number) =>
      this.fields.evaluate(k, x, y, z, far, this.view().floats, out / 4),
  };

  /** Bytes that the scene takes so far. */
  get used(): number {
    return this.top - this.first;
  }

  /** Frees everything above an address. */
  release(to = this.first): void {
    this.top = to;
  }

  /** The next free address. */
  get mark(): number {
    return this.top;
  }

  /**
   * Allocates bytes at a multiple of 16; not cleared.
   *
   * @throws SceneTooLarge
   */
  allocate(bytes: number): number {
    const at = (this.top + 15) & ~15;
    const end = at + bytes;
    if (end > this.end)
      throw new SceneTooLarge(
        `True light would need ${Math.ceil(end / 2 ** 20)} MB for this frame, and has ` +
          `${Math.ceil(this.end / 2 ** 20)}. Use fewer faces or copies.`,
      );
    this.grow(end);
    this.top = end;
    return at;
  }

  private grow(end: number): void {
    const more = Math.ceil((end + 16) / PAGE) - this.memory.buffer.byteLength / PAGE;
    if (more > 0) this.memory.grow(more);
  }

  /** View of a range; valid until the next allocation. */
  floats(at: number, count: number): Float32Array {
    return new Float32Array(this.memory.buffer, at, count);
  }
  doubles(at: number, count: number): Float64Array {
    return new Float64Array(this.memory.buffer, at, count);
  }
  whole(at: number, count: number): Uint32Array {
    return new Uint32Array(this.memory.buffer, at, count);
  }
  bytes(at: number, count: number): Uint8Array {
    return new Uint8Array(this.memory.buffer, at, count);
  }

  /** Stores numbers and returns their address. */
  put(values: Float32Array | Uint32Array | Uint8Array): number {
    const at = this.allocate(values.byteLength);
    if (values instanceof Float32Array) this.floats(at, values.length).set(values);
    else if (values instanceof Uint32Array) this.whole(at, values.length).set(values);
    else this.bytes(at, values.length).set(values);
    return at;
  }
}
