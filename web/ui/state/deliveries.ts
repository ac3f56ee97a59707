import { outputs } from '@maypole/core/output/index';
import type { Item, Piece } from '@maypole/core/piece/piece';
import { create } from 'zustand';
import { deliver, type Delivery, type DeliveryProgress } from '@/engine/deliver';
import { download } from '../api';
import { tell } from '../parts/toasts';

/** One file that is being made, waits to be, or was. */
export interface DeliveryJob {
  readonly id: number;
  readonly title: string;
  readonly kind: string;
  readonly state: 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
  readonly progress: DeliveryProgress | null;
  readonly delivery?: Delivery;
  readonly message?: string;
}

/** Deliveries of this page, the newest first. They go on while one edits: each is of the piece as it was when it was asked for. */
export const useDeliveries = create<{ readonly jobs: readonly DeliveryJob[] }>()(() => ({ jobs: [] }));

let number = 0;
const controllers = new Map<number, AbortController>();
let queue: Promise<void> = Promise.resolve();

function change(id: number, part: Partial<DeliveryJob>): void {
  useDeliveries.setState(({ jobs }) => ({ jobs: jobs.map((j) => (j.id === id ? { ...j, ...part } : j)) }));
}

/** Asks for a file of a piece as it is now; one is made at a time. */
export function startDelivery(piece: Piece, output: Item): void {
  const id = ++number;
  const controller = new AbortController();
  controllers.set(id, controller);
  const job: DeliveryJob = {
    id,
    title: piece.name,
    kind: outputs.get(output.kind).title,
    state: 'waiting',
    progress: null,
  };
  useDeliveries.setState(({ jobs }) => ({ jobs: [job, ...jobs].slice(0, 20) }));
  queue = queue.then(() => run(id, piece, output, controller.signal));
}

async function run(id: number, piece: Piece, output: Item, signal: AbortSignal): Promise<void> {
  if (signal.aborted) return;
  change(id, { state: 'working' });
  try {
    const delivery = await deliver(piece, output, (progress) => change(id, { progress }), signal);
    change(id, { state: 'done', delivery });
    download(delivery.name, delivery.blob);
    tell(`${delivery.name} is made and in your downloads.`);
  } catch (error) {
    if (signal.aborted) change(id, { state: 'cancelled' });
    else
      change(id, { state: 'failed', message: error instanceof Error ? error.message : 'The file could not be made.' });
  } finally {
    controllers.delete(id);
  }
}

/** Ends a delivery that waits or is being made. */
export function cancelDelivery(id: number): void {
  controllers.get(id)?.abort();
  change(id, { state: 'cancelled' });
}

/** Whether any is waiting or being made. */
export function deliveriesGoOn(jobs: readonly DeliveryJob[]): boolean {
  return jobs.some((j) => j.state === 'waiting' || j.state === 'working');
}
