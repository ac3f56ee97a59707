import { canvas2d } from '@/view/canvas-2d';
import type { Piece } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import { hiddenDrawer, type Drawer } from '@/view/drawer';
import type { ViewFrame, ViewMode } from '@/view/frame';
import { extentOf } from '@/view/extent';
import { composeFrame, composeInstants } from './compose';
import { Engine } from './engine';
import { plainScene } from './plain-scene';

/**
 * Draws a piece frame by frame onto a 2D canvas of a given size: for files, thumbnails and
 * comparing pictures.
 */
export class Offscreen {
  readonly canvas = document.createElement('canvas');
  private readonly context: CanvasRenderingContext2D;

  private constructor(
    private readonly drawer: Drawer,
    private readonly engine: Engine,
    private readonly device: { readonly lost: boolean },
  ) {
    this.context = canvas2d(this.canvas)!;
  }

  /** Whether the graphics device is gone; nothing more is drawn then. */
  get lost(): boolean {
    return this.device.lost;
  }

  get width(): number {
    return this.canvas.width;
  }

  get height(): number {
    return this.canvas.height;
  }

  /** In pixels; what was drawn is gone. */
  setSize(width: number, height: number): void {
    this.canvas.width = width;
    this.canvas.height = height;
    this.drawer.setSize(width, height);
  }

  /**
   * @param ahead work out the following frames meanwhile; of use when all of them are drawn in order. Without, it is for
   *   pictures that nobody has asked for, and leaves out what would have to be asked for: see `waits`
   */
  static async create(width: number, height: number, ahead = true): Promise<Offscreen> {
    const device = { lost: false };
    // Both load workers: at the same time.
    const drawing = hiddenDrawer({ onLost: () => (device.lost = true) });
    const engine = new Engine({ ahead, budget: 256 * 1024 * 1024, ...(ahead ? {} : { workers: 2, asksFirst: true }) });
    const drawer = await drawing.catch((error: unknown) => {
      engine.dispose();
      throw error;
    });
    const offscreen = new Offscreen(drawer, engine, device);
    offscreen.setSize(width, height);
    return offscreen;
  }

  /** Whether a frame has steps that cost so much that they wait to be asked for. */
  async waits(frame: number): Promise<boolean> {
    await this.engine.whenReady(frame);
    return this.piece!.ribbons.some((r) => r.on && this.engine.geometry(r, frame)?.problems.some((p) => p.waits));
  }

  /**
   * The piece to draw from now on.
   *
   * @param seeThrough leave out a backdrop that is not there
   * @param plain leave out what costs most: see plainScene
   */
  setPiece(piece: Piece, detail: Detail, mode: ViewMode = 'shaded', seeThrough = false, plain = false): void {
    this.piece = piece;
    this.seeThrough = seeThrough;
    this.plain = plain;
    this.mode = mode;
    this.engine.setPiece(piece, detail);
  }

  private piece: Piece | null = null;
  private mode: ViewMode = 'shaded';
  private seeThrough = false;
  private plain = false;
  /** Ends once a picture of several instants is drawn. */
  private several: Promise<void> = Promise.resolve();

  /** Has the shapes of a frame that is drawn soon worked out meanwhile. */
  prepare(frame: number): void {
    // Whoever draws it is told what went wrong.
    this.engine.whenThere(frame).catch(() => undefined);
  }

  /** Draws an unwrapped frame onto `canvas`, as the average of so many sub-frames. */
  async draw(frame: number, subframes = 8): Promise<void> {
    const drawn = await this.picture(frame, subframes);
    this.context.clearRect(0, 0, this.width, this.height);
    this.context.drawImage(drawn, 0, 0);
    // Read it now: what is drawn may be fetched later than it is asked for, from a device that is gone by then.
    this.context.getImageData(0, 0, 1, 1);
    drawn.close();
    await this.sound();
  }

  /**
   * The picture of an unwrapped frame, to be closed by who takes it. The next may be asked for before this one is there:
   * neither the device nor who works out shapes has to wait then. Whoever has put away several asks `sound` after them.
   */
  async picture(frame: number, subframes: number): Promise<ImageBitmap> {
    const piece = this.piece!;
    await this.engine.whenReady(frame);
    const composed = this.plain
      ? [plainFrame(composeFrame(this.engine, piece, frame, this.mode))]
      : await composeInstants(this.engine, piece, frame, this.mode, subframes);
    const pictures = this.seeThrough ? composed.map((p) => ({ ...p, seeThrough: true })) : composed;
    const drawn = this.several.then(() => this.drawer.picture(pictures, subframes));
    // What is drawn at several instants is asked for one by one, and nothing else may come between.
    if (pictures.length > 1)
      this.several = drawn.then(
        () => undefined,
        () => undefined,
      );
    return drawn;
  }

  /** Throws where the graphics device has gone: what was read of pictures before may be empty then. */
  sound(): Promise<void> {
    return this.drawer.sound();
  }

  /** Metres from the middle of all forms to what is farthest, at a frame whose shapes are there. */
  size(frame: number): number {
    return extentOf(composeFrame(this.engine, this.piece!, frame, this.mode)).radius;
  }

  /** RGBA bytes of what was drawn last. */
  pixels(): Uint8ClampedArray {
    return this.context.getImageData(0, 0, this.width, this.height).data;
  }

  dispose(): void {
    this.drawer.dispose();
    this.engine.dispose();
  }
}

const plainFrame = (frame: ViewFrame): ViewFrame => ({ ...frame, scene: plainScene(frame.scene) });
