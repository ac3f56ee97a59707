'use client';

import { Box, Text } from '@chakra-ui/react';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import { wrapFrame } from '@maypole/core/time/loop';
import { isMoving } from '@maypole/core/time/value';
import { shownColour } from '../parts/shown-colour';
import { movingOf } from '../state/derived';
import { memo, type PointerEvent } from 'react';
import { useReadiness } from '../state/geometry';
import { LiveText, useLive } from '../state/live';
import { goTo, stepFrames } from '../state/player';
import { useEditor } from '../state/store';

const SIZE = 152;
const MIDDLE = SIZE / 2;
const RING = 68;

function at(share: number, radius: number): [number, number] {
  const a = (share - 0.25) * 2 * Math.PI;
  return [MIDDLE + radius * Math.cos(a), MIDDLE + radius * Math.sin(a)];
}

function arc(from: number, to: number, radius: number): string {
  if (to - from >= 1)
    return `M${MIDDLE} ${MIDDLE - radius}A${radius} ${radius} 0 1 1 ${MIDDLE - 0.01} ${MIDDLE - radius}`;
  const [x0, y0] = at(from, radius);
  const [x1, y1] = at(to, radius);
  return `M${x0.toFixed(2)} ${y0.toFixed(2)}A${radius} ${radius} 0 ${to - from > 0.5 ? 1 : 0} 1 ${x1.toFixed(2)} ${y1.toFixed(2)}`;
}

/** Runs of ready frames, as fractions of the loop. */
function runs(ready: readonly boolean[]): [number, number][] {
  const out: [number, number][] = [];
  for (let i = 0; i < ready.length; i++) {
    if (!ready[i]) continue;
    const from = i;
    while (i + 1 < ready.length && ready[i + 1]) i++;
    out.push([from / ready.length, (i + 1) / ready.length]);
  }
  return out;
}

/** The loop as a ring: drag round it to scrub. The knot at the top is the seam, the green arc the ready frames. */
export function Dial() {
  const frames = useEditor((s) => s.piece.loop.frames);
  const { ready } = useReadiness();
  const svg = useLive<SVGSVGElement, number>(
    (s) => s.frame,
    (slider, frame) => {
      slider.setAttribute('aria-valuenow', `${Math.round(wrapFrame(frame, frames))}`);
      slider.setAttribute('aria-valuetext', `Frame ${Math.round(frame * 100) / 100} of ${frames}`);
    },
  );

  const scrub = (event: PointerEvent) => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    const box = svg.current!.getBoundingClientRect();
    const angle =
      Math.atan2(event.clientY - box.top - box.height / 2, event.clientX - box.left - box.width / 2) / (2 * Math.PI) +
      0.25;
    goTo(wrapFrame(Math.round(angle * frames), frames));
  };

  return (
    <Box position="relative" w={`${SIZE}px`} h={`${SIZE}px`} flexShrink={0}>
      <svg
        ref={svg}
        width={SIZE}
        height={SIZE}
        role="slider"
        tabIndex={0}
        aria-label="Dial"
        aria-valuemin={0}
        aria-valuemax={frames - 1}
        style={{ cursor: 'pointer', touchAction: 'none', borderRadius: '50%' }}
        onPointerDown={scrub}
        onPointerMove={scrub}
        onKeyDown={(e) => {
          const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[e.key];
          if (by === undefined) return;
          e.preventDefault();
          e.stopPropagation();
          stepFrames(by * (e.shiftKey ? 10 : 1));
        }}
      >
        <circle cx={MIDDLE} cy={MIDDLE} r={RING} fill="none" stroke="var(--chakra-colors-line)" strokeWidth="4" />
        {runs(ready).map(([from, to]) => (
          <path
            key={from}
            d={arc(from, to, RING)}
            fill="none"
            stroke="var(--chakra-colors-leaf)"
            strokeWidth="4"
            data-testid="ready-arc"
          />
        ))}
        <Ticks count={Math.min(frames, 100)} />
        <Hand frames={frames} />
        <KeyDots />
        <g>
          <title>The seam</title>
          <circle
            cx={MIDDLE}
            cy={MIDDLE - RING}
            r="7.5"
            fill="var(--chakra-colors-panel)"
            stroke="var(--chakra-colors-ink)"
            strokeWidth="2.4"
          />
          <circle cx={MIDDLE} cy={MIDDLE - RING} r="2.2" fill="var(--chakra-colors-ink)" />
        </g>
      </svg>
      <Box
        position="absolute"
        inset="0"
        display="flex"
        flexDirection="column"
        alignItems="center"
        justifyContent="center"
        pointerEvents="none"
      >
        <Text fontFamily="mono" fontWeight="700" fontSize="22px" lineHeight="1.1" data-testid="frame">
          <LiveText of={({ frame }) => (Number.isInteger(frame) ? `${frame}` : frame.toFixed(2))} />
        </Text>
        <Text fontSize="11.5px" color="muted">
          of {frames}
        </Text>
      </Box>
    </Box>
  );
}

/** The playhead. */
function Hand({ frames }: { frames: number }) {
  const hand = useLive<SVGGElement, number>(
    (s) => wrapFrame(s.frame, frames) / frames,
    (g, share) => g.setAttribute('transform', `rotate(${360 * share} ${MIDDLE} ${MIDDLE})`),
  );
  return (
    <g ref={hand} data-testid="hand">
      <path d={`M${MIDDLE} ${MIDDLE - 38}V${MIDDLE - RING}`} stroke="var(--chakra-colors-poppy)" strokeWidth="2" />
      <circle cx={MIDDLE} cy={MIDDLE - RING} r="5" fill="var(--chakra-colors-poppy)" />
    </g>
  );
}

/** Tick marks, longer at every quarter. */
const Ticks = memo(function Ticks({ count: marks }: { count: number }) {
  return (
    <>
      {Array.from({ length: marks }, (_, i) => {
        const long = i % Math.max(1, Math.round(marks / 4)) === 0;
        const [x0, y0] = at(i / marks, RING - 6);
        const [x1, y1] = at(i / marks, RING - (long ? 14 : 10));
        return (
          <path
            key={i}
            d={`M${x0.toFixed(1)} ${y0.toFixed(1)}L${x1.toFixed(1)} ${y1.toFixed(1)}`}
            stroke={long ? 'var(--chakra-colors-ink)' : 'var(--chakra-colors-line-strong)'}
            strokeWidth={long ? 1.8 : 1}
          />
        );
      })}
    </>
  );
});

/** Keys of moving values, as dots in their ribbon's colour, inside the ring. */
const KeyDots = memo(function KeyDots() {
  const moving = useEditor((s) => movingOf(s.piece));
  const dots = new Map<string, { at: number; colour: string }>();
  for (const m of moving)
    if (isMoving(m.value) && m.value.motion === 'keys')
      for (const k of m.value.keys as readonly KeyDoc[]) {
        const colour = m.colour ? shownColour(m.colour) : 'var(--chakra-colors-muted)';
        // Keys closer than a dot's width share one dot.
        dots.set(`${Math.round(k.at * 90)}/${colour}`, { at: k.at, colour });
      }
  return (
    <>
      {[...dots].map(([key, { at: place, colour }]) => {
        const [x, y] = at(place, RING - 20);
        return <rect key={key} x={x - 3} y={y - 3} width="6" height="6" rx="1.5" fill={colour} data-testid="key-dot" />;
      })}
    </>
  );
});
