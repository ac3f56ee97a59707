'use client';

import { canvas2d } from '@/view/stage/canvas-2d';
import { chakra } from '@chakra-ui/react';
import { channelOf } from '@maypole/core/finish/part';
import { finishParts } from '@maypole/core/finish/parts/index';
import { displayToLight } from '@maypole/core/maths/srgb';
import type { PatternDoc } from '@maypole/core/piece/piece';
import { patternAt } from '@maypole/core/finish/pattern-of';
import { evaluateParam } from '@maypole/core/time/values';
import { memo, useEffect, useRef } from 'react';

const SIZE = 18;

/** A small picture of layers on a value at the start of the loop. */
export const PatternPicture = memo(function PatternPicture({
  part,
  name,
  layers,
  stored,
  size = SIZE,
}: {
  part: string;
  name: string;
  layers: readonly PatternDoc[];
  stored: unknown;
  size?: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const channel = channelOf(finishParts.get(part), name);
    const to = canvas2d(canvas.current);
    if (!channel || !to) return;
    // Drawn in idle time: values are dragged at the display rate.
    const later = requestIdleCallback(() => {
      void import('./sample-pattern').then(({ samplePattern }) => {
        const clock = { frame: 0, frames: 100 };
        const { target, factor } = channel;
        const even = evaluateParam(target, stored, clock);
        const base =
          typeof even === 'string'
            ? [1, 3, 5].map((k) => displayToLight(parseInt(even.slice(k, k + 2), 16) / 255))
            : [(even as number) * factor];
        const at = layers.filter((l) => l.on).map((l) => patternAt(l, target, factor, clock));
        const image = to.createImageData(size, size);
        image.data.set(samplePattern(base, at, size));
        to.putImageData(image, 0, 0);
      });
    });
    return () => cancelIdleCallback(later);
  }, [part, name, layers, stored, size]);
  return (
    <canvas
      ref={canvas}
      width={size}
      height={size}
      aria-hidden="true"
      style={{ width: SIZE, height: SIZE, borderRadius: 4, display: 'block' }}
    />
  );
});

/** Opens and closes the patterns of a value, with a small picture of them if there are any. */
export function PatternSwatch({
  part,
  name,
  label,
  layers,
  stored,
  open,
  onOpen,
}: {
  part: string;
  name: string;
  label: string;
  layers: readonly PatternDoc[];
  stored: unknown;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  return (
    <chakra.button
      type="button"
      aria-label={`Pattern of ${label}${layers.length > 0 ? '' : ', even'}`}
      aria-expanded={open}
      title={layers.length > 0 ? 'How it goes over the surface' : 'Even all over; click to give it a pattern'}
      onClick={() => onOpen(!open)}
      p="0.5"
      borderRadius="field"
      cursor="pointer"
      bg={open ? 'field' : undefined}
      _hover={{ bg: 'field' }}
      flexShrink={0}
    >
      {layers.length > 0 ? (
        <PatternPicture part={part} name={name} layers={layers} stored={stored} />
      ) : (
        <svg width={SIZE} height={SIZE} viewBox="0 0 18 18" aria-hidden="true" style={{ display: 'block' }}>
          <rect
            x="2.5"
            y="2.5"
            width="13"
            height="13"
            rx="3"
            fill="none"
            stroke="var(--chakra-colors-line-strong)"
            strokeDasharray="2.5 2.2"
          />
        </svg>
      )}
    </chakra.button>
  );
}
