'use client';

import type { ColourValue, NumberValue } from '@maypole/core/declare/params';
import { evaluateColour } from '@maypole/core/time/colours/index';
import { evaluateNumber, isMoving } from '@maypole/core/time/value';
import { createContext, memo, useContext } from 'react';
import { shownColour } from '../parts/shown-colour';
import { useEditor } from '../state/store';

interface Range {
  readonly low: number;
  readonly high: number;
}

/** Samples of a moving number at even intervals between two moments, in loops. */
function sampled(value: NumberValue, frames: number, from: number, to: number, samples: number): Float64Array {
  const out = new Float64Array(samples + 1);
  for (let i = 0; i <= samples; i++)
    out[i] = evaluateNumber(value, { frame: (from + ((to - from) * i) / samples) * frames, frames });
  return out;
}

/** Minimum and maximum within a loop. */
export function rangeOf(value: NumberValue, frames: number): Range {
  const values = sampled(value, frames, 0, 1 - 1e-9, 128);
  return { low: Math.min(...values), high: Math.max(...values) };
}

/** A value as an SVG path in a box; scaled to its own range unless one is given. */
export function valuePath(
  value: NumberValue,
  width: number,
  height: number,
  options: { frames?: number; from?: number; to?: number; samples?: number; pad?: number; range?: Range } = {},
): string {
  const { frames = 100, from = 0, to = 1, samples = 96, pad = 2 } = options;
  const values = sampled(value, frames, from, to, samples);
  const { low, high } = options.range ?? { low: Math.min(...values), high: Math.max(...values) };
  const span = high - low;
  const y = (v: number) => (span < 1e-12 ? height / 2 : height - pad - ((v - low) / span) * (height - 2 * pad));
  let path = '';
  for (let i = 0; i <= samples; i++)
    path += `${i === 0 ? 'M' : 'L'}${((i / samples) * width).toFixed(1)} ${y(values[i]).toFixed(1)}`;
  return path;
}

/** A moving colour as a CSS gradient of evenly spaced samples. */
export function colourStrip(value: ColourValue, frames: number, from = 0, to = 1, samples = 24): string {
  const stops = Array.from({ length: samples + 1 }, (_, i) =>
    evaluateColour(value, { frame: (from + ((to - from) * i) / samples) * frames, frames }),
  );
  return `linear-gradient(90deg, ${stops.join(', ')})`;
}

/** Delays of copies that do what is drawn, as fractions of the loop; empty if there is only one motion. */
export const Fan = createContext<readonly number[]>([]);

/** The small graph of a value over the loop; dashed if it stands still. */
export const Drawing = memo(function Drawing({
  value,
  colour,
  width = 54,
  height = 18,
}: {
  value: NumberValue;
  colour: string;
  width?: number;
  height?: number;
}) {
  const frames = useEditor((s) => s.piece.loop?.frames ?? 100);
  const fan = useContext(Fan);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden="true"
      style={{ display: 'block' }}
    >
      {isMoving(value) &&
        fan.map((late) => (
          <path
            key={late}
            d={valuePath(value, width, height, { frames, from: -late, to: 1 - late, samples: 48 })}
            fill="none"
            stroke={shownColour(colour)}
            strokeWidth="1"
            opacity="0.35"
          />
        ))}
      {isMoving(value) ? (
        <path
          d={valuePath(value, width, height, { frames })}
          fill="none"
          stroke={shownColour(colour)}
          strokeWidth="1.6"
          strokeLinejoin="round"
        />
      ) : (
        <path
          d={`M2 ${height / 2}H${width - 2}`}
          stroke="var(--chakra-colors-line-strong)"
          strokeWidth="1.4"
          strokeDasharray="3 3"
        />
      )}
    </svg>
  );
});

/** The small graph of a colour. */
export const ColourDrawing = memo(function ColourDrawing({
  value,
  width = 46,
  height = 12,
}: {
  value: ColourValue;
  width?: number;
  height?: number;
}) {
  const frames = useEditor((s) => s.piece.loop?.frames ?? 100);
  if (!isMoving(value)) return <Drawing value={0} colour="" width={width} />;
  return <div aria-hidden="true" style={{ width, height, borderRadius: 4, background: colourStrip(value, frames) }} />;
});
