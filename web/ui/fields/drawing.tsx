'use client';

import type { NumberValue } from '@maypole/core/declare/params';
import { evaluateNumber, isMoving } from '@maypole/core/time/value';
import { memo } from 'react';

/** Points of a value over `loops` loops, as an SVG path in a box; null range means its own. */
export function valuePath(value: NumberValue, width: number, height: number, options: { from?: number; to?: number; samples?: number; pad?: number } = {}): string {
  const { from = 0, to = 1, samples = 96, pad = 2 } = options;
  // Time is laid out in loops; a large even count of frames gives the line its resolution.
  const frames = 4096;
  const values = Array.from({ length: samples + 1 }, (_, i) => evaluateNumber(value, { frame: Math.round((from + ((to - from) * i) / samples) * frames), frames }));
  const low = isMoving(value) ? Math.min(value.low as number, value.high as number) : Math.min(...values);
  const high = isMoving(value) ? Math.max(value.low as number, value.high as number) : Math.max(...values);
  const span = high - low || 1;
  const y = (v: number) => (high === low ? height / 2 : height - pad - ((v - low) / span) * (height - 2 * pad));
  return values.map((v, i) => `${i === 0 ? 'M' : 'L'}${((i / samples) * width).toFixed(1)} ${y(v).toFixed(1)}`).join('');
}

/** The small drawing of how a value moves over the loop; dashed when it stands still. */
export const Drawing = memo(function Drawing({ value, colour, width = 54, height = 18 }: { value: NumberValue; colour: string; width?: number; height?: number }) {
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true" style={{ display: 'block' }}>
      {isMoving(value) ? (
        <path d={valuePath(value, width, height)} fill="none" stroke={colour} strokeWidth="1.6" strokeLinejoin="round" />
      ) : (
        <path d={`M2 ${height / 2}H${width - 2}`} stroke="var(--chakra-colors-line-strong)" strokeWidth="1.4" strokeDasharray="3 3" />
      )}
    </svg>
  );
});
