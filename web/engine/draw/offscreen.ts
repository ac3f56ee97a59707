import { canvas2d } from '@/view/stage/canvas-2d';
import type { Piece } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import { offscreenRenderer, type FrameRenderer } from '@/view/stage/drawer';
import type { ViewFrame, ViewMode } from '@/view/stage/frame';
import { extentOf } from '@/view/stage/extent';
import { composeFrame, composeInstants } from './compose';
import { Engine } from '../engine';
import { plainScene } from '../trace/plain-scene';

/** Draws a piece frame by frame onto a 2D canvas of a given size: for files, thumbnails and comparisons. */
export class Offscreen {
  readonly canvas = document.createElement('canvas');
  private readonly context: CanvasRenderingContext2D;

  private constructor(
    private readonly drawer: FrameRenderer,
    private readonly engine: Engine,
    private readonly device: { readonly lost: boolean },
  ) {
    this.context = canvas2d(this.canvas)!;
  }

  /** Whether the graphics device is lost; nothing more is drawn then. */
  get lost(): boolean {
    return this.device.lost;
  }

  get width(): number {
    return this.canvas.width;
  }

  get height(): number {
    return this.canvas.height;
  }

  /** In pixels; clears the canvas. */
  setSize(width: number, height: number): void {
    this.canvas.width = width;
    this.canvas.height = height;
    this.drawer.setSize(width, height);
  }

  /**
   * @param ahead evaluate the following frames meanwhile; of use if all are drawn in order. Without, it is for pictures
   * that nobody has asked for, and leaves out steps that need consent: see `waits`
   */
  static async create(width: number, height: number, ahead = true): Promise<Offscreen> {
    const device = { lost: false };
    // Both load workers: at the same time.
    const drawing = offscreenRenderer({ onLost: () => (device.lost = true) });
    const engine = new Engine({ ahead, budget: 256 * 1024 * 1024, ...(ahead ? {} : { workers: 2, asksFirst: true }) });
    const drawer = await drawing.catch((error: unknown) => {
      engine.dispose();
      throw error;
    });
    const offscreen = new Offscreen(drawer, engine, device);
    offscreen.setSize(width, height);
    return offscreen;
  }

  /** Whether a frame has expensive steps that wait for consent. */
  async waits(frame: number): Promise<boolean> {
    await this.engine.whenReady(frame);
    return this.piece!.ribbons.some((r) => r.on && this.engine.geometry(r, frame)?.problems.some((p) => p.waits));
  }

  /**
   * The piece to draw from now on.
   *
   * @param seeThrough leave out a missing backdrop
   * @param plain leave out expensive effects: see plainScene
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
  /** Resolves once a picture of several instants is drawn. */
  private several: Promise<void> = Promise.resolve();

  /** Evaluates the shapes of a frame that is drawn soon. */
  prepare(frame: number): void {
    // Whoever draws it is told what went wrong.
    this.engine.whenThere(frame).catch(() => undefined);
  }

  /** Draws an unwrapped frame onto `canvas`, averaged over sub-frames. */
  async draw(frame: number, subframes = 8): Promise<void> {
    const drawn = await this.picture(frame, subframes);
    this.context.clearRect(0, 0, this.width, this.height);
    this.context.drawImage(drawn, 0, 0);
    // Forces the read: a deferred one might hit a device that is lost by then.
    this.context.getImageData(0, 0, 1, 1);
    drawn.close();
    await this.sound();
  }

  /**
   * Picture of an unwrapped frame; whoever takes it closes it. The next may be requested before this one resolves,
   * which keeps both device and evaluation busy. After storing several, check `sound`.
   */
  async picture(frame: number, subframes: number): Promise<ImageBitmap> {
    const piece = this.piece!;
    await this.engine.whenReady(frame);
    const composed = this.plain
      ? [plainFrame(composeFrame(this.engine, piece, frame, this.mode))]
      : await composeInstants(this.engine, piece, frame, this.mode, subframes);
    const pictures = this.seeThrough ? composed.map((p) => ({ ...p, seeThrough: true })) : composed;
    const drawn = this.several.then(() => this.drawer.picture(pictures, subframes));
    // Instants are requested one by one, and nothing else may come between.
    if (pictures.length > 1)
      this.several = drawn.then(
        () => undefined,
        () => undefined,
      );
    return drawn;
  }

  /** Throws if the graphics device is lost: pictures read before may be empty. */
  sound(): Promise<void> {
    return this.drawer.sound();
  }

  /** Distance in metres from the centre of all shapes to the farthest point, at an evaluated frame. */
  size(frame: number): number {
    return extentOf(composeFrame(this.engine, this.piece!, frame, this.mode)).radius;
  }

  /** RGBA bytes of the last picture. */
  pixels(): Uint8ClampedArray {
    return this.context.getImageData(0, 0, this.width, this.height).data;
  }

  dispose(): void {
    this.drawer.dispose();
    this.engine.dispose();
  }
}

const plainFrame = (frame: ViewFrame): ViewFrame => ({ ...frame, scene: plainScene(frame.scene) });
