import { pictureAt, sceneAt } from '@maypole/core/evaluate/picture-at';
import { fitFrame } from '@maypole/core/scene/lens';
import { tilesOf } from '@maypole/core/trace/paths/tiles';
import type { Develop, FromDeveloper } from '@/engine/trace/develop-protocol';
import type { FromTracer, ToTracer } from '@/engine/trace/trace-protocol';
import { session } from '../state/session';
import { shownLight, useQuickLight } from '../state/quick-light';
import { useEditor, type EditorState } from '../state/store';
import { settingsOf, useTrueLight, type TrueLight } from '../state/true-light';
import { Darkrooms } from './develop-workers';
import { Progress, type Traced } from './traced';
import { TracerPool } from './tracer-pool';
import { TruePreview } from './true-preview';

/** Milliseconds without a change before tracing starts. */
const STILL = 80;
/** Milliseconds after which a missing picture is requested again. */
const LATE = 3000;
/** Largest number of pixels traced one to one; larger pictures are traced smaller. */
const MOST_PIXELS = 1_400_000;

interface Reports {
  /** Null in quick light. */
  onTraced(traced: Traced | null): void;
  onTrouble(words: string): void;
}

/**
 * The picture in true light over the one in quick light: started when nothing has changed for a moment, refined tile by
 * tile, and removed by the next change, so that a moving view is in quick light. A playing loop shows frames traced
 * ahead. Where quick light cannot draw, the last picture stays until the next one.
 */
export class TruePicture {
  private readonly canvas = document.createElement('canvas');
  private readonly shown = this.canvas.getContext('bitmaprenderer')!;
  private readonly pool = new TracerPool();
  private readonly preview: TruePreview;
  private readonly darkrooms = new Darkrooms((message) => this.developed(message));
  private id = 0;
  /** Parts sent to the developing worker, and how many of them are shown; null for none yet. */
  private given = 0;
  private seen: { readonly how: Develop; readonly parts: number } | null = null;
  private seenAt = 0;
  private watch: ReturnType<typeof setInterval> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly stops: (() => void)[] = [];
  /** Point of interest, 0…1 from the left and from the top. */
  private place: readonly [number, number] = [0.5, 0.5];

  /** @param element the element that the picture fills */
  constructor(
    private readonly element: HTMLElement,
    private readonly reports: Reports,
  ) {
    this.canvas.style.cssText =
      'position:absolute;inset:0;width:100%;height:100%;pointer-events:none;clip-path:var(--compare, none)';
    this.canvas.dataset.testid = 'true-picture';
    this.preview = new TruePreview(this.pool, element, this.reports, (picture) => this.show(picture));
    const observer = new ResizeObserver(() => this.changed());
    observer.observe(element);
    element.addEventListener('pointerup', this.looked);
    this.stops.push(
      () => observer.disconnect(),
      () => element.removeEventListener('pointerup', this.looked),
      useEditor.subscribe(this.edited),
      useTrueLight.subscribe(this.settled),
      useQuickLight.subscribe(() => this.changed()),
    );
  }

  end(): void {
    for (const stop of this.stops) stop();
    this.holdAhead(false);
    clearTimeout(this.timer);
    clearInterval(this.watch);
    this.preview.end();
    this.pool.end();
    this.darkrooms.end();
    this.canvas.remove();
  }

  private readonly edited = (a: EditorState, b: EditorState) => {
    const same = a.piece === b.piece && a.detail === b.detail && a.light === b.light && a.mode === b.mode;
    if (same && a.playing && b.playing) return this.preview.at(a.frame);
    if (!same || a.frame !== b.frame || a.playing !== b.playing) this.changed();
  };

  private readonly settled = (a: TrueLight, b: TrueLight) => {
    const { playing } = useEditor.getState();
    if (shownLight(useEditor.getState()) !== 'true') return;
    // Frames of a loop are kept denoised, or not.
    if (playing && a.denoise !== b.denoise) return this.changed();
    if (a.denoise !== b.denoise || a.map !== b.map) this.darkrooms.tell({ type: 'how', how: howOf(a) });
    const effort = (s: TrueLight) => JSON.stringify([s.least, s.most, s.error, s.bounces, s.brightest]);
    if (effort(a) !== effort(b)) this.changed();
  };

  /** What was clicked is traced first from now on. */
  private readonly looked = (event: PointerEvent) => {
    const box = this.element.getBoundingClientRect();
    this.place = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    if (this.canvas.isConnected) this.changed();
  };

  /** Back to quick light; tracing restarts once nothing changes. */
  private changed(): void {
    clearTimeout(this.timer);
    const { light, mode, playing } = useEditor.getState();
    const alone = isAlone();
    // Results under way are of an obsolete picture.
    this.id++;
    this.seen = null;
    this.given = 0;
    clearInterval(this.watch);
    this.pool.stop();
    if (!alone) this.canvas.remove();
    if (!alone && (light !== 'true' || mode !== 'shaded')) {
      this.preview.stop();
      this.holdAhead(false);
      return this.reports.onTraced(null);
    }
    if (playing) {
      this.holdAhead(false);
      return this.preview.begin();
    }
    this.preview.stop();
    this.holdAhead(true);
    // They load meanwhile.
    this.pool.begin();
    this.darkrooms.begin();
    this.reports.onTraced({
      type: 'picture',
      samples: 0,
      of: useTrueLight.getState().most,
      good: 0,
      left: null,
      spent: 0,
      pixels: 0,
      leftOut: 0,
    });
    this.timer = setTimeout(() => this.begin(), STILL);
  }

  /** Frames ahead wait for the first picture: nobody sees them before. */
  private holdAhead(on: boolean): void {
    session()?.engine.holdAhead(on);
  }

  private show(picture: ImageBitmap | null): void {
    if (!picture) {
      if (!isAlone()) this.canvas.remove();
      return;
    }
    this.canvas.width = picture.width;
    this.canvas.height = picture.height;
    this.shown.transferFromImageBitmap(picture);
    if (!this.canvas.isConnected) this.element.appendChild(this.canvas);
  }

  private developed(message: FromDeveloper): void {
    if (message.id !== this.id) return;
    this.holdAhead(false);
    if (message.type === 'failed') return this.reports.onTrouble(message.message);
    const { how, parts, picture } = message;
    // Whatever arrives late or out of order: what is shown matches the current settings, and never shows less than
    // before.
    const asked = howOf(useTrueLight.getState());
    const worse = how.denoise !== asked.denoise && this.seen?.how.denoise === asked.denoise;
    if (how.shows !== asked.shows || worse || parts < (this.seen?.parts ?? 0)) return picture.close();
    this.seen = { how, parts };
    this.seenAt = performance.now();
    this.show(picture);
  }

  /** Whether the picture shows the current settings and all parts received. */
  private isShown(): boolean {
    const { denoise, shows } = howOf(useTrueLight.getState());
    return this.seen?.how.shows === shows && this.seen.how.denoise === denoise && this.seen.parts === this.given;
  }

  /** Requests a missing picture again, until it arrives. */
  private look(): void {
    const late = performance.now() - this.seenAt > LATE;
    if (late && this.given > 0 && !this.isShown())
      this.darkrooms.tell({ type: 'how', how: howOf(useTrueLight.getState()) });
  }

  private begin(): void {
    const { piece, frame, detail } = useEditor.getState();
    const { clientWidth, clientHeight } = this.element;
    if (clientWidth === 0 || clientHeight === 0) return;
    const scale = Math.min(1, Math.sqrt(MOST_PIXELS / (clientWidth * clientHeight)));
    const [width, height] = [clientWidth, clientHeight].map((x) => Math.max(1, Math.round(x * scale)));
    const scene = sceneAt(piece, frame);
    const effort = useTrueLight.getState();
    const id = ++this.id;
    const fit = fitFrame(scene.camera.focalLength, piece.format.width / piece.format.height, width / height);
    this.seen = null;
    this.given = 0;
    clearInterval(this.watch);
    this.seenAt = performance.now();
    this.watch = setInterval(() => this.look(), LATE);
    this.darkrooms.tell({
      type: 'begin',
      id,
      width,
      height,
      frame: fit,
      scene: { camera: scene.camera, backdrop: scene.backdrop, picture: scene.picture },
      files: pictureAt(piece, frame, () => undefined).files,
      samples: effort.most,
      how: howOf(effort),
    });
    const settings = settingsOf(effort, frame, piece.loop.frames, width, height);
    const progress = new Progress(tilesOf(width, height), effort.most);
    const take = (message: FromTracer) => {
      if (message.id !== this.id) return;
      if (message.type === 'failed') {
        this.holdAhead(false);
        this.reports.onTraced(null);
        return this.reports.onTrouble(message.message);
      }
      if (message.type === 'coarse') return this.darkrooms.tell({ ...message }, [message.sums.buffer]);
      if (message.type !== 'part') return;
      const { tile, samples, part } = message;
      this.reports.onTraced(progress.take(tile, samples, part.sums, part.sampledPixels === 0));
      this.given++;
      this.darkrooms.tell({ type: 'part', id, tile, part }, [part.sums.buffer, part.features.buffer]);
    };
    this.pool.each((worker, index, of) => {
      worker.onmessage = ({ data }: MessageEvent<FromTracer>) => take(data);
      worker.onerror = () => take({ type: 'failed', id, message: 'True light stopped: there is not enough memory.' });
      const job = { id, piece, frame, detail, settings, samples: effort.most, index, of, place: this.place };
      worker.postMessage({ type: 'picture', job } satisfies ToTracer);
    });
  }
}

/** Whether nothing else draws the picture. */
const isAlone = () => useQuickLight.getState().missing !== null;

const howOf = ({ denoise, map }: TrueLight): Develop => ({ denoise, shows: map ? 'samples' : 'picture' });
