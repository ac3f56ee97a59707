import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { fitFrame } from '@maypole/core/scene/lens';
import { developed } from '@maypole/core/trace/develop';
import type { Tile } from '@maypole/core/trace/tracer';
import { tilesOf } from '@/engine/tiles';
import type { FromTracer, ToTracer } from '@/engine/trace-protocol';
import { canvas2d } from '@/view/canvas-2d';
import { useEditor, type EditorState } from '../state/store';
import type { Traced } from './light-switch';

/** Milliseconds without a change after which rays are followed. */
const STILL = 220;
/** Samples of a pixel, surfaces of a path, and the brightest that what is not seen at once may be. */
const [SAMPLES, BOUNCES, BRIGHTEST] = [256, 8, 20];
/** Pixels of a picture up to which every one has rays of its own; a larger one is traced smaller. */
const MOST_PIXELS = 1_400_000;

interface Reports {
  /** Null while the picture is in quick light. */
  onTraced(traced: Traced | null): void;
  onTrouble(words: string): void;
}

/**
 * The picture in true light, over that in quick light: begun when nothing has changed for a moment, refined tile by
 * tile, and taken away by the next change, so that a moving view is in quick light.
 */
export class TruePicture {
  private readonly canvas = document.createElement('canvas');
  private workers: readonly Worker[] = [];
  private id = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly stops: (() => void)[] = [];

  /** @param element what the picture fills */
  constructor(
    private readonly element: HTMLElement,
    private readonly reports: Reports,
  ) {
    this.canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;pointer-events:none';
    this.canvas.dataset.testid = 'true-picture';
    const observer = new ResizeObserver(() => this.changed());
    observer.observe(element);
    this.stops.push(() => observer.disconnect(), useEditor.subscribe(this.edited));
  }

  end(): void {
    for (const stop of this.stops) stop();
    clearTimeout(this.timer);
    for (const w of this.workers) w.terminate();
    this.canvas.remove();
  }

  private readonly edited = (a: EditorState, b: EditorState) => {
    const same = a.piece === b.piece && a.frame === b.frame && a.detail === b.detail;
    if (!same || a.light !== b.light || a.mode !== b.mode || a.playing !== b.playing) this.changed();
  };

  /** Back to quick light; rays are followed again once it is quiet. */
  private changed(): void {
    clearTimeout(this.timer);
    const { light, mode } = useEditor.getState();
    // Tiles that are on their way are of a picture that is not wanted any more.
    this.id++;
    for (const w of this.workers) w.postMessage({ type: 'stop' } satisfies ToTracer);
    this.canvas.remove();
    if (light !== 'true' || mode !== 'shaded') return this.reports.onTraced(null);
    this.reports.onTraced({ samples: 0, of: SAMPLES });
    this.timer = setTimeout(() => this.begin(), STILL);
  }

  private begin(): void {
    const { piece, frame, detail, playing } = useEditor.getState();
    const { clientWidth, clientHeight } = this.element;
    if (playing || clientWidth === 0 || clientHeight === 0) return;
    const scale = Math.min(1, Math.sqrt(MOST_PIXELS / (clientWidth * clientHeight)));
    const [width, height] = [clientWidth, clientHeight].map((x) => Math.max(1, Math.round(x * scale)));
    this.canvas.width = width;
    this.canvas.height = height;
    const scene = sceneAt(piece, frame);
    const aspect = piece.format.width / piece.format.height;
    const fit = fitFrame(scene.camera.focalLength, aspect, width / height);
    const done = new Map(tilesOf(width, height).map((t) => [key(t), 0]));
    const id = ++this.id;
    const { frames } = piece.loop;
    const settings = {
      width,
      height,
      bounces: BOUNCES,
      brightest: BRIGHTEST,
      // Frame N has the grain of frame 0.
      grain: 1 + (((Math.round(frame) % frames) + frames) % frames),
    };
    const context = canvas2d(this.canvas)!;
    let told = 0;
    const take = (message: FromTracer) => {
      if (message.id !== this.id) return;
      if (message.type === 'failed') {
        this.reports.onTraced(null);
        return this.reports.onTrouble(message.message);
      }
      const { tile, samples, sums } = message;
      const pixels = developed(sums, samples, { tile, width, height, frame: fit, scene });
      context.putImageData(new ImageData(pixels, tile.width, tile.height), tile.x, tile.y);
      if (!this.canvas.isConnected) this.element.appendChild(this.canvas);
      done.set(key(tile), samples);
      const least = Math.min(...done.values());
      if (least > told) this.reports.onTraced({ samples: (told = least), of: SAMPLES });
    };
    this.workers = this.workers.length > 0 ? this.workers : made();
    this.workers.forEach((worker, index) => {
      worker.onmessage = ({ data }: MessageEvent<FromTracer>) => take(data);
      worker.onerror = () => take({ type: 'failed', id, message: 'True light stopped for want of memory.' });
      const job = { id, piece, frame, detail, settings, samples: SAMPLES, index, of: this.workers.length };
      worker.postMessage({ type: 'begin', job } satisfies ToTracer);
    });
  }
}

const key = ({ x, y }: Tile) => `${x},${y}`;

/** One processor is left for the hand. */
function made(): readonly Worker[] {
  const count = Math.max(1, Math.min(16, (navigator.hardwareConcurrency || 2) - 1));
  return Array.from(
    { length: count },
    () => new Worker(new URL('../../engine/trace.worker.ts', import.meta.url), { type: 'module' }),
  );
}
