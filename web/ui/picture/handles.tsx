'use client';

import { vec3 } from '@maypole/core/maths/vec3';
import { Box } from '@chakra-ui/react';
import type { NumberParam, NumberValue, Points, VectorParam } from '@maypole/core/declare/params';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { projectionOf, type Projection } from '@maypole/core/scene/projection';
import { ownerKey } from '@maypole/core/piece/addresses';
import { ownersOf, type Owner } from '@maypole/core/piece/walk';
import { onRing, type Handle } from '@maypole/core/steps/handles';
import { shiftedValue } from '@maypole/core/time/reshape';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { shownColour } from '../parts/shown-colour';
import { handlesAtWork, type HeldHandles } from '../state/held-handles';
import { useEditor } from '../state/store';
import { newDrag } from '../state/undo';

const SNAP = { place: 0.1, distance: 0.1, angle: 15 } as const;

/** Handles in the picture: positions, sizes and angles of the active step. */
export function Handles({ size }: { size: { width: number; height: number } }) {
  const piece = useEditor((s) => s.piece);
  const frame = useEditor((s) => (s.playing ? 0 : s.frame));
  const playing = useEditor((s) => s.playing);
  const held = useEditor((s) => s.held);
  const ribbonId = useEditor((s) => s.ribbonId);
  const shown = useMemo(
    () => (playing ? null : handlesAtWork(piece, ribbonId, held, frame)),
    [piece, ribbonId, held, frame, playing],
  );
  const [words, setWords] = useState<{ text: string; x: number; y: number } | null>(null);
  if (!shown || size.width < 2) return null;
  const { camera } = sceneAt(piece, frame);
  const view = projectionOf(camera, piece.format.width / piece.format.height, size.width, size.height);
  return (
    <Box position="absolute" inset="0" pointerEvents="none" overflow="hidden" data-testid="handles">
      <svg
        width={size.width}
        height={size.height}
        aria-hidden="true"
        style={{ position: 'absolute', inset: 0, filter: 'drop-shadow(0 0 1.5px rgba(255,255,255,0.95))' }}
      >
        {shown.handles.map((h) => (
          <Guide key={keyOf(h)} handle={h} place={shown.place} view={view} colour={shownColour(shown.colour)} />
        ))}
      </svg>
      {shown.handles.map((h, i) => (
        <Grip
          key={keyOf(h)}
          handle={h}
          shown={shown}
          view={view}
          aside={ASIDE * coveredBy(shown.handles.slice(0, i), h)}
          onWords={setWords}
        />
      ))}
      {words && (
        <Box
          position="absolute"
          style={{ left: words.x + 14, top: words.y - 30 }}
          bg="ink"
          color="inverse"
          fontFamily="mono"
          fontSize="11.5px"
          px="2"
          py="0.5"
          borderRadius="6px"
          whiteSpace="nowrap"
          data-testid="read-out"
        >
          {words.text}
        </Box>
      )}
    </Box>
  );
}

/** Offset in pixels of a handle that coincides with another, so that both can be dragged. */
const ASIDE = 18;
const coveredBy = (before: readonly Handle[], h: Handle) =>
  before.filter((other) => Math.hypot(...other.at.map((x, k) => x - h.at[k])) < 1e-3).length;

const keyOf = (h: Handle) => `${h.param}/${h.index ?? ''}`;

function Guide({
  handle: h,
  place,
  view,
  colour,
}: {
  handle: Handle;
  place: (p: readonly [number, number, number]) => readonly [number, number, number];
  view: Projection;
  colour: string;
}) {
  const path = (points: (readonly [number, number, number])[], closed: boolean) => {
    const seen = points.map((p) => view.to(place(p)));
    return seen.some((p) => !p)
      ? ''
      : seen.map((p, i) => `${i ? 'L' : 'M'}${p!.x.toFixed(1)} ${p!.y.toFixed(1)}`).join('') + (closed ? 'Z' : '');
  };
  const line = { fill: 'none', stroke: colour, strokeWidth: 1.5, opacity: 0.8 } as const;
  if (h.shape === 'angle' && h.about && h.axis && h.ring) {
    const ring = Array.from({ length: 73 }, (_, i) => onRing(h.about!, h.axis!, h.ring!, (i / 72) * 2 * Math.PI));
    return (
      <>
        <path d={path(ring, true)} {...line} strokeDasharray="3 4" />
        <path d={path([h.about, onRing(h.about, h.axis, h.ring, 0)], false)} {...line} strokeDasharray="3 4" />
        <path d={path([h.about, h.at], false)} {...line} />
      </>
    );
  }
  if (h.shape === 'distance' && h.about) {
    const r = Math.abs(h.at[0] - h.about[0]);
    const ring = (axis: readonly [number, number, number]) =>
      Array.from({ length: 49 }, (_, i) => onRing(h.about!, axis, r, (i / 48) * 2 * Math.PI));
    return (
      <>
        {(
          [
            [1, 0, 0],
            [0, 1, 0],
            [0, 0, 1],
          ] as const
        ).map((axis) => (
          <path key={axis.join()} d={path(ring(axis), true)} {...line} opacity={0.55} />
        ))}
        <path d={path([h.about, h.at], false)} {...line} strokeDasharray="3 4" />
      </>
    );
  }
  return h.from ? <path d={path([h.from, h.at], false)} {...line} strokeDasharray="2 3" /> : null;
}

interface GripProps {
  readonly handle: Handle;
  readonly shown: HeldHandles;
  readonly view: Projection;
  /** Pixels to the right of its position. */
  readonly aside: number;
  readonly onWords: (words: { text: string; x: number; y: number } | null) => void;
}

interface GripDrag {
  x: number;
  y: number;
  gesture: string;
  start: readonly [number, number, number];
  done: readonly [number, number, number];
  turned: number;
  last: number;
  aside: number;
}

/** Moves by metres (or degrees in the first number), and reports the result. */
function moveHandle(
  h: Handle,
  shown: HeldHandles,
  by: readonly [number, number, number],
  gesture: string,
  snap: boolean,
): string {
  const { setValue } = useEditor.getState();
  const p = shown.params[h.param];
  const address = { owner: shown.owner, param: h.param } as const;
  const merge = `handle/${h.param}/${h.index ?? ''}/${gesture}`;
  const stored = storedValue(shown.owner, h.param) ?? p.default;
  const grid = (x: number) => (snap ? Math.round(x / SNAP[h.shape]) * SNAP[h.shape] : x);
  const tidy = (x: number) => Number(x.toFixed(4));
  if (p.type === 'points') {
    const list = [...(stored as Points)];
    while (h.index! >= list.length) list.push([0, 0, 0]);
    const at = list[h.index!];
    const next = vec3((k) => tidy(grid(at[k] + by[k])));
    setValue(
      h.title,
      address,
      list.map((q, i) => (i === h.index ? next : q)),
      merge,
    );
    return next.map((x) => x.toFixed(2)).join(', ');
  }
  if (h.shape === 'place') {
    const q = p as VectorParam;
    const now = stored as readonly NumberValue[];
    const next = vec3((k) => shift(now[k], by[k], q, (x) => tidy(grid(x))));
    setValue(h.title, address, next, merge);
    return (
      next.map((v, k) => (typeof v === 'number' ? v : shown.values[h.param][k] + by[k]).toFixed(2)).join(', ') + ' m'
    );
  }
  const q = p as NumberParam;
  const next = shift(stored as NumberValue, by[0], q, (x) => tidy(grid(x)));
  setValue(h.title, address, next, merge);
  const value = typeof next === 'number' ? next : Number(shown.values[h.param]) + by[0];
  return `${value.toFixed(h.shape === 'angle' ? 1 : 2)}${q.unit === '°' ? '°' : ` ${q.unit}`}`;
}

function Grip({ handle: h, shown, view, aside, onWords }: GripProps) {
  const drag = useRef<GripDrag | null>(null);
  const seen = view.to(shown.place(h.at));
  if (!seen) return null;
  const centre = h.about ? view.to(shown.place(h.about)) : null;

  const apply = (by: readonly [number, number, number], gesture: string, snap: boolean) =>
    moveHandle(h, shown, by, gesture, snap);
  const down = (event: PointerEvent) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = {
      x: event.clientX,
      y: event.clientY,
      gesture: newDrag(),
      start: h.at,
      done: [0, 0, 0],
      turned: 0,
      last: angleTo(centre, seen.x, seen.y),
      aside,
    };
    onWords({ text: h.title, x: seen.x, y: seen.y });
  };
  const move = (event: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    event.stopPropagation();
    const [dx, dy] = [event.clientX - d.x, event.clientY - d.y];
    let by: readonly [number, number, number];
    if (h.shape === 'angle') {
      const box = event.currentTarget.parentElement!.getBoundingClientRect();
      const now = angleTo(centre, event.clientX - box.left, event.clientY - box.top);
      // Seen from the front of the axis it rotates one way, from behind the other.
      const front = h.axis && shown.turn(h.axis).reduce((s, x, k) => s + x * view.ahead[k], 0) < 0 ? -1 : 1;
      const step = now - d.last;
      const turned = d.turned + (step - 360 * Math.round(step / 360)) * front;
      by = [turned - d.done[0], 0, 0];
      drag.current = { ...d, last: now, turned, done: [turned, 0, 0] };
    } else {
      const to = offsetOf(h, d.start, shown.back(view.across(dx, dy, seen.depth)), event.shiftKey);
      by = vec3((k) => to[k] - d.done[k]);
      drag.current = { ...d, done: to };
    }
    const text = apply(by, d.gesture, event.ctrlKey || event.metaKey);
    onWords({ text: `${h.title}  ${text}`, x: seen.x, y: seen.y });
  };
  const up = () => {
    drag.current = null;
    onWords(null);
  };
  const keys = (event: KeyboardEvent) => {
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!arrow) return;
    event.preventDefault();
    event.stopPropagation();
    const k = event.shiftKey ? 10 : 1;
    apply(
      h.shape === 'angle'
        ? [(arrow[0] - arrow[1]) * k, 0, 0]
        : h.shape === 'distance'
          ? [(arrow[0] - arrow[1]) * 0.01 * k, 0, 0]
          : shown.back(view.across(arrow[0] * 4 * k, arrow[1] * 4 * k, seen.depth)),
      'keys',
      false,
    );
  };

  return (
    <Box
      as="button"
      aria-label={`${h.title} in the picture`}
      title={`${h.title}: drag it. Ctrl snaps, Shift keeps to one axis.`}
      position="absolute"
      // It stays under the pointer where it was grabbed.
      style={{ left: seen.x - 9 + (drag.current?.aside ?? aside), top: seen.y - 9, touchAction: 'none' }}
      w="18px"
      h="18px"
      p="0"
      pointerEvents="auto"
      cursor="move"
      display="flex"
      alignItems="center"
      justifyContent="center"
      bg="transparent"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={keys}
    >
      <Box
        w={h.index === undefined ? '12px' : '9px'}
        h={h.index === undefined ? '12px' : '9px'}
        borderRadius={h.shape === 'place' ? 'full' : '2px'}
        transform={h.shape === 'distance' ? 'rotate(45deg)' : undefined}
        bg="raised"
        borderWidth="2.5px"
        boxShadow="card"
        style={{ borderColor: shownColour(shown.colour) }}
      />
    </Box>
  );
}

/**
 * How far a handle has moved since it was grabbed: metres along each axis, or along its distance in the first number.
 *
 * @param onAxis keeps to the axis of the largest movement
 */
function offsetOf(
  h: Handle,
  start: readonly [number, number, number],
  moved: readonly [number, number, number],
  onAxis: boolean,
): readonly [number, number, number] {
  const most = moved.reduce((m, x, k) => (Math.abs(x) > Math.abs(moved[m]) ? k : m), 0);
  const kept = onAxis ? vec3((k) => (k === most ? moved[k] : 0)) : moved;
  if (h.shape !== 'distance') return kept;
  const from = (by: readonly number[]) => Math.hypot(...vec3((k) => start[k] + by[k] - h.about![k]));
  return [from(kept) - from([0, 0, 0]), 0, 0];
}

function shift(
  value: NumberValue,
  by: number,
  p: NumberParam | VectorParam,
  settle: (x: number) => number,
): NumberValue {
  const next = shiftedValue(value, by, [p.min, p.max]);
  return typeof next === 'number' ? settle(next) : next;
}

/** The stored value of the newest piece, which a drag may have changed since rendering. */
function storedValue(owner: Owner, param: string) {
  return ownersOf(useEditor.getState().piece).find((o) => ownerKey(o.owner) === ownerKey(owner))?.item.values[param];
}

function angleTo(centre: { x: number; y: number } | null, x: number, y: number): number {
  return centre ? (Math.atan2(-(y - centre.y), x - centre.x) * 180) / Math.PI : 0;
}
