'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { fitFrame } from '@maypole/core/scene/lens';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { Camera, Gauge, Scan } from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { composeFrame } from '@/engine/compose';
import { Stage } from '@/view/stage';
import type { ViewFrame, ViewMode } from '@/view/frame';
import { frameAll, orbit, pan, zoom } from '../state/camera';
import { useReadiness } from '../state/geometry';
import { session } from '../state/session';
import { useEditor } from '../state/store';
import { CopyMark, chooseCopyAt } from './copy-mark';
import { Handles } from './handles';

const MODES: readonly { mode: ViewMode; title: string }[] = [
  { mode: 'shaded', title: 'Shaded' },
  { mode: 'edges', title: 'Edges' },
  { mode: 'points', title: 'Points' },
  { mode: 'normals', title: 'Normals' },
  { mode: 'uv', title: 'UV' },
  { mode: 'clay', title: 'Clay' },
];

/** The picture. Drag turns it, right drag or Shift drag shifts it, the wheel comes nearer. */
export function Viewport() {
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 1, height: 1 });
  const [trouble, setTrouble] = useState<string | null>(null);
  useStage(holder, setSize, setTrouble);
  const format = useEditor((s) => s.piece.format);
  const backdrop = useEditor((s) => sceneAt(s.piece, s.frame).backdrop.colour);
  const drag = useRef<{ x: number; y: number; shift: boolean; still: boolean } | null>(null);

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
    drag.current = { x: event.clientX, y: event.clientY, shift: event.button !== 0 || event.shiftKey, still: event.button === 0 };
  };
  const move = (event: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const [dx, dy] = [event.clientX - d.x, event.clientY - d.y];
    if ((dx === 0 && dy === 0) || (d.still && Math.hypot(dx, dy) < 3)) return;
    if (d.shift) pan(-dx / size.height, dy / size.height);
    else orbit(-dx * 0.4, dy * 0.4);
    drag.current = { ...d, x: event.clientX, y: event.clientY, still: false };
  };
  /** A click that turned nothing chooses the copy under it. */
  const up = (event: PointerEvent) => {
    const clicked = drag.current?.still;
    drag.current = null;
    if (!clicked) return;
    const box = event.currentTarget.getBoundingClientRect();
    chooseCopyAt(event.clientX - box.left, event.clientY - box.top, size);
  };
  const keys = (event: KeyboardEvent) => {
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
  };

  const fit = fitFrame(50, format.width / format.height, size.width / size.height);
  return (
    <Box position="absolute" inset="0" style={{ background: backdrop }}>
      <Box
        ref={holder}
        position="absolute"
        inset="0"
        tabIndex={0}
        role="application"
        aria-label="Picture. Arrow keys turn it, with Shift they shift it, plus and minus come nearer and go farther, C centres everything."
        data-testid="viewport"
        cursor="grab"
        touchAction="none"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => (drag.current = null)}
        onContextMenu={(e) => e.preventDefault()}
        onKeyDown={keys}
      />
      {trouble ? (
        <Flex position="absolute" inset="0" align="center" justify="center" p="8">
          <Box role="alert" bg="panel" p="5" borderRadius="12px" maxW="440px" boxShadow="float" lineHeight="1.5">
            <Text fontFamily="heading" fontWeight="700" mb="1.5">No picture</Text>
            {trouble}
          </Box>
        </Flex>
      ) : (
        <>
          <FrameLines width={fit.width} height={fit.height} label={`${format.width} × ${format.height}`} />
          <Handles size={size} />
          <CopyMark size={size} />
        </>
      )}
      <Flex position="absolute" top="3" left="3" right="3" justify="space-between" pointerEvents="none">
        <ModeSwitch />
        <CameraBar />
      </Flex>
      <Box position="absolute" bottom="3" left="3">
        <DetailBar />
      </Box>
    </Box>
  );
}

/** Where the delivered picture ends, as four quiet corners. */
function FrameLines({ width, height, label }: { width: number; height: number; label: string }) {
  const inset = { left: `${(1 - width) * 50}%`, right: `${(1 - width) * 50}%`, top: `${(1 - height) * 50}%`, bottom: `${(1 - height) * 50}%` };
  const corner = { position: 'absolute', w: '14px', h: '14px', borderColor: 'rgba(120,120,120,.75)' } as const;
  return (
    <Box position="absolute" style={inset} pointerEvents="none" title={label}>
      <Box {...corner} left="0" top="0" borderLeftWidth="1px" borderTopWidth="1px" />
      <Box {...corner} right="0" top="0" borderRightWidth="1px" borderTopWidth="1px" />
      <Box {...corner} left="0" bottom="0" borderLeftWidth="1px" borderBottomWidth="1px" />
      <Box {...corner} right="0" bottom="0" borderRightWidth="1px" borderBottomWidth="1px" />
    </Box>
  );
}

function ModeSwitch() {
  const mode = useEditor((s) => s.mode);
  return (
    <Flex role="radiogroup" aria-label="Look" bg="panel" borderRadius="8px" p="3px" boxShadow="card" pointerEvents="auto">
      {MODES.map((m) => (
        <chakra.button
          key={m.mode}
          type="button"
          role="radio"
          aria-checked={m.mode === mode}
          px="2.5"
          py="1"
          borderRadius="6px"
          fontSize="12.5px"
          fontWeight="600"
          bg={m.mode === mode ? 'ink' : undefined}
          color={m.mode === mode ? 'inverse' : 'ink'}
          cursor="pointer"
          onClick={() => useEditor.setState({ mode: m.mode })}
        >
          {m.title}
        </chakra.button>
      ))}
    </Flex>
  );
}

function CameraBar() {
  const focal = useEditor((s) => Math.round(sceneAt(s.piece, s.frame).camera.focalLength));
  const button = { display: 'flex', alignItems: 'center', gap: '1.5', px: '2.5', py: '1', borderRadius: '6px', fontSize: '12.5px', fontWeight: '500', cursor: 'pointer', _hover: { bg: 'field' } } as const;
  return (
    <Flex bg="panel" borderRadius="8px" p="3px" boxShadow="card" pointerEvents="auto">
      <chakra.button type="button" {...button} title="Camera settings" onClick={() => useEditor.setState({ drawer: 'scene' })}><Camera size={15} />{focal} mm</chakra.button>
      <chakra.button type="button" {...button} title="Bring everything into the picture (C)" onClick={frameAll}><Scan size={15} />Frame all</chakra.button>
    </Flex>
  );
}

/** Draft or final, and how much of the loop is worked out. */
function DetailBar() {
  const detail = useEditor((s) => s.detail);
  const frames = useEditor((s) => s.piece.loop.frames);
  const fps = useEditor((s) => s.piece.loop.fps);
  const rate = useEditor((s) => s.rate);
  const { count, full, failed, failure } = useReadiness();
  const slow = rate !== null && rate < fps * 0.93;
  const words = failed > 0
    ? `${failed} ${failed === 1 ? 'shape' : 'shapes'} could not be made`
    : full
    ? `${count} of ${frames} frames fit in memory`
    : count < frames
      ? `${count} of ${frames} frames ready${slow ? `, playing ${rate.toFixed(0)} of ${fps} fps meanwhile` : ''}`
      : slow
        ? `Drawing reaches ${rate.toFixed(0)} of ${fps} fps here`
        : 'all frames ready';
  return (
    <Flex align="center" bg="panel" borderRadius="8px" boxShadow="card" fontSize="12.5px" overflow="hidden">
      <chakra.button
        type="button"
        aria-label={`Detail: ${detail}. Switch to ${detail === 'draft' ? 'final' : 'draft'}`}
        title="Switch between draft and final detail"
        display="flex"
        alignItems="center"
        gap="2"
        px="3"
        py="1.5"
        fontWeight="600"
        cursor="pointer"
        _hover={{ bg: 'field' }}
        onClick={() => useEditor.setState({ detail: detail === 'draft' ? 'final' : 'draft' })}
      >
        <Gauge size={15} />
        {detail === 'draft' ? 'Draft' : 'Final'} detail
      </chakra.button>
      <Text role="status" px="3" color={failed > 0 ? 'poppyText' : slow || full ? 'marigoldText' : 'muted'} title={failure} borderLeftWidth="1px" borderColor="line" fontVariantNumeric="tabular-nums" data-testid="readiness">{words}</Text>
      {failed > 0 && <chakra.button type="button" px="3" py="1.5" fontWeight="600" cursor="pointer" borderLeftWidth="1px" borderColor="line" _hover={{ bg: 'field' }} onClick={() => session()?.engine.retry()}>Try again</chakra.button>}
    </Flex>
  );
}

/** Draws whenever something that shows has changed; a ribbon still being worked out keeps its last shape. */
function useStage(holder: React.RefObject<HTMLDivElement | null>, onSize: (s: { width: number; height: number }) => void, onTrouble: (t: string) => void): void {
  useEffect(() => {
    const element = holder.current!;
    const canvas = document.createElement('canvas');
    canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;display:block';
    canvas.dataset.testid = 'picture';
    let stage: Stage | null = null;
    let ended = false;
    let asked = 0;
    let last: ViewFrame['ribbons'] = [];
    const stops: (() => void)[] = [];

    const draw = () => {
      asked = 0;
      const engine = session()?.engine;
      if (!stage || !engine || ended) return;
      const { piece, frame, mode } = useEditor.getState();
      const now = composeFrame(engine, piece, frame, mode);
      const waiting = piece.ribbons.filter((r) => r.on && !now.ribbons.some((x) => x.id === r.id));
      const ribbons = [...now.ribbons, ...last.filter((x) => waiting.some((r) => r.id === x.id))];
      last = ribbons;
      stage.draw({ ...now, ribbons });
      // For tests and benchmarks: which frame stands in the picture, and whether it is complete.
      canvas.dataset.frame = String(frame);
      canvas.dataset.complete = String(waiting.length === 0);
      canvas.dataset.drawn = String(Number(canvas.dataset.drawn ?? 0) + 1);
    };
    const soon = () => {
      if (!asked) asked = requestAnimationFrame(draw);
    };

    const begin = async () => {
      const made = await Stage.create(canvas);
      if (ended) return made.dispose();
      stage = made;
      element.appendChild(canvas);
      const measure = () => {
        const { clientWidth: width, clientHeight: height } = element;
        if (width === 0 || height === 0) return;
        const ratio = Math.min(2, window.devicePixelRatio || 1);
        made.setSize(Math.round(width * ratio), Math.round(height * ratio));
        onSize({ width, height });
        draw();
      };
      const observer = new ResizeObserver(measure);
      observer.observe(element);
      stops.push(() => observer.disconnect());
      stops.push(
        useEditor.subscribe((a, b) => {
          if (a.piece === b.piece && a.frame === b.frame && a.mode === b.mode && a.detail === b.detail) return;
          // Where only shapes changed there is nothing new to draw until one arrives, and the engine tells that.
          const shapesOnly = a.mode === b.mode && a.frame === b.frame && a.piece.scene === b.piece.scene && a.piece.ribbons.length === b.piece.ribbons.length && a.piece.ribbons.every((r, i) => r.id === b.piece.ribbons[i].id && r.on === b.piece.ribbons[i].on && r.finishes === b.piece.ribbons[i].finishes);
          if (shapesOnly && !session()?.engine.isSettled(a.frame)) return;
          soon();
        }),
      );
      const engine = session()?.engine;
      if (engine)
        stops.push(
          engine.subscribe(() => {
            // When the newest shape was there to be drawn: what is left after this is drawing alone.
            const { piece, frame } = useEditor.getState();
            if (engine.isReady(frame)) canvas.dataset.arrived = performance.now().toFixed(1);
            // Most shapes that arrive are of frames ahead: the picture is drawn anew only for what is in it.
            const shown = new Map(last.map((r) => [r.id, r.shape]));
            const newer = piece.ribbons.some((r) => {
              const shape = r.on ? engine.geometry(r, frame) : undefined;
              return shape !== undefined && shape !== shown.get(r.id);
            });
            if (newer || canvas.dataset.complete !== 'true' || canvas.dataset.frame !== String(frame)) soon();
          }),
        );
      measure();
    };
    begin().catch((error: unknown) => onTrouble(error instanceof Error ? error.message : String(error)));
    return () => {
      ended = true;
      cancelAnimationFrame(asked);
      for (const stop of stops) stop();
      stage?.dispose();
      canvas.remove();
    };
  }, [holder, onSize, onTrouble]);
}
