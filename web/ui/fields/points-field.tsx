'use client';

import { vec3 } from '@maypole/core/maths/vec3';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { Points } from '@maypole/core/declare/params';
import { splineThrough } from '@maypole/core/shape/closed-path';
import { ChevronRight, X } from 'lucide-react';
import { useRef, useState, type PointerEvent } from 'react';
import { PictureButton } from '../parts/buttons';
import { newDrag } from '../state/undo';
import { NumberField } from './number-field';

const SIZE = 252;

/**
 * A closed path seen from above: drag points, click the ground to insert one where the path is nearest, and set the
 * height of the selected one with its fields.
 */
export function PointsField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Points;
  onChange: (value: Points, gesture?: string) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<{ index: number; gesture: string; scale: number } | null>(null);
  const [chosen, setChosen] = useState(0);
  const at = Math.min(chosen, value.length - 1);
  const reach = Math.max(1, ...value.flatMap((p) => [Math.abs(p[0]), Math.abs(p[2])])) * 1.25;
  const scale = drag.current?.scale ?? reach;
  const across = (x: number) => SIZE / 2 + (x / scale) * (SIZE / 2);
  const curve = splineThrough(value);
  const path = Array.from({ length: 161 }, (_, i) => curve(i / 160))
    .map((p, i) => `${i === 0 ? 'M' : 'L'}${across(p[0]).toFixed(1)} ${across(p[2]).toFixed(1)}`)
    .join('');
  const ground = (event: PointerEvent): [number, number] => {
    const box = svg.current!.getBoundingClientRect();
    const m = (v: number, from: number, size: number) => Number(((((v - from) / size) * 2 - 1) * scale).toFixed(3));
    return [m(event.clientX, box.left, box.width), m(event.clientY, box.top, box.height)];
  };
  const put = (index: number, x: number, z: number, gesture?: string) =>
    onChange(
      value.map((p, i) => (i === index ? ([x, p[1], z] as const) : p)),
      gesture,
    );

  const down = (event: PointerEvent) => {
    const [x, z] = ground(event);
    event.currentTarget.setPointerCapture(event.pointerId);
    const near = value.map((p, i) => ({ i, d: Math.hypot(p[0] - x, p[2] - z) })).sort((a, b) => a.d - b.d)[0];
    const gesture = `points/${newDrag()}`;
    if (near.d < scale * 0.07) {
      setChosen(near.i);
      drag.current = { index: near.i, gesture, scale };
      return;
    }
    if (value.length >= 64) return;
    const { index, height } = insertion(value, x, z);
    onChange([...value.slice(0, index), [x, height, z], ...value.slice(index)], gesture);
    setChosen(index);
    drag.current = { index, gesture, scale };
  };
  return (
    <Box role="group" aria-label={label}>
      <Box bg="field" borderRadius="8px" overflow="hidden">
        <svg
          ref={svg}
          width="100%"
          viewBox={`0 0 ${SIZE} ${SIZE}`}
          role="application"
          aria-label={`${label}, seen from above; the chosen point can be moved with its fields below`}
          style={{ display: 'block', touchAction: 'none', cursor: 'crosshair' }}
          onPointerDown={down}
          onPointerMove={(e) => drag.current && put(drag.current.index, ...ground(e), drag.current.gesture)}
          onPointerUp={() => (drag.current = null)}
        >
          <path d={`M${SIZE / 2} 0V${SIZE}M0 ${SIZE / 2}H${SIZE}`} stroke="var(--chakra-colors-line)" />
          <path d={path} fill="none" stroke="var(--chakra-colors-sky)" strokeWidth="2" />
          {value.map((p, i) => (
            <PointMark key={i} x={across(p[0])} y={across(p[2])} name={i + 1} chosen={i === at} />
          ))}
        </svg>
      </Box>
      <PointBar value={value} at={at} reach={reach} onAt={setChosen} onChange={onChange} />
      <Text fontSize="11px" color="muted" mt="0.5">
        From above. Click to add a point, drag to move it.
      </Text>
    </Box>
  );
}

/** Where a point goes that is added beside a path: into its nearest segment, as high as the segment is there. */
function insertion(value: Points, x: number, z: number): { index: number; height: number } {
  const nearest = value
    .map((p, i) => {
      const q = value[(i + 1) % value.length];
      const [dx, dz] = [q[0] - p[0], q[2] - p[2]];
      const t = Math.max(0, Math.min(1, ((x - p[0]) * dx + (z - p[2]) * dz) / (dx * dx + dz * dz || 1)));
      return { i, t, d: Math.hypot(p[0] + t * dx - x, p[2] + t * dz - z) };
    })
    .sort((a, b) => a.d - b.d)[0];
  const [p, q] = [value[nearest.i], value[(nearest.i + 1) % value.length]];
  return { index: nearest.i + 1, height: Number((p[1] + nearest.t * (q[1] - p[1])).toFixed(3)) };
}

function PointMark({ x, y, name, chosen }: { x: number; y: number; name: number; chosen: boolean }) {
  return (
    <g>
      <circle
        cx={x}
        cy={y}
        r={chosen ? 6.5 : 5}
        fill={chosen ? 'var(--chakra-colors-poppy)' : 'var(--chakra-colors-raised)'}
        stroke="var(--chakra-colors-ink)"
        strokeWidth="1.6"
      />
      <text x={x + 8} y={y - 6} fontSize="9.5" fill="var(--chakra-colors-muted)">
        {name}
      </text>
    </g>
  );
}

/** Numbers of the selected point, the next one, and removing it. */
function PointBar({
  value,
  at,
  reach,
  onAt,
  onChange,
}: {
  value: Points;
  at: number;
  reach: number;
  onAt: (at: number) => void;
  onChange: (value: Points, gesture?: string) => void;
}) {
  const point = value[at];
  return (
    <Flex align="center" gap="1" mt="1.5">
      <Text fontSize="12px" w="50px" flexShrink={0}>
        Point {at + 1}
      </Text>
      {([0, 1, 2] as const).map((k) => (
        <Box key={k} flex="1" minW="0">
          <NumberField
            label={`Point ${at + 1} ${'xyz'[k]}`}
            value={point[k]}
            min={-10_000}
            max={10_000}
            soft={[-reach, reach]}
            step={0.05}
            onChange={(v, g) =>
              onChange(
                value.map((p, i) => (i === at ? vec3((j) => (j === k ? v : p[j])) : p)),
                `${at}/${k}/${g}`,
              )
            }
          />
        </Box>
      ))}
      <PictureButton label="Next point" minW="24px" color="muted" onClick={() => onAt((at + 1) % value.length)}>
        <ChevronRight size={14} />
      </PictureButton>
      <PictureButton
        label={`Remove point ${at + 1}`}
        minW="24px"
        color="muted"
        disabled={value.length <= 3}
        onClick={() => onChange(value.filter((_, i) => i !== at))}
      >
        <X size={13} />
      </PictureButton>
    </Flex>
  );
}
