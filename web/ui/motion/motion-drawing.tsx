'use client';

import { Box, Text } from '@chakra-ui/react';
import type { NumberValue } from '@maypole/core/declare/params';
import { wrapFrame } from '@maypole/core/time/loop';
import { shownColour } from '../parts/shown-colour';
import { useLive } from '../state/live';
import { useEditor } from '../state/store';
import { rangeOf, valuePath } from '../fields/drawing';
import { readable } from '@maypole/core/seam/finding';

const [WIDTH, HEIGHT, PAD, SIDE] = [300, 82, 12, 0.12];

/**
 * Graph of a motion over the loop and a little beyond, its minimum and maximum, and the preview of a hovered change.
 */
export function MotionDrawing({
  value,
  preview,
  label,
  unit,
  colour,
}: {
  value: NumberValue;
  preview?: NumberValue;
  label: string;
  unit: string;
  colour: string;
}) {
  const frames = useEditor((s) => s.piece.loop.frames);
  const own = rangeOf(value, frames);
  const other = preview === undefined ? own : rangeOf(preview, frames);
  const range = { low: Math.min(own.low, other.low), high: Math.max(own.high, other.high) };
  const span = 1 + 2 * SIDE;
  const path = (v: NumberValue, from: number, to: number, samples: number) =>
    valuePath(v, (WIDTH * (to - from)) / span, HEIGHT, { frames, from, to, samples, pad: PAD, range });
  const x0 = (WIDTH * SIDE) / span;
  const x1 = WIDTH - x0;
  const now = useLive<SVGPathElement, number>(
    (s) => wrapFrame(s.frame, frames) / frames,
    (path, share) => path.setAttribute('d', `M${x0 + share * (x1 - x0)} 0V${HEIGHT}`),
  );
  const line = {
    fill: 'none',
    stroke: shownColour(colour),
    strokeWidth: 2,
    vectorEffect: 'non-scaling-stroke',
  } as const;
  return (
    <Box position="relative" mt="3" bg="field" borderRadius="8px" overflow="hidden">
      <svg
        width="100%"
        height={HEIGHT}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`${label} over the loop`}
      >
        <rect x={x0} width={x1 - x0} height={HEIGHT} fill="var(--chakra-colors-raised)" />
        <path d={path(value, -SIDE, 0, 24)} {...line} opacity="0.35" />
        <g transform={`translate(${x0} 0)`}>
          <path d={path(value, 0, 1, 260)} {...line} opacity={preview === undefined ? 1 : 0.4} />
        </g>
        <g transform={`translate(${x1} 0)`}>
          <path d={path(value, 1, 1 + SIDE, 24)} {...line} opacity="0.35" />
        </g>
        {preview !== undefined && (
          <path
            d={path(preview, -SIDE, 1 + SIDE, 300)}
            fill="none"
            stroke="var(--chakra-colors-ink)"
            strokeWidth="1.8"
            strokeDasharray="5 3"
            vectorEffect="non-scaling-stroke"
            data-testid="preview"
          />
        )}
        <path
          d={`M${x0} 0V${HEIGHT}M${x1} 0V${HEIGHT}`}
          stroke="var(--chakra-colors-ink)"
          strokeDasharray="2 3"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
        <path ref={now} stroke="var(--chakra-colors-poppy)" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
      </svg>
      <Text position="absolute" left="6px" top="1px" fontSize="10px" fontFamily="mono" color="muted">
        {readable(range.high)} {unit}
      </Text>
      <Text position="absolute" left="6px" bottom="1px" fontSize="10px" fontFamily="mono" color="muted">
        {readable(range.low)} {unit}
      </Text>
    </Box>
  );
}
