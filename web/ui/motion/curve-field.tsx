'use client';

import { Box, Text } from '@chakra-ui/react';
import { drawnCurve } from '@maypole/core/time/drawn';
import { DRAWN } from '@maypole/core/time/motions/wave';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { newDrag } from '../state/undo';

const [WIDTH, HEIGHT, PAD] = [264, 84, 8];

/** One cycle drawn by hand: drag across it. Arrow keys move along it, and raise and lower the value. */
export function CurveField({
  label,
  value = DRAWN,
  onChange,
}: {
  label: string;
  value?: readonly number[];
  onChange: (value: readonly number[], gesture: string) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const last = useRef<{ i: number; v: number; gesture: string } | null>(null);
  const place = useRef(0);
  const n = value.length;
  const curve = drawnCurve(value);
  const y = (v: number) => HEIGHT - PAD - v * (HEIGHT - 2 * PAD);
  const path = Array.from(
    { length: 97 },
    (_, i) =>
      `${i === 0 ? 'M' : 'L'}${((i / 96) * WIDTH).toFixed(1)} ${y(curve.value(i === 96 ? 0 : i / 96)).toFixed(1)}`,
  ).join('');

  const draw = (event: PointerEvent) => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const box = svg.current!.getBoundingClientRect();
    const i = Math.max(0, Math.min(n - 1, Math.floor(((event.clientX - box.left) / box.width) * n)));
    const v = Math.max(
      0,
      Math.min(1, (HEIGHT - PAD - ((event.clientY - box.top) / box.height) * HEIGHT) / (HEIGHT - 2 * PAD)),
    );
    if (event.type === 'pointerdown') {
      event.currentTarget.setPointerCapture(event.pointerId);
      last.current = { i, v, gesture: `curve/${newDrag()}` };
    }
    const from = last.current!;
    const next = [...value];
    // A fast stroke skips positions between two events.
    const steps = Math.max(1, Math.abs(i - from.i));
    for (let k = 0; k <= steps; k++)
      next[Math.round(from.i + ((i - from.i) * k) / steps)] = Number((from.v + ((v - from.v) * k) / steps).toFixed(3));
    last.current = { ...from, i, v };
    onChange(next, from.gesture);
  };
  const key = (event: KeyboardEvent) => {
    const move = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 0.05], ArrowDown: [0, -0.05] }[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    place.current = (place.current + move[0] + n) % n;
    if (move[1] === 0) return;
    const next = [...value];
    next[place.current] = Math.max(0, Math.min(1, Number((next[place.current] + move[1]).toFixed(3))));
    onChange(next, 'keys');
  };
  return (
    <Box w="100%">
      <Box bg="field" borderRadius="8px" overflow="hidden">
        <svg
          ref={svg}
          width="100%"
          height={HEIGHT}
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          preserveAspectRatio="none"
          role="application"
          tabIndex={0}
          aria-label={`${label}: one cycle of ${n} places, drawn by hand`}
          style={{ touchAction: 'none', cursor: 'crosshair', display: 'block' }}
          onPointerDown={draw}
          onPointerMove={draw}
          onKeyDown={key}
        >
          {value.map((v, i) => (
            <path
              key={i}
              d={`M${(((i + 0.5) / n) * WIDTH).toFixed(1)} ${HEIGHT}V${y(v).toFixed(1)}`}
              stroke="var(--chakra-colors-line-strong)"
              strokeWidth={(WIDTH / n) * 0.5}
              opacity="0.45"
            />
          ))}
          <path
            d={path}
            fill="none"
            stroke="var(--chakra-colors-ink)"
            strokeWidth="1.8"
            vectorEffect="non-scaling-stroke"
          />
        </svg>
      </Box>
      <Text fontSize="11px" color="muted" mt="0.5">
        Drag across to draw; the end leads into the start.
      </Text>
    </Box>
  );
}
