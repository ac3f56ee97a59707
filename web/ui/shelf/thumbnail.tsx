'use client';

import { Box } from '@chakra-ui/react';
import { readPiece } from '@maypole/core/piece/read';
import { loopSeconds } from '@maypole/core/time/loop';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { STRIP } from '@/engine/draw/strip';
import { drawStrip, TooMuch } from '@/engine/draw/thumbnail';
import type { PieceSummary } from '@/contract/pieces';
import { loadPiece, storeThumbnail } from '../api';
import { owesPicture, pictureDrawn } from '../state/owed-pictures';

/** Whether an element is visible, and whether it has been. */
function useSight(element: RefObject<HTMLElement | null>): { readonly now: boolean; readonly ever: boolean } {
  const [sight, setSight] = useState({ now: false, ever: false });
  useEffect(() => {
    const observer = new IntersectionObserver((entries) => {
      const now = entries.at(-1)!.isIntersecting;
      setSight((before) => (before.now === now ? before : { now, ever: before.ever || now }));
    });
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return sight;
}

/**
 * The loop, playing. The strip of pictures comes from the server. It is drawn from the real evaluation
 * by the tab that changed the piece, or where there is none yet; whoever only looks draws nothing.
 */
export function Thumbnail({ piece }: { piece: PieceSummary }) {
  const box = useRef<HTMLDivElement>(null);
  const { now: inSight, ever: seen } = useSight(box);
  const [made, setMade] = useState<string | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const strip = useRef<HTMLImageElement>(null);
  const { id, revision, thumbnailRevision } = piece;
  const current = thumbnailRevision === revision;
  const url = made ?? (thumbnailRevision === null ? null : `/api/pieces/${id}/thumbnail?revision=${thumbnailRevision}`);

  useEffect(() => {
    if (current) pictureDrawn(id);
    if (current || !seen || (thumbnailRevision !== null && !owesPicture(id))) return;
    let ended = false;
    let own: string | null = null;
    void (async () => {
      try {
        const { source, revision: now } = await loadPiece(id);
        const read = readPiece(source);
        if (!read.ok || ended) return;
        const picture = await drawStrip(read.piece);
        await storeThumbnail(id, now, picture);
        pictureDrawn(id);
        if (ended) return;
        own = URL.createObjectURL(picture);
        setMade(own);
      } catch (error) {
        if (!(error instanceof TooMuch)) console.warn(error);
        if (!ended) setFailed(error instanceof TooMuch ? 'No preview: too heavy to draw here' : 'No picture');
      }
    })();
    return () => {
      ended = true;
      if (own) URL.revokeObjectURL(own);
    };
  }, [current, seen, thumbnailRevision, id, revision]);

  useEffect(() => {
    if (!url || !inSight || piece.frames === null || piece.fps === null) return;
    // With reduced motion the first frame is shown.
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    const length = loopSeconds({ frames: piece.frames, fps: piece.fps }) * 1000;
    let shown = -1;
    const tick = (now: number) => {
      const i = Math.floor(((now % length) / length) * STRIP.frames);
      if (i !== shown && strip.current)
        strip.current.style.transform = `translateX(${(-100 * (shown = i)) / STRIP.frames}%)`;
      asked = requestAnimationFrame(tick);
    };
    let asked = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(asked);
  }, [url, inSight, piece.frames, piece.fps]);

  return (
    <Box
      ref={box}
      position="absolute"
      inset="0"
      data-testid="thumbnail"
      data-ready={url !== null}
      data-current={current || made !== null}
    >
      {url ? (
        // A strip of frames side by side; a plain element, because it moves and is never resized.
        <img
          ref={strip}
          src={url}
          alt=""
          // Decoding must not delay painting.
          decoding="async"
          style={{ position: 'absolute', height: '100%', width: `${STRIP.frames * 100}%`, maxWidth: 'none' }}
        />
      ) : (
        <Box
          // The surrounding link has the name.
          aria-hidden
          position="absolute"
          inset="0"
          display="flex"
          alignItems="center"
          justifyContent="center"
          color="muted"
          fontSize="12.5px"
        >
          {/** No spinner: many of them would take the time that drawing needs. */}
          {failed ?? 'Being drawn'}
        </Box>
      )}
    </Box>
  );
}
