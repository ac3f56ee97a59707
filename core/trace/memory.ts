import { compileWasm, PAGE, runWasm, sharedMemory, type Compiled, type WasmMemory } from '../maths/web-assembly';
import { filmTable } from './film-table';
import { MarchedFields } from './marched';
import { Readers, READERS_BYTES } from './readers';
import { TRACER } from './wasm';
import { Worn } from './worn';

/** What the compiled tracer offers; see core/trace/assembly. Addresses and sizes are in bytes. */
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
    room: number,
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
  longTriangles(boxes: number, corners: number, count: number, most: number): number;
  putPieces(boxes: number, corners: number, count: number, more: number): number;
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
    room: number,
  ): number;
  takeScene(table: number): void;
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
  takeBy(how: number): void;
  askedAt(): number;
  ownBytes(): number;
}

/** 2 GB: addresses stay whole numbers of 31 bits. */
const MOST_PAGES = 32_768;
/** Bytes in which each thread has numbers and tables of its own; see core/trace/assembly/own.ts. */
const OWN = 2 * PAGE;
/** Milliseconds that threads which read a scene are waited for, before the next is laid out elsewhere. */
const PATIENCE = 500;

/** A memory as another thread is given it, with room there. */
export interface LentMemory {
  /** Its number, among those of the thread that lends it. */
  readonly id: number;
  readonly memory: WasmMemory<SharedArrayBuffer>;
  /** Which of the threads it is for, from 1: the first has laid out what is there. */
  readonly thread: number;
  /** What is there, by `Readers`. */
  readonly scene: number;
  /** Where the thread has room, in bytes. */
  readonly at: number;
  readonly bytes: number;
}

let compiled: Compiled | undefined;
let made = 0;
/** What every thread has in its own room before it begins. */
let tables: Uint8Array | undefined;

/** A scene that needs more memory than there is. */
export class SceneTooLarge extends Error {
  override readonly name = 'SceneTooLarge';
}

/** What is read in a memory that was lent has made room for something else. */
export class SceneGone extends Error {
  override readonly name = 'SceneGone';
}

/**
 * The compiled tracer with a memory, in which a scene is laid out from low to high addresses: first who reads it, what
 * each thread has of its own, and then the scene, with room for each thread after it.
 */
export class TraceMemory {
  readonly run: Exports;
  readonly id = ++made;
  private memory: WasmMemory<SharedArrayBuffer>;
  private readonly readers: Readers;
  /** The lowest and the highest address that may be given away, and what of it is. */
  private first = 0;
  private end = 0;
  private top = 0;
  /** Patterns of the scene that is in memory. */
  worn = new Worn();
  /** Its endless forms. */
  fields = new MarchedFields();
  private seen: { readonly floats: Float32Array; readonly whole: Uint32Array } | undefined;
  private readonly asked: number;

  /**
   * @param threads how many may read what is laid out here, this one among them
   * @param lent the memory of another thread, which is read
   */
  constructor(
    readonly threads = 1,
    private lent?: LentMemory,
  ) {
    compiled ??= compileWasm(TRACER);
    this.memory = lent?.memory ?? sharedMemory(16, MOST_PAGES);
    if (lent) this.give(lent.at, lent.at + lent.bytes);
    else this.give(PAGE + OWN * threads, MOST_PAGES * PAGE - 16);
    if (!lent) this.grow(this.first);
    const own = PAGE + OWN * (lent?.thread ?? 0);
    this.run = runWasm<Exports>(compiled, { memory: this.memory, own, wear: this.wear, ...this.marching });
    if (this.run.ownBytes() > OWN) throw new RangeError(`A thread has ${this.run.ownBytes()} bytes of its own.`);
    this.readers = new Readers(new Int32Array(this.memory.buffer, 0, READERS_BYTES / 4));
    this.asked = this.run.askedAt() / 4;
    this.prepare(own);
  }

  /** Fills the tables of this thread: worked out once, they are the same everywhere. */
  private prepare(own: number): void {
    const size = this.run.ownBytes();
    // The thread that lends this memory has them.
    if (this.lent) tables ??= this.bytes(PAGE, size).slice();
    if (tables) return this.bytes(own, size).set(tables);
    this.run.prepare();
    const film = filmTable();
    this.floats(this.run.filmTable(), film.length).set(film);
    tables = this.bytes(own, size).slice();
  }

  /** From now on, addresses from `first` up to `end` may be given away. */
  private give(first: number, end: number): void {
    [this.first, this.end, this.top] = [first, end, first];
  }

  /** Goes over to another scene in the memory that was lent. */
  take(lent: LentMemory): void {
    this.lent = lent;
    this.memory = lent.memory;
    this.worn = new Worn();
    this.give(lent.at, lent.at + lent.bytes);
  }

  /**
   * Lends what is laid out here to the other threads, with room of so many bytes for each: all of it is gone as soon as
   * something else is laid out.
   */
  lend(bytes: number): readonly LentMemory[] {
    return Array.from({ length: this.threads - 1 }, (_, i) => ({
      id: this.id,
      memory: this.memory,
      thread: i + 1,
      scene: this.readers.scene,
      at: this.room(bytes),
      bytes,
    }));
  }

  /** Whether something else may be laid out here: nobody reads what is there any more. */
  renew(): boolean {
    this.top = this.first;
    this.worn = new Worn();
    return this.readers.end(PATIENCE);
  }

  /**
   * Works on what is there.
   *
   * @throws SceneGone where it was lent, and is there no more
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

  /** Memory as numbers; what has grown is another buffer. */
  private view(): { readonly floats: Float32Array; readonly whole: Uint32Array } {
    const { buffer } = this.memory;
    if (this.seen?.floats.buffer !== buffer)
      this.seen = { floats: new Float32Array(buffer), whole: new Uint32Array(buffer) };
    return this.seen;
  }

  /** Asked by the tracer at every place with patterns; see core/trace/assembly/place.ts. */
  private readonly wear = (patterned: number, at: number): void => {
    const { floats, whole } = this.view();
    this.worn.wear(patterned, floats, whole, this.asked, at / 4);
  };

  /** Asked for endless forms; see core/trace/assembly/field.ts. */
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
    lookAt: (k: number, x: number, y: number, z: number, far: number, out: number) =>
      this.fields.lookAt(k, x, y, z, far, this.view().floats, out / 4),
  };

  /** Bytes that a scene takes so far. */
  get used(): number {
    return this.top - this.first;
  }

  /** Lets go of everything that was laid out above an address. */
  release(to = this.first): void {
    this.top = to;
  }

  /** The next free address. */
  get mark(): number {
    return this.top;
  }

  /**
   * Room for so many bytes, its address a multiple of 16; what is in it is not known.
   *
   * @throws SceneTooLarge
   */
  room(bytes: number): number {
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

  /** Views of a stretch; good until further room is asked for. */
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

  /** Puts numbers there and gives their address. */
  put(values: Float32Array | Uint32Array | Uint8Array): number {
    const at = this.room(values.byteLength);
    if (values instanceof Float32Array) this.floats(at, values.length).set(values);
    else if (values instanceof Uint32Array) this.whole(at, values.length).set(values);
    else this.bytes(at, values.length).set(values);
    return at;
  }
}
