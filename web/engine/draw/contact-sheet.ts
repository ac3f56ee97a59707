import { coarser } from '@maypole/core/explore/coarser';
import { pictureDistance, signatureOf, type Signature } from '@maypole/core/explore/picture-distance';
import type { Piece } from '@maypole/core/piece/piece';
import { canvas2d } from '@/view/stage/canvas-2d';
import { drawsInSoftware } from '@/view/stage/software';
import { halvesFirst } from '../evaluate/halves-first';
import { Offscreen } from './offscreen';

/** Longer side of a tile in pixels, on a card and in software, and most pictures of its loop. */
const [SIDE, PLAIN_SIDE, FRAMES] = [200, 160, 16];
/** Tolerance for fields of a picture one loop later, in ΔE · 100: a card does not always draw the same bits. */
const SAME = 1.5;

/** A variation may be this many times larger or smaller and still be in the picture. */
const LARGER = 3;

/** Moments of the loop at which tiles are compared, as shares. */
const MOMENTS = [0, 0.5];

/** A piece as a strip of small pictures that fills in. */
export interface Strip {
  readonly canvas: HTMLCanvasElement;
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  /** Indices of finished pictures. */
  readonly there: Set<number>;
}

/** What is known of a piece before it becomes a tile. */
export interface Looked {
  readonly strip: Strip;
  readonly signatures: readonly Signature[];
  /** Whether the picture one loop later is the same. */
  readonly closes: boolean;
  /** Distance in metres from the centre to the farthest point. */
  readonly size: number;
}

/** Draws small loops of many pieces, one after the other, while the editor draws too. */
export class ContactSheetRenderer {
  private width = SIDE;
  private height = SIDE;

  private constructor(
    private readonly offscreen: Offscreen,
    /** Expensive effects are left out, since drawing is in software. */
    readonly plain: boolean,
  ) {}

  static async create(): Promise<ContactSheetRenderer> {
    const plain = drawsInSoftware(document.createElement('canvas'));
    const drawer = new ContactSheetRenderer(await Offscreen.create(SIDE, SIDE, false), plain);
    drawer.setAspect(1);
    return drawer;
  }

  /** Whether its graphics device is lost. */
  get lost(): boolean {
    return this.offscreen.lost;
  }

  /** Aspect ratio of the tiles from now on; extreme ones are limited. */
  setAspect(aspect: number): void {
    const side = this.plain ? PLAIN_SIDE : SIDE;
    const shape = Math.max(0.5, Math.min(2, aspect));
    [this.width, this.height] = shape >= 1 ? [side, Math.round(side / shape)] : [Math.round(side * shape), side];
    this.offscreen.setSize(this.width, this.height);
  }

  /**
   * The first pictures of a piece, or why there are none: it is too expensive to draw unasked, or far larger or smaller
   * than `asLargeAs`.
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

  /** Loads and compiles everything a piece needs; reading nothing, which would block the page. */
  async warm(piece: Piece): Promise<void> {
    this.show(piece);
    if (await this.offscreen.waits(0)) return;
    for await (const drawn of this.pictures([0])) drawn.close();
    await this.offscreen.sound();
  }

  /** The other pictures of its loop, reported one by one. */
  async rest(piece: Piece, strip: Strip, goOn: () => boolean): Promise<void> {
    this.show(piece);
    const left = halvesFirst(strip.frames).filter((i) => !strip.there.has(i));
    let k = 0;
    for await (const drawn of this.pictures(left.map((i) => this.frameOf(strip, piece, i)))) {
      this.put(strip, drawn, left[k++]);
      if (!goOn()) return;
    }
    // Read before the device is asked whether it has been alive all the while.
    this.pixels(strip, 0);
    await this.offscreen.sound();
  }

  /** Draws pictures in a pipeline: while one is transferred another is drawn, and shapes of a third are evaluated. */
  private async *pictures(frames: readonly number[]): AsyncGenerator<ImageBitmap> {
    const begun: Promise<ImageBitmap>[] = [];
    let next = 0;
    const begin = () => {
      if (next + 1 < frames.length) this.offscreen.prepare(frames[next + 1]);
      if (next < frames.length) begun.push(this.offscreen.picture(frames[next++], this.plain ? 1 : 4));
      // Failures are reported to whoever awaits them.
      begun.at(-1)?.catch(() => undefined);
    };
    begin();
    begin();
    try {
      while (begun.length > 0) {
        const drawn = await begun[0];
        void begun.shift();
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

  /** Frame of a picture: evenly spaced, fractional where necessary, so that the loop moves at one speed. */
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

/** Whether no field of two pictures differs by more than drawing noise. */
function alike(a: Signature, b: Signature): boolean {
  for (let i = 0; i < a.length; i += 3)
    if (pictureDistance(a.subarray(i, i + 3), b.subarray(i, i + 3)) > SAME) return false;
  return true;
}
