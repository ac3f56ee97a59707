'use client';

import { Box } from '@chakra-ui/react';
import { motionFrom } from '@maypole/core/looks/kept-parts';
import { newRibbon, type Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';
import { useMemo } from 'react';
import type { KeptLook } from '@/contract/pieces';
import { RevisionPicture } from '../explore/revision-picture';
import { rangeOf, valuePath } from '../fields/drawing';

const SIDE = 40;

/** A small picture of a kept look: the form itself, a ball in its light, or the graph of a motion. */
export function LookPicture({ look }: { look: KeptLook }) {
  const piece = useMemo(() => {
    const read = readPiece(look.source);
    return read.ok ? read.piece : null;
  }, [look.source]);
  const motion = piece && look.kind === 'motion' ? motionFrom(piece) : undefined;
  if (!motion || !piece) return <RevisionPicture piece={piece && withForm(piece)} />;
  const { frames } = piece.loop;
  const path = valuePath(motion, SIDE, SIDE, {
    frames,
    from: 0,
    to: 1,
    samples: 60,
    pad: 8,
    range: rangeOf(motion, frames),
  });
  return (
    <Box bg="field" borderRadius="6px" flexShrink={0}>
      <svg width={SIDE} height={SIDE} viewBox={`0 0 ${SIDE} ${SIDE}`} aria-hidden style={{ display: 'block' }}>
        <path d={path} fill="none" stroke="currentColor" strokeWidth={1.6} />
      </svg>
    </Box>
  );
}

/** Lights and cameras are shown with a ball. */
const withForm = (piece: Piece): Piece =>
  piece.ribbons.length > 0 ? piece : { ...piece, ribbons: [newRibbon('geodesic', 0)] };
