import { instantOf } from '@maypole/core/scene/shutter';
import { softnessOf } from '@maypole/core/scene/softness';
import type { ViewFrame } from './frame';
import { Packer } from './pack';
import { pictureFiles } from './picture-files';
import type { Stage } from './stage';
import { DEVICE_GONE, type FromStage, type ToStage } from './stage-protocol';

/** For clean edges alone, and where a lens or the size of a lamp makes things soft. */
export interface Subframes {
  readonly edges: number;
  readonly soft: number;
}

/** How many sub-frames a frame wants. */
export function subframesFor({ scene, mode }: ViewFrame, { edges, soft }: Subframes): number {
  // What is sharp is told of places and not of their average.
  if (mode === 'sharp') return 1;
  return { edges, soft, shade: 2 * soft }[softnessOf(scene)];
}

/** What draws frames: in a worker where the browser can, so that drawing and compiling shaders never hold up the page. */
export interface Drawer {
  /** Sub-frames that a picture which stands still is the average of, by how much of it is only seen in many of them. */
  readonly subframes: Subframes;
  /** Size of the picture in device pixels. */
  setSize(width: number, height: number): void;
  /**
   * Draws sub-frame `number` of `of`; resolves once it stands in the canvas.
   *
   * @param coarse device pixels that one of the picture covers each way
   */
  draw(frame: ViewFrame, number?: number, of?: number, coarse?: number): Promise<void>;
  /**
   * Draws the average of so many sub-frames and gives it away; to be closed by who takes it.
   *
   * @param instants the frame as it is at as many instants, in the order in which they are drawn
   */
  picture(instants: readonly ViewFrame[], subframes: number): Promise<ImageBitmap>;
  /**
   * Asks the device itself whether it is there. What was read of its pictures before is whole then.
   *
   * @throws DEVICE_GONE where it is not
   */
  sound(): Promise<void>;
  dispose(): void;
}

export interface DrawerOptions {
  /** Told when the graphics device is gone; nothing more is drawn then. */
  readonly onLost?: () => void;
}

const canWork = () =>
  typeof Worker !== 'undefined' &&
  typeof OffscreenCanvas !== 'undefined' &&
  'transferControlToOffscreen' in HTMLCanvasElement.prototype;

/**
 * A drawer on a canvas of the page. The canvas is a new one wherever the first cannot be used again.
 *
 * @param canvas makes a canvas to draw on
 */
export async function shownDrawer(
  canvas: () => HTMLCanvasElement,
  options: DrawerOptions = {},
): Promise<{ drawer: Drawer; canvas: HTMLCanvasElement }> {
  if (canWork()) {
    const shown = canvas();
    const drawer = await RemoteDrawer.begin(shown.transferControlToOffscreen(), options).catch(() => null);
    if (drawer) return { drawer, canvas: shown };
  }
  const shown = canvas();
  return { drawer: await LocalDrawer.begin(shown, options), canvas: shown };
}

/** A drawer of pictures that are not shown, such as files and thumbnails. */
export async function hiddenDrawer(options: DrawerOptions = {}): Promise<Drawer> {
  if (canWork()) {
    const drawer = await RemoteDrawer.begin(new OffscreenCanvas(1, 1), options).catch(() => null);
    if (drawer) return drawer;
  }
  return LocalDrawer.begin(document.createElement('canvas'), options);
}

/** Draws on the page's own thread. */
class LocalDrawer implements Drawer {
  private constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly stage: Stage,
  ) {}

  static async begin(canvas: HTMLCanvasElement, { onLost }: DrawerOptions): Promise<LocalDrawer> {
    const { Stage } = await import('./stage');
    return new LocalDrawer(canvas, await Stage.create(canvas, onLost));
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

/** A worker begun before it is needed: it takes as long to load as the page around it. */
let spare: Worker | null = null;

const newWorker = () => new Worker(new URL('./stage.worker.ts', import.meta.url), { type: 'module' });

/** Begins to load what draws, for whoever asks for a drawer next. */
export function warmDrawer(): void {
  if (canWork()) spare ??= newWorker();
}

/** Draws in a worker of its own. */
class RemoteDrawer implements Drawer {
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

  /** Rejects where nothing can be drawn in a worker. */
  static begin(canvas: OffscreenCanvas, options: DrawerOptions): Promise<RemoteDrawer> {
    const worker = spare ?? newWorker();
    spare = null;
    return new Promise<RemoteDrawer>((resolve, reject) => {
      const refuse = (words: string) => {
        worker.terminate();
        reject(new Error(words));
      };
      worker.onerror = (e) => refuse(e.message);
      worker.onmessage = ({ data }: MessageEvent<FromStage>) => {
        if (data.type === 'ready') resolve(new RemoteDrawer(worker, data.subframes, options));
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
