import { linkPiece } from '@maypole/core/piece/link';
import { useEffect, useState } from 'react';
import type { SketchJob, Sketched } from '@/engine/sketch/sketch.worker';
import { useEditor } from '../state/store';

export const SKETCH = 88;
let jobs = 0;

/** Previews of what steps would make of a ribbon, arriving one by one while a menu is open. */
export function useSketches(
  open: boolean,
  ribbonId: string | undefined,
  kinds: readonly string[],
  tone: string,
): ReadonlyMap<string, Uint8ClampedArray<ArrayBuffer>> {
  const [pictures, setPictures] = useState<ReadonlyMap<string, Uint8ClampedArray<ArrayBuffer>>>(new Map());
  const list = kinds.join();
  useEffect(() => {
    if (!open) return;
    const worker = new Worker(new URL('../../engine/sketch/sketch.worker.ts', import.meta.url), { type: 'module' });
    const { piece, frame } = useEditor.getState();
    const ribbon = linkPiece(piece).ribbons.find((r) => r.id === ribbonId) ?? null;
    const id = ++jobs;
    worker.onmessage = ({ data }: MessageEvent<Sketched>) =>
      setPictures((known) => new Map(known).set(data.kind, data.image));
    worker.postMessage({
      id,
      ribbon,
      loop: piece.loop,
      frame,
      kinds: list.split(','),
      size: SKETCH,
      tone,
    } satisfies SketchJob);
    return () => {
      worker.terminate();
      setPictures(new Map());
    };
  }, [open, ribbonId, list, tone]);
  return pictures;
}
