'use client';

import { loopSeconds, type Loop } from '@maypole/core/time/loop';
import { useEffect, useRef } from 'react';
import { canvas2d } from '@/view/stage/canvas-2d';
import type { Strip } from '@/engine/draw/contact-sheet';

type Show = (now: number) => void;
const shown = new Set<Show>();
let asked = 0;

/** One clock for all strips, so that they play in step. */
function join(show: Show): () => void {
  shown.add(show);
  const tick = (now: number) => {
    for (const each of shown) each(now);
    asked = shown.size > 0 ? requestAnimationFrame(tick) : 0;
  };
  if (!asked) asked = requestAnimationFrame(tick);
  return () => shown.delete(show);
}

/** A small playing loop; the previous picture stands in for one that is missing. */
export function StripCanvas({ strip, loop, label }: { strip: Strip; loop: Loop; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, frames } = strip;
  useEffect(() => {
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    const length = loopSeconds(loop) * 1000;
    let [last, seen] = [-1, true];
    const watch = new IntersectionObserver(([entry]) => (seen = entry.isIntersecting));
    if (canvas.current) watch.observe(canvas.current);
    const leave = join((now) => {
      let i = still ? 0 : Math.floor(((now % length) / length) * frames);
      while (i > 0 && !strip.there.has(i)) i--;
      // Nothing is drawn twice, or while scrolled out of view.
      if (i === last || !seen || !strip.there.has(i)) return;
      const context = canvas.current && canvas2d(canvas.current);
      if (!context) return;
      last = i;
      context.clearRect(0, 0, width, height);
      context.drawImage(strip.canvas, i * width, 0, width, height, 0, 0, width, height);
    });
    return () => {
      watch.disconnect();
      leave();
    };
  }, [strip, loop, width, height, frames]);
  return (
    // A plain element: width and height are its pixels.
    <canvas
      ref={canvas}
      width={width}
      height={height}
      role={label ? 'img' : undefined}
      aria-label={label || undefined}
      style={{ display: 'block', width: '100%', height: 'auto', aspectRatio: `${width} / ${height}` }}
    />
  );
}
