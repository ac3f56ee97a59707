import { useEffect } from 'react';
import { create } from 'zustand';
import type { Queue, RenderSummary } from '@/contract/renders';
import { goesOn, isAwaited, tellOfEnd } from './awaited';
import { queueOf } from './render-api';

interface Renders {
  readonly queue: Queue | null;
  readonly trouble: string | null;
}

export const useRenders = create<Renders>()(() => ({ queue: null, trouble: null }));

/** Milliseconds between polls of the queue while something is running, and while nothing is. */
const [BUSY, QUIET] = [1200, 10_000];

/** Progress of a render, 0…1: its frames, then its files. */
export function shareOf(r: RenderSummary): number {
  const files =
    r.files.length === 0 ? 0 : r.files.reduce((n, f) => n + (f.state === 'done' ? 1 : f.share), 0) / r.files.length;
  return 0.9 * (r.frames === 0 ? 1 : r.done / r.frames) + 0.1 * files;
}

let timer: ReturnType<typeof setTimeout> | undefined;
let watchers = 0;
let asked: string | undefined;

/** Polls the queue now, and announces what has ended since. */
export async function lookAtQueue(): Promise<void> {
  clearTimeout(timer);
  const before = useRenders.getState().queue;
  try {
    const queue = await queueOf(asked);
    useRenders.setState({ queue, trouble: null });
    const were = new Map(before?.renders.map((r) => [r.id, r]));
    for (const render of queue.renders) {
      const was = were.get(render.id);
      if (was && goesOn(was) && !goesOn(render) && !isAwaited(render.id)) tellOfEnd(render);
    }
  } catch (error) {
    useRenders.setState({ trouble: error instanceof Error ? error.message : 'The queue cannot be read.' });
  }
  if (watchers > 0) {
    const busy = useRenders.getState().queue?.renders.some(goesOn) ?? false;
    timer = setTimeout(() => void lookAtQueue(), busy ? BUSY : QUIET);
  }
}

/** Polls the queue of a piece, or all of it, while a component shows it. */
export function useQueue(piece?: string): Queue | null {
  useEffect(() => {
    watchers++;
    if (asked !== piece) useRenders.setState({ queue: null });
    asked = piece;
    void lookAtQueue();
    return () => {
      watchers--;
      if (watchers === 0) clearTimeout(timer);
    };
  }, [piece]);
  return useRenders((s) => s.queue);
}
