import type { Piece } from '@maypole/core/piece/piece';
import type { Proof } from '@maypole/core/seam/proof';
import type { Repair } from '@maypole/core/seam/finding';
import type { Detail } from '@maypole/core/steps/step';
import type { FromSeam, RibbonMeasure, SeamJob } from './protocol';

/** What is known of the seam: first from the motions, then from the shapes. */
export interface SeamMeasure {
  /** Of the newest piece, or of the one just before while that is pending; null before the first. */
  readonly proof: Proof | null;
  readonly state: 'measuring' | 'shapes' | 'complete' | 'failed';
  readonly ribbons: readonly RibbonMeasure[];
  readonly symmetry: Readonly<Record<string, readonly Repair[]>>;
  /** Share of the step sizes measured, 0…1. */
  readonly progress: number;
  /** What is being done at the moment, in words. */
  readonly at?: string;
  readonly message?: string;
}

export const NOT_MEASURED: SeamMeasure = { proof: null, state: 'measuring', ribbons: [], symmetry: {}, progress: 0 };

/**
 * Checks the seam of the newest piece in its own worker. The proof is requested at once, one at a time; shapes are
 * measured when editing pauses. Older work is dropped.
 */
export class SeamWatch {
  private readonly worker = new Worker(new URL('./seam.worker.ts', import.meta.url), { type: 'module' });
  private id = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private proving = false;
  private waiting: SeamJob | null = null;
  private current: SeamMeasure = NOT_MEASURED;

  constructor(private readonly onChange: (measure: SeamMeasure) => void) {
    this.worker.onmessage = ({ data }: MessageEvent<FromSeam>) => {
      if (data.type === 'proof' || (data.type === 'failed' && this.proving)) {
        this.proving = false;
        const next = this.waiting;
        this.waiting = null;
        if (next) this.prove(next);
      }
      // A proof that is slightly late is still closer to the truth than the one before.
      if (data.type === 'proof') return this.set({ ...this.current, proof: data.proof });
      if (data.id !== this.id) return;
      if (data.type === 'shapes')
        this.set({
          ...this.current,
          state: 'shapes',
          ribbons: data.ribbons,
          symmetry: data.symmetry,
          progress: 0,
          at: undefined,
        });
      else if (data.type === 'at') this.set({ ...this.current, at: data.doing });
      else if (data.type === 'progress') this.set({ ...this.current, progress: data.done / data.total });
      else if (data.type === 'steps')
        this.set({ ...this.current, state: 'complete', ribbons: data.ribbons, progress: 1 });
      else this.set({ ...this.current, state: 'failed', ribbons: [], message: data.message });
    };
  }

  /** Proves at once, and measures after a short pause, so that dragging a value does not restart it over and over. */
  request(piece: Piece, detail: Detail, steps: boolean, delay = 350): void {
    clearTimeout(this.timer);
    const id = ++this.id;
    this.set({ ...this.current, state: 'measuring', ribbons: [], symmetry: {}, progress: 0, at: undefined });
    const job = { id, piece, detail, steps };
    this.prove({ ...job, type: 'prove' });
    this.timer = setTimeout(() => this.worker.postMessage({ ...job, type: 'measure' } satisfies SeamJob), delay);
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.worker.terminate();
  }

  private prove(job: SeamJob): void {
    if (this.proving) {
      this.waiting = job;
      return;
    }
    this.proving = true;
    this.worker.postMessage(job);
  }

  private set(measure: SeamMeasure): void {
    this.current = measure;
    this.onChange(measure);
  }
}
