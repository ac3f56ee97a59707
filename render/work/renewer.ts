import { Worker } from 'node:worker_threads';
import type { ToRenewer } from './renewing';

/** Keeps leases by a thread of its own; see `renewing`. The thread is begun where it is first needed. */
export class Renewer {
  private thread: Worker | undefined;
  private readonly lost = new Map<string, () => void>();

  /** @param module begins `renewing`, with `data` as its workerData */
  constructor(
    private readonly module: URL,
    private readonly data: unknown,
  ) {}

  /** Keeps a lease until what it gives is called; `lost` is called once where the lease is lost before. */
  keep(lease: string, lost: () => void): () => void {
    this.lost.set(lease, lost);
    this.tell({ lease, keep: true });
    return () => {
      if (this.lost.delete(lease)) this.tell({ lease, keep: false });
    };
  }

  private tell(message: ToRenewer): void {
    this.thread ??= this.begin();
    this.thread.postMessage(message);
  }

  private begin(): Worker {
    const thread = new Worker(this.module, { workerData: this.data });
    thread.on('message', (lease: string) => {
      const lost = this.lost.get(lease);
      this.lost.delete(lease);
      lost?.();
    });
    thread.on('error', (error) => console.error(`Leases are not renewed: ${error.message}`));
    thread.on('exit', () => {
      if (this.thread !== thread) return;
      // Another takes its place with the next frame; what was kept by it may be given to others meanwhile.
      this.thread = undefined;
    });
    // It is no reason for a process to stay; whoever listens makes it one, so that this comes last.
    thread.unref();
    return thread;
  }
}
