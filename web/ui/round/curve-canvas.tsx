'use client';

import type { NumberValue } from '@maypole/core/declare/params';
import { useRef } from 'react';
import { valuePath } from '../fields/drawing';
import type { CanvasProps } from './canvas-props';
import { PAD, seenKeys, seenTangents, type CurveBox, type SeenTangent } from './curve-geometry';
import { KeyMark } from './key-mark';
import { boundsOfKeys, corners, type Bounds } from './stretch';
import { useCurveDrag } from './use-curve-drag';

/** The curve of a value, with draggable keys. */
export function CurveCanvas(props: CanvasProps) {
  const { box, frames, colour, total, keys, adds, chosen, preview } = props;
  const svg = useRef<SVGSVGElement>(null);
  const seen = keys ? seenKeys(keys, adds, box) : [];
  const tangents = keys ? seenTangents(keys, chosen, seen, box) : [];
  const bounds = keys ? boundsOfKeys(keys, chosen) : null;
  const { frame, down, move, up, double } = useCurveDrag(props, svg, { seen, tangents, bounds });
  const plain: NumberValue | null = keys ? { motion: 'keys', adds, keys } : null;
  const options = {
    frames,
    from: box.from,
    to: box.from + box.span,
    samples: Math.max(200, Math.round(box.width / 2)),
    pad: PAD,
    range: { low: box.low, high: box.high },
  };
  const layered = plain !== null && JSON.stringify(plain) !== JSON.stringify(stripped(total));
  return (
    <svg
      ref={svg}
      width={box.width}
      height={box.height}
      role="application"
      tabIndex={0}
      aria-label={
        keys
          ? `${props.title}: ${keys.length} keys. Page up and down choose a key, arrows move it, Delete removes it, ` +
            'Insert adds one at the playhead.'
          : `${props.title} over the loop`
      }
      style={{ display: 'block', touchAction: 'none', position: 'relative', outlineOffset: -2 }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onDoubleClick={double}
      onKeyDown={props.onKeyboard}
      data-testid="curve-canvas"
    >
      {layered && (
        <path
          d={valuePath(total, box.width, box.height, options)}
          fill="none"
          stroke="var(--chakra-colors-muted)"
          strokeWidth="1.2"
          opacity="0.7"
        />
      )}
      <path
        d={valuePath(plain ?? total, box.width, box.height, options)}
        fill="none"
        stroke={colour}
        strokeWidth="2.2"
        opacity={preview === undefined ? 1 : 0.4}
      />
      {preview !== undefined && (
        <path
          d={valuePath(preview, box.width, box.height, options)}
          fill="none"
          stroke="var(--chakra-colors-ink)"
          strokeWidth="1.8"
          strokeDasharray="5 3"
          data-testid="preview"
        />
      )}
      {bounds && <StretchBox bounds={bounds} box={box} />}
      <Tangents tangents={tangents} />
      {keys &&
        seen.map((k) => (
          <KeyMark
            key={`${k.index}/${k.loop}`}
            x={k.x}
            y={k.y}
            to={keys[k.index].to}
            colour={colour}
            chosen={chosen.includes(k.index)}
          />
        ))}
      {frame && (
        <rect
          x={frame[0]}
          y={frame[1]}
          width={frame[2]}
          height={frame[3]}
          fill="var(--chakra-colors-sky)"
          fillOpacity="0.12"
          stroke="var(--chakra-colors-sky)"
        />
      )}
    </svg>
  );
}

/** A key motion without its layers and timing. */
function stripped(value: NumberValue): unknown {
  if (typeof value === 'number') return value;
  return {
    motion: value.motion,
    adds: value.adds,
    keys: value.keys,
    ...(value.layers?.length ? { layers: 1 } : {}),
    ...(value.timing && Object.keys(value.timing).length > 0 ? { timing: 1 } : {}),
  };
}

function StretchBox({ bounds, box }: { bounds: Bounds; box: CurveBox }) {
  const { left, right, top, bottom } = corners(bounds, box);
  const ink = 'var(--chakra-colors-muted)';
  const bar = { stroke: ink, strokeWidth: 3, strokeLinecap: 'round' } as const;
  return (
    <g data-testid="stretch">
      <rect
        x={left}
        y={top}
        width={right - left}
        height={bottom - top}
        rx="4"
        fill="none"
        stroke={ink}
        strokeDasharray="3 3"
      />
      {bounds.t1 > bounds.t0 && (
        <path
          d={`M${left} ${(top + bottom) / 2 - 8}v16M${right} ${(top + bottom) / 2 - 8}v16`}
          {...bar}
          style={{ cursor: 'ew-resize' }}
        />
      )}
      {bounds.v1 > bounds.v0 && (
        <path
          d={`M${(left + right) / 2 - 8} ${top}h16M${(left + right) / 2 - 8} ${bottom}h16`}
          {...bar}
          style={{ cursor: 'ns-resize' }}
        />
      )}
    </g>
  );
}

function Tangents({ tangents }: { tangents: readonly SeenTangent[] }) {
  return (
    <>
      {tangents.map((t) => (
        <g key={`${t.index}/${t.loop}/${t.side}`}>
          <path d={`M${t.x} ${t.y}L${t.tipX} ${t.tipY}`} stroke="var(--chakra-colors-plum)" strokeWidth="1.4" />
          <rect
            x={t.tipX - 4}
            y={t.tipY - 4}
            width="8"
            height="8"
            rx="2.5"
            fill="var(--chakra-colors-raised)"
            stroke="var(--chakra-colors-plum)"
            strokeWidth="1.6"
            style={{ cursor: 'move' }}
            data-testid={`tangent-${t.side}`}
          />
        </g>
      ))}
    </>
  );
}
