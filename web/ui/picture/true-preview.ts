import type { Piece } from '@maypole/core/piece/piece';
import type { FromTracer, ToTracer } from '@/engine/trace/trace-protocol';
import { useEditor } from '../state/store';
import { settingsOf, useTrueLight } from '../state/true-light';
import type { Traced } from './traced';
import type { TracerPool } from './tracer-pool';

/** Longer side of a playing frame in pixels, and bytes of all that are kept. */
const [SIDE, BUDGET] = [320, 256 * 1024 * 1024];

/**
 * The loop in true light: frames are traced small and with few samples, in the order that playback needs, and shown as
 * they play. Missing ones are in quick light.
 */
export class TruePreview {
  private readonly frames = new Map<number, ImageBitmap>();
  /** What the frames belong to. */
  private of: { readonly piece: Piece; readonly key: string } | null = null;
  private working = false;
  private id = 1_000_000;
  /** Counts requests: a copy that arrives after a later request is not shown. */
  private wanted = 0;

  constructor(
    private readonly pool: TracerPool,
    private readonly element: HTMLElement,
    private readonly reports: { onTraced(traced: Traced): void; onTrouble(words: string): void },
    /** Shows a picture, or none. */
    private readonly show: (picture: ImageBitmap | null) => void,
  ) {}

  begin(): void {
    const { piece, detail, frame } = useEditor.getState();
    const effort = useTrueLight.getState();
    const { clientWidth, clientHeight } = this.element;
    const scale = Math.min(1, SIDE / Math.max(clientWidth, clientHeight));
    const [width, height] = [clientWidth, clientHeight].map((x) => Math.max(1, Math.round(x * scale)));
    const samples = Math.max(1, Math.min(effort.least, 16));
    const key = JSON.stringify([detail, width, height, samples, effort.bounces, effort.brightest, effort.denoise]);
    if (this.of?.piece !== piece || this.of.key !== key) this.clear();
    this.of = { piece, key };
    this.working = true;
    const id = ++this.id;
    const count = Math.min(piece.loop.frames, Math.floor(BUDGET / (4 * width * height)));
    const asked = new Set(this.frames.keys());
    const next = () => {
      const now = Math.floor(useEditor.getState().frame);
      for (let i = 1; i <= count; i++) {
        const f = (((now + i) % piece.loop.frames) + piece.loop.frames) % piece.loop.frames;
        if (!asked.has(f)) return f;
      }
      return null;
    };
    const give = (worker: Worker) => {
      const f = this.working && asked.size < count ? next() : null;
      if (f === null) return;
      asked.add(f);
      const settings = { ...settingsOf(effort, f, piece.loop.frames, width, height), error: 0 };
      const job = { id, piece, frame: f, detail, settings, samples };
      worker.postMessage({ type: 'frame', job, denoise: effort.denoise } satisfies ToTracer);
    };
    this.tell(piece.loop.frames);
    this.pool.each((worker) => {
      worker.onmessage = ({ data }: MessageEvent<FromTracer>) => {
        if (data.id !== this.id) return;
        if (data.type === 'failed') {
          this.working = false;
          return this.reports.onTrouble(data.message);
        }
        if (data.type !== 'frame') return;
        this.frames.set(data.frame, data.picture);
        this.tell(piece.loop.frames);
        give(worker);
      };
      give(worker);
    });
    this.at(frame);
  }

  /** Shows a frame of the loop, if it is there. */
  at(frame: number): void {
    if (!this.working) return;
    const n = this.of!.piece.loop.frames;
    const picture = this.frames.get(((Math.floor(frame) % n) + n) % n);
    const wanted = ++this.wanted;
    if (!picture) return this.show(null);
    // The shown copy is given away; the frame stays.
    void createImageBitmap(picture).then(
      (copy) => (wanted === this.wanted ? this.show(copy) : copy.close()),
      // The frame was closed meanwhile: it is obsolete.
      () => undefined,
    );
  }

  stop(): void {
    this.working = false;
    this.id++;
    this.wanted++;
  }

  end(): void {
    this.stop();
    this.clear();
  }

  private tell(of: number): void {
    this.reports.onTraced({ type: 'loop', frames: this.frames.size, of });
  }

  private clear(): void {
    for (const picture of this.frames.values()) picture.close();
    this.frames.clear();
  }
}
