import { coarser } from '@maypole/core/explore/coarser';
import { pictureDistance, signatureOf, type Signature } from '@maypole/core/explore/picture-distance';
import type { Piece } from '@maypole/core/piece/piece';
import { canvas2d } from '@/view/canvas-2d';
import { drawsInSoftware } from '@/view/software';
import { halvesFirst } from './halves-first';
import { Offscreen } from './offscreen';

/** Longer side of a tile in pixels, where a card draws and where the processor does, and pictures of its loop at most. */
const [SIDE, PLAIN_SIDE, FRAMES] = [200, 160, 16];
/** Fields of a picture a loop later may differ by this much, in ΔE · 100: what is drawn by a card is not always the same bits. */
const SAME = 1.5;

/** A variation may be so many times as large, or as small, and still be in the picture. */
const LARGER = 3;

/** Moments of the loop by which tiles are told apart, as shares. */
const MOMENTS = [0, 0.5];

/** A piece as a strip of small pictures that fills in. */
export interface Strip {
  readonly canvas: HTMLCanvasElement;
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  /** Which pictures are there. */
  readonly there: Set<number>;
}

/** What is found out about a piece before it becomes a tile. */
export interface Looked {
  readonly strip: Strip;
  readonly signatures: readonly Signature[];
  /** Whether the picture a loop later is the same. */
  readonly closes: boolean;
  /** Metres from the middle to what is farthest. */
  readonly size: number;
}

/** Draws small loops of many pieces, one after the other, beside what the editor draws. */
export class SheetDrawer {
  private width = SIDE;
  private height = SIDE;

  private constructor(
    private readonly offscreen: Offscreen,
    /** Whether what costs most is left out, since the processor draws. */
    readonly plain: boolean,
  ) {}

  static async create(): Promise<SheetDrawer> {
    const plain = drawsInSoftware(document.createElement('canvas'));
    const drawer = new SheetDrawer(await Offscreen.create(SIDE, SIDE, false), plain);
    drawer.setAspect(1);
    return drawer;
  }

  /** Whether its graphics device is gone. */
  get lost(): boolean {
    return this.offscreen.lost;
  }

  /** Width to height of the tiles that are drawn from now on; very long ones are shown less long. */
  setAspect(aspect: number): void {
    const side = this.plain ? PLAIN_SIDE : SIDE;
    const shape = Math.max(0.5, Math.min(2, aspect));
    [this.width, this.height] = shape >= 1 ? [side, Math.round(side / shape)] : [Math.round(side * shape), side];
    this.offscreen.setSize(this.width, this.height);
  }

  /**
   * The first pictures of a piece, or why there are none: it takes too much work to be drawn by the way, or is far larger
   * or smaller than it was when `asLargeAs` was looked at.
   *
   * @param asLargeAs metres; absent, any size will do
   */
  async look(piece: Piece, asLargeAs?: number): Promise<Looked | 'heavy' | 'size'> {
    const { offscreen, width, height } = this;
    this.show(piece);
    if (await offscreen.waits(0)) return 'heavy';
    const size = offscreen.size(0);
    const times = asLargeAs === undefined ? 1 : size / asLargeAs;
    if (!(times < LARGER && times > 1 / LARGER)) return 'size';
    const frames = Math.min(FRAMES, piece.loop.frames);
    const canvas = document.createElement('canvas');
    canvas.width = width * frames;
    canvas.height = height;
    const strip: Strip = { canvas, width, height, frames, there: new Set() };
    const signatures: Signature[] = [];
    const at = MOMENTS.map((share) => Math.floor(share * frames));
    let later: Signature | undefined;
    const asked = [...at.map((i) => this.frameOf(strip, piece, i)), piece.loop.frames];
    let k = 0;
    for await (const drawn of this.pictures(asked)) {
      if (k < at.length) {
        this.put(strip, drawn, at[k]);
        signatures.push(signatureOf(this.pixels(strip, at[k]), width, height));
      } else later = this.signatureAside(drawn);
      k++;
    }
    await offscreen.sound();
    return { strip, signatures, closes: alike(signatures[0], later!), size };
  }

  /** Has all that drawing a piece takes loaded and compiled; nothing of it is read, which would wait on the page's thread. */
  async warm(piece: Piece): Promise<void> {
    this.show(piece);
    if (await this.offscreen.waits(0)) return;
    for await (const drawn of this.pictures([0])) drawn.close();
    await this.offscreen.sound();
  }

  /** The other pictures of its loop, told one by one. */
  async rest(piece: Piece, strip: Strip, goOn: () => boolean): Promise<void> {
    this.show(piece);
    const left = halvesFirst(strip.frames).filter((i) => !strip.there.has(i));
    let k = 0;
    for await (const drawn of this.pictures(left.map((i) => this.frameOf(strip, piece, i)))) {
      this.put(strip, drawn, left[k++]);
      if (!goOn()) return;
    }
    // Read now, before the device is asked whether it has been there all the while.
    this.pixels(strip, 0);
    await this.offscreen.sound();
  }

  /** Pictures one after the other: one is drawn while another is taken, and the shapes of a third are worked out. */
  private async *pictures(frames: readonly number[]): AsyncGenerator<ImageBitmap> {
    const begun: Promise<ImageBitmap>[] = [];
    let next = 0;
    const begin = () => {
      if (next + 1 < frames.length) this.offscreen.prepare(frames[next + 1]);
      if (next < frames.length) begun.push(this.offscreen.picture(frames[next++], this.plain ? 1 : 4));
      // What fails is told to who waits for it.
      begun.at(-1)?.catch(() => undefined);
    };
    begin();
    begin();
    try {
      while (begun.length > 0) {
        const drawn = await begun[0];
        begun.shift();
        begin();
        yield drawn;
      }
    } finally {
      for (const drawn of begun) void drawn.then((d) => d.close()).catch(() => undefined);
    }
  }

  /** In the format of the tile. */
  private show(piece: Piece): void {
    const drawn = this.plain ? coarser(piece) : piece;
    this.offscreen.setPiece(
      { ...drawn, format: { width: this.width, height: this.height } },
      'draft',
      'shaded',
      false,
      this.plain,
    );
  }

  dispose(): void {
    this.offscreen.dispose();
  }

  /** The frame of a picture: evenly, between frames where they do not divide, so that the loop moves at one speed. */
  private frameOf(strip: Strip, piece: Piece, i: number): number {
    return (i * piece.loop.frames) / strip.frames;
  }

  private put(strip: Strip, drawn: ImageBitmap, i: number): void {
    canvas2d(strip.canvas)!.drawImage(drawn, i * strip.width, 0);
    drawn.close();
    strip.there.add(i);
  }

  /** RGBA bytes of a picture of a strip. */
  private pixels({ canvas, width, height }: Strip, i: number): Uint8ClampedArray {
    return canvas2d(canvas)!.getImageData(i * width, 0, width, height).data;
  }

  /** Of a picture that is not kept. */
  private signatureAside(drawn: ImageBitmap): Signature {
    const { width, height } = this;
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [width, height];
    const context = canvas2d(canvas)!;
    context.drawImage(drawn, 0, 0);
    drawn.close();
    return signatureOf(context.getImageData(0, 0, width, height).data, width, height);
  }
}

/** Whether no field of two pictures differs by more than drawing does. */
function alike(a: Signature, b: Signature): boolean {
  for (let i = 0; i < a.length; i += 3)
    if (pictureDistance(a.subarray(i, i + 3), b.subarray(i, i + 3)) > SAME) return false;
  return true;
}
