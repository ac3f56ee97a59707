'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { fitFrame } from '@maypole/core/scene/lens';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { EXPOSURE_BANDS } from '@/view/effects/exposure-bands';
import type { ViewMode } from '@/view/stage/frame';
import { SHARP_COLOURS } from '@/view/effects/sharp-colours';
import { takesLooks } from '../looks/drag-look';
import { orbit, pan, zoom } from '../state/camera';
import { SelectField } from '../fields/select-field';
import { tellTrouble } from '../parts/toasts';
import { shownMode } from '../state/focusing';
import { sceneNow } from '../state/derived';
import { useLive } from '../state/live';
import { useQuickLight } from '../state/quick-light';
import { useEditor } from '../state/store';
import { useTrueLight } from '../state/true-light';
import { CameraBar } from './camera-bar';
import { CopyMark, chooseCopyAt } from './copy-mark';
import { FrameLines } from './frame-lines';
import { Gestures, type PointerAt } from './gestures';
import { Handles } from './handles';
import { LightSwitch, QuickLightNote, TrueLightNote } from './light-switch';
import { CompareLine } from './compare-line';
import { DetailBar } from './detail-bar';
import { useRefined, useTraced } from './refined';
import { BarChoice } from './bar-choice';
import { LivePicture } from './live-picture';
import { PickNote, pickAt } from './pick-point';
import { TruePicture } from './true-picture';

const MODES: readonly { mode: ViewMode; title: string }[] = [
  { mode: 'shaded', title: 'Shaded' },
  { mode: 'edges', title: 'Edges' },
  { mode: 'points', title: 'Points' },
  { mode: 'normals', title: 'Normals' },
  { mode: 'uv', title: 'UV' },
  { mode: 'clay', title: 'Clay' },
  { mode: 'exposure', title: 'Exposure' },
  { mode: 'sharp', title: 'Focus' },
];

const SHARP_LEGEND = [
  { colour: SHARP_COLOURS.before, words: 'before' },
  { colour: SHARP_COLOURS.sharp, words: 'sharp' },
  { colour: SHARP_COLOURS.behind, words: 'behind' },
];

/** Width in pixels below which overlays become small. */
const NARROW = 760;

/** Width in pixels below which overlays have no labels. */
const TIGHT = 420;

/** The picture. Drag orbits, right drag or Shift drag pans, the wheel zooms. */
export function Viewport() {
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 1, height: 1 });
  const missing = useQuickLight((s) => s.missing);
  const traced = useTraced((s) => s.traced);
  useEffect(() => {
    const picture = new LivePicture(holder.current!, {
      onSize: setSize,
      onRefined: (done, of) => useRefined.setState({ done, of }),
      onTrouble: (words) => useQuickLight.setState({ missing: words }),
      onLost: tellTrouble,
    });
    const traced = new TruePicture(holder.current!, {
      onTraced: (now) => useTraced.setState({ traced: now }),
      onTrouble: tellTrouble,
    });
    return () => {
      traced.end();
      picture.end();
      useQuickLight.setState({ missing: null });
    };
  }, []);
  const format = useEditor((s) => s.piece.format);
  const behind = useLive<HTMLDivElement, string>(
    (s) => sceneNow(s).backdrop.colour,
    (element, colour) => (element.style.background = colour),
  );
  const looked = useEditor(shownMode);
  const compare = useTrueLight((s) => s.compare);
  const picking = useEditor((s) => s.pick !== null);
  const gestures = useRef(new Gestures());

  useEffect(() => {
    const element = holder.current!;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      zoom(Math.exp(Math.max(-60, Math.min(60, event.deltaY)) * 0.0022));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, []);

  const down = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    gestures.current.down(pointerAt(event));
  };
  /** A click without a drag selects the copy under it. */
  const up = (event: PointerEvent) => {
    if (!gestures.current.up(pointerAt(event))) return;
    const box = event.currentTarget.getBoundingClientRect();
    const at = [event.clientX - box.left, event.clientY - box.top] as const;
    if (!pickAt(...at, size)) chooseCopyAt(...at, size);
  };
  const fit = fitFrame(50, format.width / format.height, size.width / size.height);
  return (
    <Box ref={behind} position="absolute" inset="0">
      <Box
        ref={holder}
        position="absolute"
        inset="0"
        tabIndex={0}
        role="application"
        aria-label={
          'Picture. Arrow keys turn it, with Shift they shift it, plus and minus come nearer and go farther, C ' +
          'centres everything.'
        }
        data-testid="viewport"
        cursor={picking ? 'crosshair' : 'grab'}
        touchAction="none"
        onPointerDown={down}
        onPointerMove={(event) => gestures.current.move(pointerAt(event), size.height)}
        onPointerUp={up}
        onPointerCancel={() => gestures.current.cancel()}
        {...takesLooks(size)}
        onContextMenu={(e) => e.preventDefault()}
        onKeyDown={keys}
      />
      <FrameLines
        width={fit.width}
        height={fit.height}
        aspect={format.width / format.height}
        label={`${format.width} × ${format.height}`}
      />
      <Handles size={size} />
      <CopyMark size={size} />
      <PickNote />
      {traced && compare && missing === null && <CompareLine />}
      {looked === 'exposure' && missing === null && <Legend label="exposure-legend" of={EXPOSURE_BANDS} />}
      {looked === 'sharp' && missing === null && <Legend label="sharp-legend" of={SHARP_LEGEND} />}
      <Flex
        position="absolute"
        top="3"
        left="3"
        right="3"
        align="flex-start"
        justify="space-between"
        pointerEvents="none"
      >
        {missing === null ? <ModeSwitch narrow={size.width < NARROW} /> : <QuickLightNote words={missing} />}
        <CameraBar narrow={size.width < NARROW} />
      </Flex>
      <Flex position="absolute" bottom="3" left="3" gap="2" wrap="wrap" pointerEvents="none">
        <Box pointerEvents="auto">
          <DetailBar beneath={traced !== null && !compare} narrow={size.width < TIGHT} />
        </Box>
        <LightSwitch traced={traced} />
        {traced && <TrueLightNote traced={traced} />}
      </Flex>
    </Box>
  );
}

/** Turns, shifts and zooms the camera from the keyboard. */
function keys(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
  if (arrow) {
    if (event.shiftKey) pan(arrow[0] * 0.05, arrow[1] * 0.05);
    else orbit(arrow[0] * 5, arrow[1] * 5);
  } else if (event.key === '+' || event.key === '=') zoom(0.9);
  else if (event.key === '-') zoom(1 / 0.9);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

const pointerAt = (event: PointerEvent): PointerAt => ({
  id: event.pointerId,
  x: event.clientX,
  y: event.clientY,
  touch: event.pointerType === 'touch',
  other: event.button > 0 || event.shiftKey,
});

/** Legend of a view's colours; above the bars, which span a narrow picture. */
function Legend({ label, of }: { label: string; of: readonly { readonly colour: string; readonly words: string }[] }) {
  return (
    <Flex
      position="absolute"
      bottom="14"
      right="3"
      bg="panel"
      borderRadius="8px"
      boxShadow="card"
      overflow="hidden"
      fontSize="11px"
      pointerEvents="none"
      data-testid={label}
    >
      {of.map(({ colour, words }) => (
        <Box key={words} textAlign="center" minW="34px">
          <Box h="10px" bg={colour} />
          <Text px="1.5" py="0.5" color="muted">
            {words}
          </Text>
        </Box>
      ))}
    </Flex>
  );
}

function ModeSwitch({ narrow }: { narrow: boolean }) {
  const mode = useEditor((s) => s.mode);
  if (narrow)
    return (
      <Box w="108px" bg="panel" borderRadius="8px" p="3px" boxShadow="card" pointerEvents="auto">
        <SelectField
          label="Look"
          value={mode}
          options={MODES.map((m) => ({ value: m.mode, title: m.title }))}
          onChange={(chosen) => useEditor.setState({ mode: chosen as ViewMode })}
        />
      </Box>
    );
  return (
    <BarChoice
      label="Look"
      value={mode}
      options={MODES.map((m) => ({ value: m.mode, title: m.title }))}
      onChange={(chosen) => useEditor.setState({ mode: chosen })}
    />
  );
}
