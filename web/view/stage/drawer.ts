import { instantOf } from '@maypole/core/scene/shutter';
import { softnessOf } from '@maypole/core/scene/softness';
import type { ViewFrame } from './frame';
import { Packer } from './pack';
import { pictureFiles } from './picture-files';
import type { Stage } from './stage';
import { DEVICE_GONE, type FromStage, type ToStage } from './stage-protocol';

/** For antialiasing alone, and for depth of field and soft shadows. */
export interface Subframes {
  readonly edges: number;
  readonly soft: number;
}

/** Sub-frames that a frame needs. */
export function subframesFor({ scene, mode }: ViewFrame, { edges, soft }: Subframes): number {
  // Focus is shown per point, not on average.
  if (mode === 'sharp') return 1;
  return { edges, soft, shade: 2 * soft }[softnessOf(scene)];
}

/** Draws frames: in a worker where possible, so that drawing and compiling shaders never block the page. */
export interface FrameRenderer {
  /** Sub-frames of a still picture, by its softness. */
  readonly subframes: Subframes;
  /** Size of the picture in device pixels. */
  setSize(width: number, height: number): void;
  /**
   * Draws sub-frame `number` of `of`; resolves once it is in the canvas.
   *
   * @param coarse device pixels per pixel of the picture, each way
   */
  draw(frame: ViewFrame, number?: number, of?: number, coarse?: number): Promise<void>;
  /**
   * Draws the average of sub-frames and returns it; whoever takes it closes it.
   *
   * @param instants the frame at as many instants, in the order they are drawn
   */
  picture(instants: readonly ViewFrame[], subframes: number): Promise<ImageBitmap>;
  /**
   * Asks the device whether it is alive; pictures read before are then whole.
   *
   * @throws DEVICE_GONE if it is lost
   */
  sound(): Promise<void>;
  dispose(): void;
}

interface DrawerOptions {
  /** Called when the graphics device is lost; nothing more is drawn then. */
  readonly onLost?: () => void;
}

const canWork = () =>
  typeof Worker !== 'undefined' &&
  typeof OffscreenCanvas !== 'undefined' &&
  'transferControlToOffscreen' in HTMLCanvasElement.prototype;

/**
 * Creates a renderer on a canvas of the page. A new canvas replaces one that cannot be reused.
 *
 * @param canvas makes a canvas to draw on
 */
export async function rendererOnCanvas(
  canvas: () => HTMLCanvasElement,
  options: DrawerOptions = {},
): Promise<{ drawer: FrameRenderer; canvas: HTMLCanvasElement }> {
  if (canWork()) {
    const shown = canvas();
    const drawer = await WorkerRenderer.begin(shown.transferControlToOffscreen(), options).catch(() => null);
    if (drawer) return { drawer, canvas: shown };
  }
  const shown = canvas();
  return { drawer: await LocalRenderer.begin(shown, options), canvas: shown };
}

/** Creates a renderer for pictures that are not shown, such as files and thumbnails. */
export async function offscreenRenderer(options: DrawerOptions = {}): Promise<FrameRenderer> {
  if (canWork()) {
    const drawer = await WorkerRenderer.begin(new OffscreenCanvas(1, 1), options).catch(() => null);
    if (drawer) return drawer;
  }
  return LocalRenderer.begin(document.createElement('canvas'), options);
}

/** Draws on the page's own thread. */
class LocalRenderer implements FrameRenderer {
  private constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly stage: Stage,
  ) {}

  static async begin(canvas: HTMLCanvasElement, { onLost }: DrawerOptions): Promise<LocalRenderer> {
    const { Stage } = await import('./stage');
    return new LocalRenderer(canvas, await Stage.create(canvas, onLost));
  }

  get subframes(): Subframes {
    return this.stage.subframes;
  }

  setSize(width: number, height: number): void {
    this.stage.setSize(width, height);
  }

  async draw(frame: ViewFrame, number = 0, of = 1, coarse = 1): Promise<void> {
    await pictureFiles(frame);
    await this.stage.room();
    this.stage.setCoarse(coarse);
    this.stage.draw(frame, number, of);
    if (of > 1 && number === of - 1) await this.stage.done();
  }

  async picture(instants: readonly ViewFrame[], subframes: number): Promise<ImageBitmap> {
    for (const frame of instants) await pictureFiles(frame);
    for (let n = 0; n < subframes; n++) {
      await this.stage.room();
      this.stage.draw(instants[instantOf(n, subframes, instants.length)], n, subframes, n === subframes - 1);
    }
    if (this.stage.lost) throw new Error(DEVICE_GONE);
    return createImageBitmap(this.canvas);
  }

  async sound(): Promise<void> {
    if (!(await this.stage.sound())) throw new Error(DEVICE_GONE);
  }

  dispose(): void {
    this.stage.dispose();
  }
}

interface Waiting {
  readonly done: (picture?: ImageBitmap) => void;
  readonly failed: (error: Error) => void;
}

/** A worker started ahead of need: it loads as long as the page around it. */
let spare: Worker | null = null;

const newWorker = () => new Worker(new URL('./stage.worker.ts', import.meta.url), { type: 'module' });

/** Starts loading the renderer for whoever needs one next. */
export function warmRenderer(): void {
  if (canWork()) spare ??= newWorker();
}

/** Draws in its own worker. */
class WorkerRenderer implements FrameRenderer {
  private readonly packer = new Packer();
  private readonly waiting = new Map<number, Waiting>();
  private last: ViewFrame | null = null;
  private number = 0;

  private constructor(
    private readonly worker: Worker,
    readonly subframes: Subframes,
    { onLost }: DrawerOptions,
  ) {
    worker.onmessage = ({ data }: MessageEvent<FromStage>) => {
      if (data.type === 'lost') onLost?.();
      else if (data.type === 'drawn') this.answer(data.id)?.done(data.picture);
      else if (data.type === 'failed') this.answer(data.id)?.failed(new Error(data.message));
    };
    // A worker that dies takes the device with it.
    worker.onerror = () => onLost?.();
  }

  /** Rejects if nothing can be drawn in a worker. */
  static begin(canvas: OffscreenCanvas, options: DrawerOptions): Promise<WorkerRenderer> {
    const worker = spare ?? newWorker();
    spare = null;
    return new Promise<WorkerRenderer>((resolve, reject) => {
      const refuse = (words: string) => {
        worker.terminate();
        reject(new Error(words));
      };
      worker.onerror = (e) => refuse(e.message);
      worker.onmessage = ({ data }: MessageEvent<FromStage>) => {
        if (data.type === 'ready') resolve(new WorkerRenderer(worker, data.subframes, options));
        else if (data.type === 'none') refuse(data.words);
      };
      worker.postMessage({ type: 'begin', canvas } satisfies ToStage, [canvas]);
    });
  }

  setSize(width: number, height: number): void {
    this.worker.postMessage({ type: 'size', width, height } satisfies ToStage);
  }

  async draw(frame: ViewFrame, number = 0, of = 1, coarse = 1): Promise<void> {
    await this.ask(frame, number, number + 1, of, false, coarse);
  }

  async picture(instants: readonly ViewFrame[], subframes: number): Promise<ImageBitmap> {
    let picture: ImageBitmap | undefined;
    for (let first = 0; first < subframes;) {
      const instant = instantOf(first, subframes, instants.length);
      let last = first + 1;
      while (last < subframes && instantOf(last, subframes, instants.length) === instant) last++;
      picture = await this.ask(instants[instant], first, last, subframes, last === subframes);
      first = last;
    }
    return picture!;
  }

  async sound(): Promise<void> {
    const id = ++this.number;
    await new Promise((done, failed) => {
      this.waiting.set(id, { done, failed });
      this.worker.postMessage({ type: 'sound', id } satisfies ToStage);
    });
  }

  dispose(): void {
    this.worker.terminate();
    for (const w of this.waiting.values()) w.failed(new Error('The picture is not needed any more.'));
    this.waiting.clear();
  }

  private ask(
    frame: ViewFrame,
    first: number,
    last: number,
    of: number,
    copy: boolean,
    coarse = 1,
  ): Promise<ImageBitmap | undefined> {
    const packed = frame === this.last ? {} : { frame: this.packer.pack(frame) };
    this.last = frame;
    const id = ++this.number;
    return new Promise((done, failed) => {
      this.waiting.set(id, { done, failed });
      this.worker.postMessage({ type: 'draw', id, ...packed, first, last, of, copy, coarse } satisfies ToStage);
    });
  }

  private answer(id: number): Waiting | undefined {
    const found = this.waiting.get(id);
    this.waiting.delete(id);
    return found;
  }
}
