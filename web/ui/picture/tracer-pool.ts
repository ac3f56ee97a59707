import { shareFrames } from '@/engine/trace/lent-scene';
import type { ToTracer } from '@/engine/trace/trace-protocol';

/** Tracing workers, made when first needed: one processor is left for the interface. */
export class TracerPool {
  private workers: readonly Worker[] = [];

  /** Starts the workers. */
  begin(): void {
    if (this.workers.length > 0) return;
    const count = Math.max(1, Math.min(16, (navigator.hardwareConcurrency || 2) - 1));
    this.workers = Array.from(
      { length: count },
      () => new Worker(new URL('../../engine/trace/trace.worker.ts', import.meta.url), { type: 'module' }),
    );
    shareFrames(this.workers);
  }

  each(give: (worker: Worker, index: number, of: number) => void): void {
    this.begin();
    this.workers.forEach((worker, i) => give(worker, i, this.workers.length));
  }

  /** Makes them drop their current work. */
  stop(): void {
    for (const w of this.workers) w.postMessage({ type: 'stop' } satisfies ToTracer);
  }

  end(): void {
    for (const w of this.workers) w.terminate();
    this.workers = [];
  }
}
