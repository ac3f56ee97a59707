'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { NumberValue } from '@maypole/core/declare/params';
import { addressKey, valueAt, type NumberPlace } from '@maypole/core/piece/addresses';
import { sortKeys, type KeyDoc } from '@maypole/core/time/keys/key';
import { evaluateNumber, isMoving } from '@maypole/core/time/value';
import type { MotionDoc } from '@maypole/core/time/motion';
import { useEffect, useMemo, useRef, useState } from 'react';
import { rangeOf } from '../fields/drawing';
import { ActionRow } from '../motion/action-row';
import { shownColour } from '../parts/shown-colour';
import { showValue } from '../state/show-value';
import { LiveText } from '../state/live';
import { useEditor } from '../state/store';
import { CurveCanvas } from './curve-canvas';
import type { CurveBox } from './curve-geometry';
import { AddsField, KeyBar } from './key-bar';
import { mainPart, seamsBetween } from './lane-math';
import { NAMES, OPEN_LANE, useLaneView, viewFrom } from './lane-view';
import { Playhead } from './playhead';
import { useKeyEdits } from './use-key-edits';

const BAR = 30;
const HEIGHT = OPEN_LANE - BAR;

/** An open lane: the curve at editing size, its keys in numbers, and repairs. */
export function CurveEditor({ place }: { place: NumberPlace }) {
  const { address, param, title } = place;
  const key = addressKey(address);
  const colour = place.colour ? shownColour(place.colour) : 'var(--chakra-colors-muted)';
  const frames = useEditor((s) => s.piece.loop.frames);
  const stored = useEditor((s) => valueAt(s.piece, address) as NumberValue);
  const preview = useEditor((s) => (s.preview?.key === key ? (s.preview.value as NumberValue) : undefined));
  const set = useEditor((s) => s.setValue);
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [dragging, setDragging] = useState(false);
  const snap = useLaneView((s) => s.snap);
  const area = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(area.current?.clientWidth ?? 0));
    observer.observe(area.current!);
    return () => observer.disconnect();
  }, []);

  const motion = isMoving(stored) ? stored : null;
  const keys = useMemo(() => (motion?.motion === 'keys' ? sortKeys(motion.keys as readonly KeyDoc[]) : null), [motion]);
  const adds = keys ? (motion!.adds as number) : 0;
  const box = useCurveBox(place, keys, adds, width, dragging);

  const put = (next: NumberValue, label: string, gesture?: string) =>
    set(label, address, next, gesture && `${key}/${gesture}`);
  const { onKeys, addHere, remove, keyboard } = useKeyEdits({ place, motion, keys, adds, chosen, setChosen, put });

  return (
    <Flex h={`${OPEN_LANE}px`} bg="panel">
      <Flex direction="column" w={`${NAMES}px`} flexShrink={0} px="2.5" pb="2" gap="2" overflowY="auto">
        <Now value={place.value} unit={param.unit} cyclic={param.cyclic} />
        {keys && (
          <AddsField
            adds={adds}
            param={param}
            onAdds={(v, gesture) => put({ ...motion!, adds: v }, 'Adds per loop', gesture)}
          />
        )}
        <chakra.button
          type="button"
          alignSelf="flex-start"
          fontSize="12px"
          fontWeight="600"
          color="sky"
          cursor="pointer"
          onClick={() => showValue(address)}
        >
          {place.place}: open its motion
        </chakra.button>
        {motion && (
          <ActionRow
            motion={motion}
            linked={place.value as MotionDoc}
            param={param}
            own={key}
            onApply={(m, label) => {
              put(m, label);
              setChosen([]);
            }}
          />
        )}
      </Flex>
      <Flex direction="column" flex="1" minW="0">
        {keys ? (
          <KeyBar
            keys={keys}
            adds={adds}
            chosen={chosen}
            frames={frames}
            param={param}
            onKeys={onKeys}
            onAdd={addHere}
            onRemove={remove}
          />
        ) : (
          <Flex h={`${BAR}px`} align="center" px="2.5">
            <Text fontSize="12px" color="muted">
              A {motion?.motion ?? 'still value'} is set by its numbers; make keys of it to shape it by hand.
            </Text>
          </Flex>
        )}
        <Box ref={area} position="relative" overflow="hidden" style={{ height: HEIGHT }}>
          <Ground box={box} />
          {width > 0 && (
            <CurveCanvas
              box={box}
              frames={frames}
              colour={colour}
              title={title}
              total={place.value}
              keys={keys}
              adds={adds}
              chosen={chosen}
              snap={snap}
              preview={preview}
              onChoose={setChosen}
              onKeys={onKeys}
              onKeyboard={keyboard}
              onDragging={setDragging}
            />
          )}
          <Playhead />
        </Box>
      </Flex>
    </Flex>
  );
}

/**
 * Where a curve is drawn: the range of its value with some room. It is frozen during a drag.
 *
 * @param width in pixels
 */
function useCurveBox(
  { param, value }: NumberPlace,
  keys: readonly KeyDoc[] | null,
  adds: number,
  width: number,
  dragging: boolean,
): CurveBox {
  const frames = useEditor((s) => s.piece.loop.frames);
  const from = useLaneView(viewFrom);
  const span = useLaneView((s) => s.span);
  const zoom = useLaneView((s) => s.valueZoom);
  const range = useMemo(() => {
    const plain: NumberValue = keys ? { motion: 'keys', adds, keys } : value;
    const { low, high } = rangeOf(plain, frames);
    const total = keys ? rangeOf(value, frames) : { low, high };
    const [a, b] = [Math.min(low, total.low), Math.max(high, total.high)];
    const room = b - a < 1e-9 ? (param.soft[1] - param.soft[0]) / 4 : 0.06 * (b - a);
    return { low: a - room, high: b + room };
  }, [keys, adds, value, frames, param.soft]);
  const held = useRef(range);
  if (!dragging) held.current = range;
  const middle = (held.current.low + held.current.high) / 2;
  const half = (held.current.high - held.current.low) / 2 / zoom;
  return { width, height: HEIGHT, from, span, low: middle - half, high: middle + half };
}

function Now({ value, unit, cyclic }: { value: NumberValue; unit: string; cyclic?: number }) {
  const now = (s: { frame: number; piece: { loop: { frames: number } } }) =>
    Number(evaluateNumber(value, { frame: s.frame, frames: s.piece.loop.frames }, cyclic).toPrecision(5));
  return (
    <Text fontFamily="mono" fontSize="12px" color="muted">
      <LiveText of={(s) => `${now(s)} ${unit}`} />
    </Text>
  );
}

/** Neighbouring loops, seams and a zero line behind the curve. */
function Ground({ box }: { box: CurveBox }) {
  const [a, b] = mainPart(box.from, box.span);
  const share = (t: number) => `${((t - box.from) / box.span) * 100}%`;
  const zero =
    box.low < 0 && box.high > 0 ? `${((box.high - 0) / (box.high - box.low)) * (box.height - 28) + 14}px` : null;
  return (
    <Box position="absolute" inset="0" bg="band">
      <Box
        position="absolute"
        top="0"
        bottom="0"
        bg="raised"
        style={{ left: share(a), width: `${((b - a) / box.span) * 100}%` }}
      />
      {zero && (
        <Box position="absolute" left="0" right="0" borderTopWidth="1px" borderColor="line" style={{ top: zero }} />
      )}
      {seamsBetween(box.from, box.from + box.span).map((k) => (
        <Box
          key={k}
          position="absolute"
          top="0"
          bottom="0"
          borderLeftWidth="1px"
          borderStyle="dashed"
          borderColor="ink"
          style={{ left: share(k) }}
        />
      ))}
    </Box>
  );
}
