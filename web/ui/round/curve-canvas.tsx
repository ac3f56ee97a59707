'use client';

import { addKey, moveKeys, scaleKeys, setTangent, snapped } from '@maypole/core/time/keys/edit';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import type { NumberValue } from '@maypole/core/declare/params';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { valuePath } from '../fields/drawing';
import {
  keyNear,
  momentAt,
  PAD,
  seenKeys,
  seenTangents,
  valueAtY,
  xOf,
  yOf,
  type CurveBox,
  type SeenTangent,
} from './curve-geometry';
import { newDrag } from '../state/undo';
import { KeyMark } from './key-mark';

/** What the canvas shows and may change. */
export interface CanvasProps {
  readonly box: CurveBox;
  readonly frames: number;
  readonly colour: string;
  readonly title: string;
  /** The whole value, with layers and timing. */
  readonly total: NumberValue;
  /** Keys, if keys move the value. */
  readonly keys: readonly KeyDoc[] | null;
  readonly adds: number;
  readonly chosen: readonly number[];
  readonly snap: boolean;
  readonly preview?: NumberValue;
  readonly onChoose: (chosen: readonly number[]) => void;
  readonly onKeys: (keys: readonly KeyDoc[], label: string, gesture?: string, chosen?: readonly number[]) => void;
  readonly onKeyboard: (event: KeyboardEvent) => void;
  readonly onDragging: (dragging: boolean) => void;
}

type Drag =
  | {
      readonly type: 'keys';
      readonly from: readonly [number, number];
      readonly keys: readonly KeyDoc[];
      readonly chosen: readonly number[];
      readonly box: CurveBox;
      readonly gesture: string;
    }
  | { readonly type: 'tangent'; readonly tangent: SeenTangent; readonly box: CurveBox; readonly gesture: string }
  | {
      readonly type: 'stretch';
      readonly edge: Edge;
      readonly keys: readonly KeyDoc[];
      readonly chosen: readonly number[];
      readonly bounds: Bounds;
      readonly box: CurveBox;
      readonly gesture: string;
    }
  | { readonly type: 'box'; readonly from: readonly [number, number]; readonly before: readonly number[] };

type Edge = 'left' | 'right' | 'top' | 'bottom';

interface Bounds {
  readonly t0: number;
  readonly t1: number;
  readonly v0: number;
  readonly v1: number;
}

function boundsOfKeys(keys: readonly KeyDoc[], chosen: readonly number[]): Bounds | null {
  if (chosen.length < 2) return null;
  const some = chosen.map((i) => keys[i]).filter(Boolean);
  return {
    t0: Math.min(...some.map((k) => k.at)),
    t1: Math.max(...some.map((k) => k.at)),
    v0: Math.min(...some.map((k) => k.value)),
    v1: Math.max(...some.map((k) => k.value)),
  };
}

/** The curve of a value, with draggable keys. */
export function CurveCanvas(props: CanvasProps) {
  const { box, frames, colour, total, keys, adds, chosen, snap, preview, onChoose, onKeys, onDragging } = props;
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<Drag | null>(null);
  const [frame, setFrame] = useState<readonly [number, number, number, number] | null>(null);
  const seen = keys ? seenKeys(keys, adds, box) : [];
  const tangents = keys ? seenTangents(keys, chosen, seen, box) : [];
  const bounds = keys ? boundsOfKeys(keys, chosen) : null;
  const plain: NumberValue | null = keys ? { motion: 'keys', adds, keys } : null;
  const place = (e: PointerEvent): readonly [number, number] => {
    const r = svg.current!.getBoundingClientRect();
    return [e.clientX - r.left, e.clientY - r.top];
  };

  const down = (e: PointerEvent) => {
    if (e.button !== 0 || !keys) return;
    const [x, y] = place(e);
    e.currentTarget.setPointerCapture(e.pointerId);
    const gesture = `lane/${newDrag()}`;
    const tangent = tangents.find((t) => Math.hypot(t.tipX - x, t.tipY - y) < 9);
    if (tangent) {
      drag.current = { type: 'tangent', tangent, box, gesture };
      return onDragging(true);
    }
    const edge = bounds && edgeAt(bounds, box, x, y);
    const hit = keyNear(seen, x, y);
    if (edge && !hit) {
      drag.current = { type: 'stretch', edge, keys, chosen, bounds, box, gesture };
      return onDragging(true);
    }
    if (hit) {
      const more = e.shiftKey || e.ctrlKey || e.metaKey;
      const next = chosen.includes(hit.index)
        ? more
          ? chosen.filter((i) => i !== hit.index)
          : chosen
        : more
          ? [...chosen, hit.index]
          : [hit.index];
      onChoose(next);
      drag.current = { type: 'keys', from: [x, y], keys, chosen: next, box, gesture };
      return onDragging(true);
    }
    drag.current = { type: 'box', from: [x, y], before: e.shiftKey ? chosen : [] };
    if (!e.shiftKey) onChoose([]);
  };

  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (!d || !keys) return;
    const [x, y] = place(e);
    if (d.type === 'keys') {
      let [dx, dy] = [x - d.from[0], y - d.from[1]];
      if (Math.hypot(dx, dy) < 3) return;
      // Shift constrains it to time or value.
      if (e.shiftKey) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
      const by = {
        at: (dx / d.box.width) * d.box.span,
        value: -(dy / (d.box.height - 2 * PAD)) * (d.box.high - d.box.low),
      };
      const out = moveKeys(d.keys, d.chosen, by, adds, snap && !e.altKey ? frames : 0);
      onKeys(out.keys, 'Move keys', d.gesture, out.chosen);
    } else if (d.type === 'tangent') {
      const to: [number, number] = [
        ((x - d.tangent.x) / d.box.width) * d.box.span,
        -((y - d.tangent.y) / (d.box.height - 2 * PAD)) * (d.box.high - d.box.low),
      ];
      onKeys(setTangent(keys, d.tangent.index, d.tangent.side, to), 'Turn a tangent', d.gesture);
    } else if (d.type === 'stretch') {
      const { about, by } = stretch(d.bounds, d.edge, momentAt(d.box, x), valueAtY(d.box, y));
      const out = scaleKeys(d.keys, d.chosen, about, by, adds);
      onKeys(out.keys, 'Stretch keys', d.gesture, out.chosen);
    } else {
      const [x0, y0] = d.from;
      setFrame([Math.min(x, x0), Math.min(y, y0), Math.abs(x - x0), Math.abs(y - y0)]);
      const inside = seen
        .filter(
          (k) => k.x >= Math.min(x, x0) && k.x <= Math.max(x, x0) && k.y >= Math.min(y, y0) && k.y <= Math.max(y, y0),
        )
        .map((k) => k.index);
      onChoose([...new Set([...d.before, ...inside])]);
    }
  };

  const up = () => {
    drag.current = null;
    setFrame(null);
    onDragging(false);
  };

  /** A new key lies on the present curve; dragging it changes the curve. */
  const double = (e: React.MouseEvent) => {
    if (!keys) return;
    const r = svg.current!.getBoundingClientRect();
    const [x, y] = [e.clientX - r.left, e.clientY - r.top];
    if (keyNear(seen, x, y)) return;
    const t = momentAt(box, x);
    const out = addKey(keys, adds, snap ? snapped(t, frames) : t);
    onKeys(out.keys, 'Add a key', undefined, out.chosen);
  };

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

const REACH = 6;

function corners(b: Bounds, box: CurveBox) {
  return {
    left: xOf(box, b.t0) - 10,
    right: xOf(box, b.t1) + 10,
    top: yOf(box, b.v1) - 10,
    bottom: yOf(box, b.v0) + 10,
  };
}

function edgeAt(b: Bounds, box: CurveBox, x: number, y: number): Edge | null {
  const { left, right, top, bottom } = corners(b, box);
  const within = (v: number, a: number, c: number) => v >= a - REACH && v <= c + REACH;
  if (b.t1 > b.t0 && within(y, top, bottom)) {
    if (Math.abs(x - left) < REACH) return 'left';
    if (Math.abs(x - right) < REACH) return 'right';
  }
  if (b.v1 > b.v0 && within(x, left, right)) {
    if (Math.abs(y - top) < REACH) return 'top';
    if (Math.abs(y - bottom) < REACH) return 'bottom';
  }
  return null;
}

/** Maps the dragged edge, keeping the opposite one in place. */
function stretch(
  b: Bounds,
  edge: Edge,
  t: number,
  v: number,
): { about: { at: number; value: number }; by: { at: number; value: number } } {
  const mid = { at: b.t0, value: b.v0 };
  const [run, rise] = [b.t1 - b.t0, b.v1 - b.v0];
  // The pointer may be in a neighbouring loop; its nearest equivalent counts.
  switch (edge) {
    case 'right':
      return { about: mid, by: { at: Math.max(0.01, (t - b.t0) / run), value: 1 } };
    case 'left':
      return { about: { ...mid, at: b.t1 }, by: { at: Math.max(0.01, (b.t1 - t) / run), value: 1 } };
    case 'top':
      return { about: mid, by: { at: 1, value: (v - b.v0) / rise } };
    case 'bottom':
      return { about: { ...mid, value: b.v1 }, by: { at: 1, value: (b.v1 - v) / rise } };
  }
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
