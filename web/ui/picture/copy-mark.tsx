'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { projectionOf } from '@maypole/core/scene/projection';
import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { lookAt, pickCopy, type CopyLook } from '@/engine/draw/pick';
import { PictureButton } from '../parts/buttons';
import { shownColour } from '../parts/shown-colour';
import { session } from '../state/session';
import { useEditor } from '../state/store';

type Size = { readonly width: number; readonly height: number };

function viewNow(size: Size) {
  const { piece, frame } = useEditor.getState();
  const { camera } = sceneAt(piece, frame);
  return {
    view: projectionOf(camera, piece.format.width / piece.format.height, size.width, size.height),
  };
}

/** Selects the copy at a point of the picture, in pixels; none where there is no copy. */
export function chooseCopyAt(x: number, y: number, size: Size): void {
  const { piece, frame, set } = useEditor.getState();
  const { from, way } = viewNow(size).view.ray(x, y);
  let best: { ribbon: string; number: number; distance: number } | null = null;
  for (const ribbon of piece.ribbons) {
    const shape = ribbon.on ? session()?.engine.geometry(ribbon, frame) : undefined;
    const hit = shape && pickCopy(shape, from, way);
    if (hit && hit.distance < (best?.distance ?? Infinity)) best = { ribbon: ribbon.id, ...hit };
  }
  if (best) set({ copy: { ribbon: best.ribbon, number: best.number }, ribbonId: best.ribbon });
  else if (useEditor.getState().copy) set({ copy: null });
}

/** The selected copy at the playhead. */
function useCopyLook(): CopyLook | null {
  const copy = useEditor((s) => s.copy);
  const frame = useEditor((s) => (s.copy ? s.frame : 0));
  const ribbon = useEditor((s) => s.piece.ribbons.find((r) => r.id === s.copy?.ribbon));
  const [look, setLook] = useState<CopyLook | null>(null);
  useEffect(() => {
    if (!copy || !ribbon) return setLook(null);
    const read = () => {
      const shape = session()?.engine.geometry(ribbon, frame);
      if (shape) setLook(lookAt(shape, copy.number));
    };
    read();
    return session()?.engine.subscribe(read);
  }, [copy, frame, ribbon]);
  return copy && look?.number === copy.number ? look : null;
}

const words = (x: number) => `${Number(x.toFixed(2))}`;

/** The selected copy: a ring around it in the picture, and its properties. */
export function CopyMark({ size }: { size: Size }) {
  const look = useCopyLook();
  const copy = useEditor((s) => s.copy);
  const frames = useEditor((s) => s.piece.loop.frames);
  const colour = useEditor((s) => s.piece.ribbons.find((r) => r.id === s.copy?.ribbon)?.colour ?? '#24262B');
  // Orbiting moves the ring.
  useEditor((s) => s.piece.scene.cameras);
  if (!copy || size.width < 2) return null;
  const seen = look && viewNow(size).view.to(look.at);
  const even =
    look && Math.abs(look.size[0] - look.size[1]) + Math.abs(look.size[1] - look.size[2]) < 1e-4 * look.size[0];
  const rows: [string, string][] = look
    ? [
        ['Place', `${words(look.place)} of ${look.places}`],
        [
          'Time',
          look.late === 0
            ? 'in step'
            : `${words(Math.abs(look.late) * 100)} % ${look.late > 0 ? 'later' : 'earlier'}, ` +
              `${Math.abs(Math.round(look.late * frames))} frames`,
        ],
        ['Size', even ? `× ${words(look.size[0])}` : `× ${look.size.map(words).join(', ')}`],
        ['At', `${look.at.map(words).join(', ')} m`],
        ...(look.shapes > 1 ? [['Shape', `${look.shape} of ${look.shapes}`] as [string, string]] : []),
        ...(look.roughness === undefined
          ? []
          : [['Roughness', `${Math.round(100 * look.roughness)} %`] as [string, string]]),
        ...(look.metalness === undefined
          ? []
          : [['Metalness', `${Math.round(100 * look.metalness)} %`] as [string, string]]),
      ]
    : [];
  const step = (by: number) =>
    look && useEditor.setState({ copy: { ...copy, number: (copy.number + by + look.count) % look.count } });
  return (
    <>
      {seen && (
        <svg
          width={size.width}
          height={size.height}
          aria-hidden="true"
          style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
        >
          <circle cx={seen.x} cy={seen.y} r="17" fill="none" stroke="#ffffff" strokeWidth="4" opacity="0.85" />
          <circle cx={seen.x} cy={seen.y} r="17" fill="none" stroke={shownColour(colour)} strokeWidth="2" />
        </svg>
      )}
      <Box
        position="absolute"
        top="52px"
        right="3"
        w="240px"
        bg="panel"
        borderRadius="10px"
        boxShadow="card"
        px="3"
        py="2"
        role="status"
        aria-label="Chosen copy"
        data-testid="copy"
      >
        <Flex align="center" gap="1" mb="1">
          <Text fontWeight="600" fontSize="13px" flex="1">
            {look ? `Copy ${copy.number + 1} of ${look.count}` : 'Not here now'}
          </Text>
          {look?.colour && (
            <Box
              w="13px"
              h="13px"
              borderRadius="full"
              borderWidth="1px"
              borderColor="lineStrong"
              style={{ background: look.colour }}
              title={look.colour}
            />
          )}
          <PictureButton label="Copy before" minW="24px" onClick={() => step(-1)}>
            <ChevronLeft size={15} />
          </PictureButton>
          <PictureButton label="Next copy" minW="24px" onClick={() => step(1)}>
            <ChevronRight size={15} />
          </PictureButton>
          <PictureButton label="Choose no copy" minW="24px" onClick={() => useEditor.setState({ copy: null })}>
            <X size={14} />
          </PictureButton>
        </Flex>
        {rows.map(([name, value]) => (
          <Flex key={name} fontSize="12px" lineHeight="1.65" gap="2">
            <Text color="muted" w="64px" flexShrink={0}>
              {name}
            </Text>
            <Text fontFamily="mono" fontSize="11.5px" truncate>
              {value}
            </Text>
          </Flex>
        ))}
        {!look && (
          <Text fontSize="12px" color="muted" lineHeight="1.45">
            At this frame there is no copy with this number.
          </Text>
        )}
      </Box>
    </>
  );
}
