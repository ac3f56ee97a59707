import type { EvaluateJob, EvaluateResult, FromEvaluator, ToEvaluator } from './protocol';

/** A job without its number, which the pool assigns. */
export type Job = Omit<EvaluateJob, 'type' | 'id'>;

type Done = (result: EvaluateResult | Error) => void;

interface Seat {
  worker: Worker;
  /** Whether it has answered before: a cold worker also has to load. */
  warm: boolean;
  /** Its current job. */
  current: {
    readonly id: number;
    readonly done: Done;
    readonly deadline: ReturnType<typeof setTimeout>;
    /** Milliseconds, as of performance.now. */
    readonly began: number;
    /** The step under way. */
    step?: string;
  } | null;
}

/** A worker silent for this long is considered dead. */
const SILENT_MS = 180_000;
/** Milliseconds allowed for loading before a job counts as slow. */
export const COLD_MS = 5000;
/** After this many workers in a row that died without an answer no more are started. */
const MOST_DEATHS = 6;

/**
 * Workers that take one job at a time. There is no queue: a free worker asks for the most useful job at that moment, so
 * stale work is never started. A worker that dies answers its job with an Error and is replaced.
 */
export class EvaluatorPool {
  private readonly seats: Seat[];
  private number = 0;
  private deaths = 0;
  private disposed = false;

  /**
   * @param next the most useful job now, or null to rest until `wake`
   * @param size workers; by default one per core but one, from 2 to 8
   */
  constructor(
    private readonly next: () => { job: Job; done: Done } | null,
    readonly size = Math.max(2, Math.min(8, (navigator.hardwareConcurrency || 2) - 1)),
  ) {
    this.seats = Array.from({ length: size }, () => {
      const seat = { current: null } as Seat;
      this.fill(seat);
      return seat;
    });
  }

  /** Gives every resting worker something to do. */
  wake(): void {
    for (const seat of this.seats) {
      if (seat.current) continue;
      const offer = this.deaths >= MOST_DEATHS ? this.refuseAll() : this.next();
      if (!offer) return;
      const id = ++this.number;
      const deadline = setTimeout(
        () => this.died(seat, `It took longer than ${SILENT_MS / 60_000} minutes; make the piece smaller.`),
        SILENT_MS,
      );
      seat.current = { id, done: offer.done, deadline, began: performance.now() + (seat.warm ? 0 : COLD_MS) };
      seat.worker.postMessage({ type: 'evaluate', id, ...offer.job } satisfies ToEvaluator);
    }
  }

  /** Tells the workers to send these topologies again when next used. */
  forget(topologies: readonly string[]): void {
    for (const { worker } of this.seats) worker.postMessage({ type: 'forget', topologies } satisfies ToEvaluator);
  }

  /** Milliseconds that the longest running job has taken; 0 if there is none. */
  longest(): number {
    const now = performance.now();
    return Math.max(0, ...this.seats.map(({ current }) => (current ? now - current.began : 0)));
  }

  /**
   * Ends every job that has taken this many milliseconds, with its worker, and answers it with an Error.
   *
   * @returns the steps that were under way
   */
  stop(after: number, message: string): string[] {
    const now = performance.now();
    const steps: string[] = [];
    for (const seat of this.seats)
      if (seat.current && now - seat.current.began >= after) {
        if (seat.current.step !== undefined) steps.push(seat.current.step);
        // It did not die by itself.
        this.deaths--;
        this.died(seat, message);
      }
    return steps;
  }

  dispose(): void {
    this.disposed = true;
    for (const { worker, current } of this.seats) {
      clearTimeout(current?.deadline);
      worker.terminate();
    }
  }

  /** Where workers cannot be started all work is answered, and nobody waits for it. */
  private refuseAll(): null {
    for (let offer = this.next(); offer; offer = this.next())
      offer.done(new Error('Workers cannot be started here; reload the page.'));
    return null;
  }

  private fill(seat: Seat): void {
    const worker = new Worker(new URL('./evaluate.worker.ts', import.meta.url), { type: 'module' });
    seat.worker = worker;
    seat.warm = false;
    worker.onmessage = ({ data }: MessageEvent<FromEvaluator>) => {
      if (data.id !== seat.current?.id) return;
      if (data.type === 'at') return void (seat.current.step = data.step);
      this.deaths = 0;
      seat.warm = true;
      this.finish(seat, data.type === 'failed' ? new Error(data.message) : data);
    };
    const dies = (event: { message?: string }) =>
      seat.worker === worker && this.died(seat, event.message || 'A worker ended by itself.');
    worker.onerror = dies;
    worker.onmessageerror = () => dies({ message: 'A worker’s answer could not be read.' });
  }

  private died(seat: Seat, message: string): void {
    if (this.disposed) return;
    this.deaths++;
    seat.worker.terminate();
    this.fill(seat);
    this.finish(seat, new Error(message));
  }

  private finish(seat: Seat, result: EvaluateResult | Error): void {
    const { current } = seat;
    seat.current = null;
    clearTimeout(current?.deadline);
    current?.done(result);
    this.wake();
  }
}
