'use client';

import type { Address } from '@maypole/core/piece/addresses';
import { useRef, type PointerEvent, type RefObject } from 'react';
import { newDrag } from '../state/undo';
import { addressesOf, fieldsUntil } from './beside-fields';

const DRAG_PIXELS = 3;
/** A drag that first goes this far down or up sets a whole column. */
const COLUMN_PIXELS = 12;

interface Drag {
  x: number;
  readonly y: number;
  value: number;
  moved: boolean;
  column: boolean;
  readonly gesture: string;
  readonly joined: Set<HTMLElement>;
}

interface Options {
  readonly field: RefObject<HTMLElement | null>;
  /** Width of the usual range. */
  readonly span: number;
  /** Values snap to multiples of it, and with Shift to those of `fine`. */
  readonly grain: number;
  readonly fine: number;
  readonly onDrag: (value: number, gesture: string, joined: readonly Address[]) => void;
}

/** Scrubbing of a number: sideways changes it, down or up first joins the fields of its column. */
export function useNumberDrag({ field, span, grain, fine, onDrag }: Options) {
  const drag = useRef<Drag | null>(null);
  const down = (event: PointerEvent, value: number) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { clientX: x, clientY: y } = event;
    drag.current = {
      x,
      y,
      value,
      moved: false,
      gesture: newDrag(),
      joined: new Set(),
      column: false,
    };
  };
  const move = (event: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const dx = event.clientX - d.x;
    const dy = Math.abs(event.clientY - d.y);
    d.column ||= !d.moved && dy > COLUMN_PIXELS && dy > 2 * Math.abs(dx);
    if (!d.moved && !d.column && Math.abs(dx) < DRAG_PIXELS) return;
    d.moved = true;
    if (d.column && field.current)
      for (const other of fieldsUntil(field.current, event.clientY)) {
        d.joined.add(other);
        other.dataset.joined = '';
      }
    // The usual range spans about two field widths, so that the hand need not be very steady.
    const width = (field.current?.offsetWidth || 90) * 2;
    const per = (span / width) * (event.shiftKey ? 0.1 : 1);
    const raw = d.value + dx * per;
    d.x = event.clientX;
    d.value = raw;
    const by = event.shiftKey ? fine : grain;
    onDrag(Math.round(raw / by) * by, d.gesture, addressesOf(d.joined));
  };
  const letGo = () => {
    const d = drag.current;
    drag.current = null;
    for (const other of d?.joined ?? []) delete other.dataset.joined;
    return d;
  };
  return { down, move, letGo };
}
