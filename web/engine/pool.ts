import type { EvaluateJob, EvaluateResult, FromEvaluator, ToEvaluator } from './protocol';

/** A job without its number, which the pool gives. */
export type Job = Omit<EvaluateJob, 'type' | 'id'>;

interface Seat {
  readonly worker: Worker;
  busy: boolean;
}

/**
 * Workers that take one job at a time. There is no queue here: a free worker asks for the most
 * useful job of that moment, so work that has become stale is never begun.
 */
export class EvaluatorPool {
  private readonly seats: Seat[];
  private readonly waiting = new Map<number, (result: EvaluateResult | Error) => void>();
  private number = 0;

  /**
   * @param next the most useful job now, or null to rest until `wake`
   * @param size workers; by default one for each core but one, from 2 to 8
   */
  constructor(
    private readonly next: () => { job: Job; done: (result: EvaluateResult | Error) => void } | null,
    size = Math.max(2, Math.min(8, (navigator.hardwareConcurrency || 2) - 1)),
  ) {
    this.seats = Array.from({ length: size }, () => {
      const worker = new Worker(new URL('./evaluate.worker.ts', import.meta.url), { type: 'module' });
      const seat: Seat = { worker, busy: false };
      worker.onmessage = ({ data }: MessageEvent<FromEvaluator>) => this.finish(seat, data.id, data.type === 'failed' ? new Error(data.message) : data);
      worker.onerror = (event) => this.finish(seat, -1, new Error(event.message || 'A worker could not be started.'));
      return seat;
    });
  }

  /** Gives every resting worker something to do. */
  wake(): void {
    for (const seat of this.seats) {
      if (seat.busy) continue;
      const offer = this.next();
      if (!offer) return;
      const id = ++this.number;
      seat.busy = true;
      this.waiting.set(id, offer.done);
      seat.worker.postMessage({ type: 'evaluate', id, ...offer.job } satisfies ToEvaluator);
    }
  }

  /** Tells the workers that these topologies must be sent again when they are next met. */
  forget(topologies: readonly string[]): void {
    for (const { worker } of this.seats) worker.postMessage({ type: 'forget', topologies } satisfies ToEvaluator);
  }

  dispose(): void {
    for (const { worker } of this.seats) worker.terminate();
    this.waiting.clear();
  }

  private finish(seat: Seat, id: number, result: EvaluateResult | Error): void {
    seat.busy = false;
    const done = this.waiting.get(id);
    this.waiting.delete(id);
    done?.(result);
    this.wake();
  }
}
