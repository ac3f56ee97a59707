import type { Piece } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import type { FromSeam, RibbonMeasure, SeamJob } from './protocol';

/** What is known of the geometry across the seam. */
export interface SeamMeasure {
  readonly state: 'measuring' | 'gaps' | 'complete' | 'failed';
  readonly ribbons: readonly RibbonMeasure[];
  /** Share of the step sizes measured, 0…1. */
  readonly progress: number;
  readonly message?: string;
}

const IDLE: SeamMeasure = { state: 'measuring', ribbons: [], progress: 0 };

/** Measures the seam of the newest piece in a worker of its own; older work is dropped. */
export class SeamWatch {
  private readonly worker = new Worker(new URL('./seam.worker.ts', import.meta.url), { type: 'module' });
  private id = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private current: SeamMeasure = IDLE;

  constructor(private readonly onChange: (measure: SeamMeasure) => void) {
    this.worker.onmessage = ({ data }: MessageEvent<FromSeam>) => {
      if (data.id !== this.id) return;
      if (data.type === 'gaps') this.set({ state: 'gaps', ribbons: data.ribbons, progress: 0 });
      else if (data.type === 'progress') this.set({ ...this.current, progress: data.done / data.total });
      else if (data.type === 'steps') this.set({ state: 'complete', ribbons: data.ribbons, progress: 1 });
      else this.set({ ...IDLE, state: 'failed', message: data.message });
    };
  }

  /** Measures after a short pause, so that a value being dragged does not start it over and over. */
  request(piece: Piece, detail: Detail, steps: boolean, delay = 350): void {
    clearTimeout(this.timer);
    this.id++;
    const id = this.id;
    this.set(IDLE);
    this.timer = setTimeout(() => this.worker.postMessage({ type: 'seam', id, piece, detail, steps } satisfies SeamJob), delay);
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.worker.terminate();
  }

  private set(measure: SeamMeasure): void {
    this.current = measure;
    this.onChange(measure);
  }
}
