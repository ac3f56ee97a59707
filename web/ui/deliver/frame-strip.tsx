'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { PartSummary, RenderDetail } from '@/contract/renders';
import { framePath } from './render-api';

/** Most pictures in a strip: longer renders show evenly spaced ones. */
const MOST = 48;

const COLOURS = { waiting: 'field', leased: 'sky', done: 'leafWash', failed: 'poppy' } as const;

/** Frames of a render as small pictures that fill in. Clicking a missing one has it made next. */
export function FrameStrip({
  render,
  onShow,
  onWant,
}: {
  render: RenderDetail;
  onShow: (index: number) => void;
  onWant: (index: number) => void;
}) {
  const { parts, order } = render;
  const every = Math.max(1, Math.ceil(parts.length / MOST));
  const shown = parts.filter((_, i) => i % every === 0);
  const wide = order.width >= order.height;
  return (
    <Box
      display="grid"
      gridTemplateColumns={`repeat(auto-fill, minmax(${wide ? 42 : 30}px, 1fr))`}
      gap="2px"
      my="2"
      data-testid="frame-strip"
    >
      {shown.map((p) => (
        <Cell
          key={p.index}
          part={p}
          render={render}
          onClick={() => (p.state === 'done' ? onShow(p.index) : onWant(p.index))}
        />
      ))}
    </Box>
  );
}

function Cell({ part, render, onClick }: { part: PartSummary; render: RenderDetail; onClick: () => void }) {
  const { state, frame } = part;
  const words = {
    waiting: `Frame ${frame} waits; make it next`,
    leased: `Frame ${frame} is being made`,
    done: `Look at frame ${frame}`,
    failed: `Frame ${frame} could not be made: ${part.message ?? ''}`,
  }[state];
  const seen = render.order.light === 'quick' || render.files.some((f) => f.kind !== 'exr');
  return (
    <chakra.button
      type="button"
      aria-label={words}
      title={words}
      position="relative"
      style={{ aspectRatio: `${render.order.width} / ${render.order.height}` }}
      bg={COLOURS[state]}
      opacity={state === 'leased' ? 0.6 : 1}
      borderRadius="3px"
      overflow="hidden"
      cursor={state === 'leased' ? 'default' : 'pointer'}
      onClick={onClick}
    >
      {state === 'done' && seen && (
        <chakra.img
          src={framePath(render.id, part.index, 96)}
          alt=""
          loading="lazy"
          position="absolute"
          inset="0"
          w="100%"
          h="100%"
          objectFit="cover"
        />
      )}
    </chakra.button>
  );
}
