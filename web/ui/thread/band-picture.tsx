'use client';

import { memo, useEffect, useRef } from 'react';
import type { RibbonDoc } from '@maypole/core/piece/piece';
import { geometrySketch } from '@/engine/geometry-sketch';
import { session } from '../state/session';
import { useEditor } from '../state/store';

/** Pixels drawn, and pixels shown. */
const [DRAWN, SHOWN] = [68, 34];
/** Milliseconds without an edit after which the picture is made anew. */
const REST = 500;
const TONE = '#fffdf8';

/** What a ribbon looks like, small and in one tone; made from the shapes in view when nothing is being edited. */
export const BandPicture = memo(function BandPicture({ ribbon }: { ribbon: RibbonDoc }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const draw = () => {
      const geometry = session()?.engine.geometry(ribbon, useEditor.getState().frame);
      const context = canvas.current?.getContext('2d');
      if (!geometry || !context) {
        timer = setTimeout(draw, REST);
        return;
      }
      const image = geometrySketch(geometry.parts, DRAWN, TONE);
      context.clearRect(0, 0, DRAWN, DRAWN);
      if (image) context.putImageData(new ImageData(image, DRAWN, DRAWN), 0, 0);
    };
    timer = setTimeout(draw, REST);
    return () => clearTimeout(timer);
  }, [ribbon]);
  return (
    <canvas
      ref={canvas}
      width={DRAWN}
      height={DRAWN}
      aria-hidden="true"
      data-testid="band-picture"
      style={{ width: SHOWN, height: SHOWN }}
    />
  );
});
