import { parentPort } from 'node:worker_threads';
import { RENEW_SECONDS } from './source';

/** What the thread is told: to keep a frame from now on, or no longer. It answers with a lease that is lost. */
export interface ToRenewer {
  readonly lease: string;
  readonly keep: boolean;
}

/**
 * The thread that gives signs of life for frames that are worked on elsewhere, which may keep their own threads busy for
 * longer than a lease lasts.
 *
 * @param renew goes on with a lease; false where it is lost. What it throws means that nobody can be asked just now
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
      // The server may be away for a while; what is done is brought when it is back.
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
