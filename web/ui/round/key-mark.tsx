'use client';

import type { Segment } from '@maypole/core/time/keys/key';

/**
 * A key is a bead on the curve with a sign for its outgoing segment: a flat top for hold, a straight stroke for linear,
 * a wave for smooth, a deeper one for a spline, an arch for eased, a cross for free.
 */
const SIGNS: Record<Segment, string> = {
  hold: 'M-3 -1.5H3V1.5',
  linear: 'M-3 2L3 -2',
  smooth: 'M-3.4 1C-1.6 -3 1.4 3 3.4 -1',
  spline: 'M-3.4 -1C-1.6 4 1.4 -4 3.4 1',
  ease: 'M-3 2C0 2 0 -2 3 -2',
  free: 'M-3 0H3M0 -3V3',
};

export function KeyMark({
  x,
  y,
  to,
  colour,
  chosen,
}: {
  x: number;
  y: number;
  to: Segment;
  colour: string;
  chosen: boolean;
}) {
  return (
    <g
      transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}
      style={{ cursor: 'grab' }}
      data-testid="key"
      data-chosen={chosen}
    >
      <circle
        r={chosen ? 8 : 6.5}
        fill={chosen ? 'var(--chakra-colors-ink)' : 'var(--chakra-colors-raised)'}
        stroke={chosen ? 'var(--chakra-colors-ink)' : colour}
        strokeWidth="2"
      />
      <path
        d={SIGNS[to]}
        fill="none"
        stroke={chosen ? 'var(--chakra-colors-inverse)' : colour}
        strokeWidth="1.5"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </g>
  );
}
