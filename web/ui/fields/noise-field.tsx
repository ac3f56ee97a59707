'use client';

import { canvas2d } from '@/view/stage/canvas-2d';
import { Box, Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import { evaluateValues } from '@maypole/core/time/values';
import { noiseFrom, noiseParams } from '@maypole/core/noise/noise-params';
import type { Values } from '@maypole/core/piece/piece';
import { ChevronDown } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { focusAfterClosing } from '../parts/focus-after';
import { useChoice } from '../parts/use-choice';
import { useEditor } from '../state/store';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly title: string; readonly help?: string }[];
  /** The settings that it is shown with. */
  readonly values: Values;
  readonly onChange: (value: string) => void;
}

/** Chooses a kind of noise by eye: all kinds side by side with the present settings, at the playhead. */
export function NoiseField({ label, value, options, values, onChange }: Props) {
  const [open, setOpen] = useState(false);
  const chosen = options.find((o) => o.value === value);
  const { group, option } = useChoice(
    options.map((o) => o.value),
    value,
    onChange,
  );
  return (
    <Popover.Root
      finalFocusEl={focusAfterClosing}
      open={open}
      onOpenChange={(d) => setOpen(d.open)}
      positioning={{ placement: 'right-start', gutter: 12, strategy: 'fixed', overflowPadding: 8 }}
      lazyMount
      unmountOnExit
    >
      <Popover.Trigger asChild>
        <chakra.button
          type="button"
          aria-label={`${label}: ${chosen?.title ?? value}`}
          title={chosen?.help}
          flex="1"
          minW="0"
          h="24px"
          pl="1"
          pr="1.5"
          bg="field"
          borderRadius="field"
          display="flex"
          alignItems="center"
          gap="1.5"
          cursor="pointer"
          fontSize="12.5px"
          fontWeight="500"
        >
          <NoisePicture kind={value} values={values} size={18} />
          <Text truncate flex="1" textAlign="left">
            {chosen?.title ?? value}
          </Text>
          <Box color="muted">
            <ChevronDown size={14} />
          </Box>
        </chakra.button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            width="424px"
            bg="panel"
            borderRadius="12px"
            borderWidth="1px"
            borderColor="line"
            boxShadow="float"
            aria-label="Kinds of noise"
          >
            <Popover.Body p="3">
              <Flex {...group} aria-label="Kinds of noise, with the present settings" wrap="wrap" gap="2">
                {options.map((o) => (
                  <chakra.button
                    key={o.value}
                    {...option(o.value)}
                    title={o.help}
                    w="72px"
                    p="1"
                    borderRadius="8px"
                    borderWidth="2px"
                    borderColor={o.value === value ? 'ink' : 'transparent'}
                    _hover={{ bg: 'field' }}
                    cursor="pointer"
                    textAlign="center"
                    display="flex"
                    flexDirection="column"
                    alignItems="center"
                    justifyContent="flex-start"
                  >
                    <NoisePicture kind={o.value} values={values} size={60} />
                    <Text fontSize="11px" lineHeight="1.2" mt="1" fontWeight={o.value === value ? 600 : 500}>
                      {o.title}
                    </Text>
                  </chakra.button>
                ))}
              </Flex>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** Features across a picture. */
const ACROSS = 5;

/** A slice of a noise as a picture, dark to light, with the same number of features whatever their size. */
function NoisePicture({ kind, values, size }: { kind: string; values: Values; size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const frames = useEditor((s) => s.piece.loop.frames);
  // Pictures follow the playhead while it stands; redrawing all during playback would cost frames.
  const frame = useEditor((s) => (s.playing ? null : s.frame));
  const last = useRef(0);
  if (frame !== null) last.current = frame;
  const shown = last.current;
  // Only the noise's own values: others change no picture.
  const own = useMemo(
    () =>
      Object.fromEntries(
        Object.keys(noiseParams)
          .map((name) => [name, values[name]])
          .filter(([, v]) => v !== undefined),
      ) as Values,
    [values],
  );
  const key = JSON.stringify(own);
  useEffect(() => {
    const context = canvas2d(canvas.current);
    if (!context) return;
    const settings = { ...evaluateValues(noiseParams, own, { frame: shown, frames }), noise: kind as 'gradient' };
    const field = noiseFrom(settings, { frame: shown, frames });
    const image = context.createImageData(size, size);
    const step = (ACROSS * settings.scale) / size;
    for (let y = 0; y < size; y++)
      for (let x = 0; x < size; x++) {
        const v = Math.max(
          0,
          Math.min(1, 0.5 + 0.5 * field((x - size / 2) * step, (size / 2 - y) * step, 0.37 * settings.scale)),
        );
        const i = 4 * (y * size + x);
        // From ink to paper.
        image.data[i] = 36 + v * 215;
        image.data[i + 1] = 38 + v * 212;
        image.data[i + 2] = 43 + v * 203;
        image.data[i + 3] = 255;
      }
    context.putImageData(image, 0, 0);
  }, [kind, key, shown, frames, size]); // eslint-disable-line react-hooks/exhaustive-deps -- own is what key says
  return (
    <canvas
      ref={canvas}
      width={size}
      height={size}
      aria-hidden="true"
      style={{
        width: size,
        height: size,
        borderRadius: size > 30 ? 6 : 4,
        display: 'block',
        margin: size > 30 ? '0 auto' : undefined,
      }}
    />
  );
}
