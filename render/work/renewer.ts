import { Worker } from 'node:worker_threads';
import type { ToRenewer } from './renewing';

/** Renews leases from a separate thread; see `renewing`. The thread starts when first needed. */
export class Renewer {
  private thread: Worker | undefined;
  private readonly lost = new Map<string, () => void>();

  /** @param module calls `renewing`, with `data` as its workerData */
  constructor(
    private readonly module: URL,
    private readonly data: unknown,
  ) {}

  /** Renews a lease until the returned function is called; calls `lost` once if the lease is lost before. */
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
      // A new thread starts with the next frame; leases that this one kept may go to others meanwhile.
      this.thread = undefined;
    });
    // It must not keep the process alive. Listening would, so this comes last.
    thread.unref();
    return thread;
  }
}
