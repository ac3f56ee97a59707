'use client';

import { addKey, moveKeys, scaleKeys, setTangent, snapped } from '@maypole/core/time/keys/edit';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import { useRef, useState, type MouseEvent, type PointerEvent, type RefObject } from 'react';
import { newDrag } from '../state/undo';
import type { CanvasProps } from './canvas-props';
import { keyNear, momentAt, PAD, valueAtY, type CurveBox, type SeenKey, type SeenTangent } from './curve-geometry';
import { edgeAt, stretch, type Bounds, type Edge } from './stretch';

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

/** What of a curve can be grabbed. */
interface Grabbable {
  readonly seen: readonly SeenKey[];
  readonly tangents: readonly SeenTangent[];
  readonly bounds: Bounds | null;
}

/**
 * Dragging on a curve: keys, tangents, the edges of the chosen keys, or a frame that chooses keys. A double click adds
 * one.
 */
export function useCurveDrag(
  { box, frames, keys, adds, chosen, snap, onChoose, onKeys, onDragging }: CanvasProps,
  svg: RefObject<SVGSVGElement | null>,
  { seen, tangents, bounds }: Grabbable,
) {
  const drag = useRef<Drag | null>(null);
  const [frame, setFrame] = useState<readonly [number, number, number, number] | null>(null);
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
  const double = (e: MouseEvent) => {
    if (!keys) return;
    const r = svg.current!.getBoundingClientRect();
    const [x, y] = [e.clientX - r.left, e.clientY - r.top];
    if (keyNear(seen, x, y)) return;
    const t = momentAt(box, x);
    const out = addKey(keys, adds, snap ? snapped(t, frames) : t);
    onKeys(out.keys, 'Add a key', undefined, out.chosen);
  };

  return { frame, down, move, up, double };
}
