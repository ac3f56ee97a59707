'use client';

import { Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { Offscreen } from '@/engine/draw/offscreen';
import { PlainButton } from '../parts/buttons';
import { useEditor } from '../state/store';

type State = { words: string; good?: boolean } | null;

/** Draws frames 0 and N from scratch and compares every pixel. */
export function PictureComparison() {
  const piece = useEditor((s) => s.piece);
  const detail = useEditor((s) => s.detail);
  const [state, setState] = useState<State>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => setState(null), [piece, detail]);

  const compare = async () => {
    setBusy(true);
    setState({ words: 'Drawing both…' });
    const scale = Math.min(1, 480 / Math.max(piece.format.width, piece.format.height));
    let offscreen: Offscreen | null = null;
    try {
      offscreen = await Offscreen.create(
        Math.max(16, Math.round(piece.format.width * scale)),
        Math.max(16, Math.round(piece.format.height * scale)),
        false,
      );
      offscreen.setPiece(piece, detail);
      await offscreen.draw(0, 1);
      const first = offscreen.pixels().slice();
      await offscreen.draw(piece.loop.frames, 1);
      const last = offscreen.pixels();
      let differing = 0;
      for (let i = 0; i < first.length; i += 4)
        if (first[i] !== last[i] || first[i + 1] !== last[i + 1] || first[i + 2] !== last[i + 2]) differing++;
      setState(
        differing === 0
          ? {
              words: `The pictures of frame 0 and frame ${piece.loop.frames} are identical, pixel for pixel.`,
              good: true,
            }
          : {
              words: `${differing} of ${first.length / 4} pixels differ between frame 0 and frame ${piece.loop.frames}.`,
              good: false,
            },
      );
    } catch (error) {
      setState({ words: error instanceof Error ? error.message : 'The pictures could not be drawn.', good: false });
    } finally {
      offscreen?.dispose();
      setBusy(false);
    }
  };

  return (
    <>
      <PlainButton mt="2" w="100%" onClick={() => void compare()} disabled={busy}>
        Compare the pictures
      </PlainButton>
      {state && (
        <Text
          role="status"
          mt="2"
          fontSize="12.5px"
          lineHeight="1.5"
          color={state.good === undefined ? 'muted' : state.good ? 'leafText' : 'poppyText'}
          data-testid="picture-comparison"
        >
          {state.words}
        </Text>
      )}
    </>
  );
}
