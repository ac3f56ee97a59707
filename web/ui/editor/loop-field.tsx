'use client';

import { Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import { framesForSeconds, loopSeconds, MAX_FPS, MAX_FRAMES, MIN_FPS } from '@maypole/core/time/loop';
import { Repeat2 } from 'lucide-react';
import { focusAfterClosing } from '../parts/focus-after';
import { NumberField } from '../fields/number-field';
import { useEditor } from '../state/store';

const RATES = [23.976, 24, 25, 29.97, 30, 50, 60];

/** Length and rate of the loop. Motions are stored in cycles per loop, so they stay closed. */
export function LoopField() {
  const loop = useEditor((s) => s.piece.loop);
  const seconds = loopSeconds(loop);
  return (
    <Popover.Root
      finalFocusEl={focusAfterClosing}
      positioning={{ placement: 'bottom-end', strategy: 'fixed' }}
      lazyMount
    >
      <Popover.Trigger asChild>
        <chakra.button
          type="button"
          data-testid="loop-field"
          data-opens="loop"
          title="Length and frame rate of the loop"
          display="flex"
          alignItems="center"
          gap="2"
          h="28px"
          px="3"
          borderRadius="8px"
          borderWidth="1px"
          borderColor="line"
          bg="raised"
          fontFamily="mono"
          fontSize="12.5px"
          whiteSpace="nowrap"
          cursor="pointer"
          _hover={{ borderColor: 'lineStrong' }}
        >
          <Repeat2 size={15} />
          <Text as="span" fontWeight="700">
            {seconds.toFixed(2)} s
          </Text>
          <Text as="span" color="muted" hideBelow="md">
            {loop.frames} frames · {loop.fps} fps
          </Text>
        </chakra.button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            width="270px"
            bg="panel"
            borderRadius="12px"
            borderWidth="1px"
            borderColor="line"
            boxShadow="float"
            aria-label="Loop"
          >
            <Popover.Body p="3.5">
              <LoopForm />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** Frames, seconds and rate; each follows from the others. */
function LoopForm() {
  const loop = useEditor((s) => s.piece.loop);
  const edit = useEditor((s) => s.edit);
  const change = (label: string, part: Partial<typeof loop>, gesture: string) => {
    edit(label, (p) => ({ ...p, loop: { ...p.loop, ...part } }), `loop/${label}/${gesture}`);
    const { frame, piece } = useEditor.getState();
    if (frame >= piece.loop.frames) useEditor.setState({ frame: 0 });
  };
  const seconds = loopSeconds(loop);
  return (
    <>
      <FieldRow title="Frames">
        <NumberField
          label="Frames"
          value={loop.frames}
          min={1}
          max={MAX_FRAMES}
          soft={[1, 400]}
          step={1}
          integer
          onChange={(v, g) => change('Frames', { frames: v }, g)}
        />
      </FieldRow>
      <FieldRow title="Seconds">
        <NumberField
          label="Seconds"
          value={Number(seconds.toFixed(4))}
          unit="s"
          min={0.001}
          max={MAX_FRAMES}
          soft={[0.5, 15]}
          step={0.1}
          onChange={(v, g) => change('Seconds', { frames: framesForSeconds(v, loop.fps) }, g)}
        />
      </FieldRow>
      <FieldRow title="Frame rate">
        <NumberField
          label="Frame rate"
          value={loop.fps}
          unit="fps"
          min={MIN_FPS}
          max={MAX_FPS}
          soft={[1, 60]}
          step={1}
          onChange={(v, g) => change('Frame rate', { fps: v }, g)}
        />
      </FieldRow>
      <Flex gap="1" mt="2" flexWrap="wrap">
        {RATES.map((rate) => (
          <chakra.button
            key={rate}
            type="button"
            aria-pressed={rate === loop.fps}
            px="2"
            py="0.5"
            fontFamily="mono"
            fontSize="12px"
            borderRadius="field"
            bg={rate === loop.fps ? 'ink' : 'field'}
            color={rate === loop.fps ? 'inverse' : 'ink'}
            cursor="pointer"
            onClick={() => change('Frame rate', { fps: rate }, 'choose')}
          >
            {rate}
          </chakra.button>
        ))}
      </Flex>
      <Text mt="3" fontSize="12px" color="muted" lineHeight="1.5">
        Frame {loop.frames} is frame 0 again and is never shown twice. Motions keep their turns when this changes, so
        they stay closed.
      </Text>
    </>
  );
}

function FieldRow({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Flex align="center" gap="3" minH="30px">
      <Text w="90px" fontSize="12.5px">
        {title}
      </Text>
      {children}
    </Flex>
  );
}
