'use client';

import { memo, useEffect, useState } from 'react';
import { meshOfParts } from '@/engine/sketch/geometry-sketch';
import { session } from '../state/session';
import { useEditor } from '../state/store';
import { bandSketch } from './band-sketch';

/** Size in pixels as drawn, and as shown. */
const [DRAWN, SHOWN] = [68, 34];
/** Milliseconds without an edit after which the picture is redrawn. */
const REST = 500;
const TONE = '#fffdf8';

/** A blank picture. */
const EMPTY = 'data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw==';

/**
 * What a ribbon looks like, small and in one tone; made from the shapes in view when nothing is being
 * edited. It is a file and no canvas: the first canvas of a page waits for the graphics device, which
 * is for seconds while the device compiles the shaders of the first picture.
 */
export const BandPicture = memo(function BandPicture({ id }: { id: string }) {
  const ribbon = useEditor((s) => s.piece.ribbons.find((r) => r.id === id));
  const [url, setUrl] = useState(EMPTY);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    let made = '';
    let ended = false;
    const draw = async () => {
      const geometry = ribbon && session()?.engine.geometry(ribbon, useEditor.getState().frame);
      if (!geometry) {
        timer = setTimeout(() => void draw(), REST);
        return;
      }
      const mesh = meshOfParts(geometry.parts);
      if (!mesh) return setUrl(EMPTY);
      const file = await bandSketch(mesh, DRAWN, TONE);
      if (ended || !file) return;
      made = URL.createObjectURL(file);
      setUrl(made);
    };
    timer = setTimeout(() => void draw(), REST);
    return () => {
      ended = true;
      clearTimeout(timer);
      // The new picture is shown a little later.
      if (made) setTimeout(() => URL.revokeObjectURL(made), 2 * REST);
    };
  }, [ribbon]);
  return <img src={url} width={SHOWN} height={SHOWN} alt="" data-testid="band-picture" />;
});
