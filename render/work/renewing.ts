import { parentPort } from 'node:worker_threads';
import { RENEW_SECONDS } from './source';

/** Messages to the thread: keep a lease from now on, or no longer. It answers with leases that are lost. */
export interface ToRenewer {
  readonly lease: string;
  readonly keep: boolean;
}

/**
 * Renews leases of frames whose own threads may be busy for longer than a lease lasts.
 *
 * @param renew renews a lease; false if it is lost. It throws if nobody can be reached just now
 */
export function renewing(renew: (lease: string) => Promise<boolean>, every = RENEW_SECONDS * 1000): void {
  const timers = new Map<string, ReturnType<typeof setInterval>>();
  const end = (lease: string) => {
    clearInterval(timers.get(lease));
    timers.delete(lease);
  };
  parentPort!.on('message', ({ lease, keep }: ToRenewer) => {
    end(lease);
    if (!keep) return;
    const look = async () => {
      // The server may be away for a while; results are delivered when it is back.
      if ((await renew(lease).catch(() => true)) || !timers.has(lease)) return;
      end(lease);
      parentPort!.postMessage(lease);
    };
    timers.set(
      lease,
      setInterval(() => void look(), every),
    );
  });
}
