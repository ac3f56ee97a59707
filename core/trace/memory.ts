import { compileWasm, PAGE, runWasm, wasmMemory, type Compiled, type WasmMemory } from '../maths/web-assembly';
import { filmTable } from './film-table';
import { MarchedFields } from './marched';
import { TRACER } from './wasm';
import { Worn } from './worn';

/** What the compiled tracer offers; see core/trace/assembly. Addresses and sizes are in bytes. */
interface Exports {
  prepare(): void;
  buildTree(
    boxes: number,
    count: number,
    order: number,
    nodes: number,
    firstNode: number,
    packets: number,
    firstPacket: number,
    corners: number,
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
  fresnel(cosine: number, eta: number): number;
  thinFilm(cosine: number, film: number, thickness: number, red: number, green: number, blue: number): void;
  readonly filmRed: { readonly value: number };
  readonly filmGreen: { readonly value: number };
  readonly filmBlue: { readonly value: number };
  filmWeights(): number;
  denoise(planes: number, width: number, height: number, behind: number): void;
  denoiseRoom(width: number, height: number): number;
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
}

/** 2 GB: addresses stay whole numbers of 31 bits. */
const MOST_PAGES = 32_768;
/** Tables of the tracer itself lie below. */
const FIRST = 256 * 1024;

let compiled: Compiled | undefined;

/** A scene that needs more memory than there is. */
export class SceneTooLarge extends Error {
  override readonly name = 'SceneTooLarge';
}

/** The compiled tracer with a memory of its own, in which a scene is laid out from low to high addresses. */
export class TraceMemory {
  readonly run: Exports;
  private readonly memory: WasmMemory;
  private top = FIRST;
  /** Patterns of the scene that is in memory. */
  worn = new Worn();
  /** Its endless forms. */
  fields = new MarchedFields();
  private seen = { floats: new Float32Array(), whole: new Uint32Array() };
  private readonly asked: number;

  constructor() {
    compiled ??= compileWasm(TRACER);
    this.memory = wasmMemory(16, MOST_PAGES);
    this.run = runWasm<Exports>(compiled, { memory: this.memory, wear: this.wear, ...this.marching });
    this.run.prepare();
    this.asked = this.run.askedAt() / 4;
    this.floats(this.run.filmWeights(), filmTable().length).set(filmTable());
  }

  /** Memory as numbers; what has grown is another buffer. */
  private view(): { readonly floats: Float32Array; readonly whole: Uint32Array } {
    const { buffer } = this.memory;
    if (this.seen.floats.buffer !== buffer)
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
    return this.top - FIRST;
  }

  /** Lets go of everything that was laid out above an address. */
  release(to = FIRST): void {
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
    const pages = Math.ceil((end + 16) / PAGE);
    if (pages > MOST_PAGES)
      throw new SceneTooLarge(
        `True light would need ${Math.ceil(end / 2 ** 20)} MB for this frame, and has ` +
          `${(MOST_PAGES * PAGE) / 2 ** 20}. Use fewer faces or copies.`,
      );
    const have = this.memory.buffer.byteLength / PAGE;
    if (pages > have) this.memory.grow(pages - have);
    this.top = end;
    return at;
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
