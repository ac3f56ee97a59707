import type { Mesh } from '@maypole/core/shape/mesh';
import type { BandDrawn, BandJob } from '@/engine/sketch/band.worker';

let worker: Worker | null = null;
let last = 0;
const waiting = new Map<number, (file: Blob | null) => void>();

function start(): Worker {
  const made = new Worker(new URL('../../engine/sketch/band.worker.ts', import.meta.url), { type: 'module' });
  made.onmessage = ({ data }: MessageEvent<BandDrawn>) => answer(data.id, new Blob([data.file], { type: 'image/png' }));
  // A failed picture is just missing; nothing depends on it.
  made.onerror = () => {
    worker = null;
    for (const id of waiting.keys()) answer(id, null);
  };
  return made;
}

function answer(id: number, file: Blob | null): void {
  waiting.get(id)?.(file);
  waiting.delete(id);
}

/** A small picture of a shape, drawn in a worker that takes its buffers. Null if it fails. */
export function bandSketch(mesh: Mesh, size: number, tone: string): Promise<Blob | null> {
  const { connectivity: c, positions } = mesh;
  const id = ++last;
  const curves = c.curves ? [c.curves.start.buffer, c.curves.points.buffer, c.curves.closed.buffer] : [];
  worker ??= start();
  worker.postMessage({ id, mesh, size, tone } satisfies BandJob, [
    positions.buffer,
    c.faceStart.buffer,
    c.corners.buffer,
    ...curves,
  ]);
  return new Promise((resolve) => waiting.set(id, resolve));
}
