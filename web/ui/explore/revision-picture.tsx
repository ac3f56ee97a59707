'use client';

import { Box } from '@chakra-ui/react';
import type { Piece } from '@maypole/core/piece/piece';
import { useEffect, useRef, useState } from 'react';
import { canvas2d } from '@/view/stage/canvas-2d';
import { drawStill, STILL } from '@/engine/draw/still';

/** The first picture of a version, drawn once it is visible. */
export function RevisionPicture({ piece, large = false }: { piece: Piece | null; large?: boolean }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const observer = new IntersectionObserver((entries) => entries.some((e) => e.isIntersecting) && setSeen(true));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    if (!piece || !seen) return;
    let ended = false;
    void drawStill(piece, () => !ended)
      .then((picture) => {
        const context = !ended && picture && canvas.current && canvas2d(canvas.current);
        if (context) context.drawImage(picture, 0, 0);
      })
      .catch(() => undefined);
    return () => {
      ended = true;
    };
  }, [piece, seen]);
  const side = large ? 72 : 40;
  return (
    <Box ref={box} flexShrink={0} borderRadius="6px" overflow="hidden" bg="field" style={{ width: side, height: side }}>
      <canvas ref={canvas} width={STILL} height={STILL} style={{ display: 'block', width: side, height: side }} />
    </Box>
  );
}
