'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { ChevronFirst, Pause, Play, StepBack, StepForward } from 'lucide-react';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { PictureButton } from '../parts/buttons';
import { NumberField } from '../fields/number-field';
import { goTo, stepFrames, togglePlay } from '../state/player';
import { useEditor } from '../state/store';
import { Dial } from './dial';
import { LANE, OPEN_LANE, useLaneView } from './lane-view';
import { Lanes } from './lanes';

const [LEAST, MOST] = [204, 620];
/** Head, ruler, one lane and its editor. */
const FOR_EDITING = 34 + 17 + LANE + OPEN_LANE + 6;

/** The time area: the dial and the lanes. Its upper edge can be pulled. */
export function Round() {
  const pulled = useLaneView((s) => s.height);
  const editing = useEditor((s) => s.openLane !== null);
  const height = editing ? Math.max(pulled, FOR_EDITING) : pulled;
  return (
    <Flex
      as="section"
      aria-label="Round"
      position="relative"
      flexShrink={0}
      borderTopWidth="1px"
      borderColor="line"
      bg="panel"
      style={{ height }}
    >
      <Edge height={height} />
      <Flex w="390px" flexShrink={0} align="center" gap="6" px="5" borderRightWidth="1px" borderColor="line">
        <Dial />
        <Transport />
      </Flex>
      <Lanes />
    </Flex>
  );
}

function Edge({ height }: { height: number }) {
  const drag = useRef<{ y: number; height: number } | null>(null);
  const set = (to: number) =>
    useLaneView.setState({ height: Math.max(LEAST, Math.min(MOST, window.innerHeight - 260, to)) });
  return (
    <Box
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the round"
      aria-valuenow={height}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      tabIndex={0}
      position="absolute"
      top="-4px"
      left="0"
      right="0"
      h="8px"
      zIndex="3"
      cursor="row-resize"
      touchAction="none"
      onPointerDown={(e: PointerEvent) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { y: e.clientY, height };
      }}
      onPointerMove={(e: PointerEvent) => drag.current && set(drag.current.height + drag.current.y - e.clientY)}
      onPointerUp={() => (drag.current = null)}
      onKeyDown={(e: KeyboardEvent) => {
        const by = { ArrowUp: 20, ArrowDown: -20 }[e.key];
        if (!by) return;
        e.preventDefault();
        e.stopPropagation();
        set(height + by);
      }}
    />
  );
}

function Transport() {
  const playing = useEditor((s) => s.playing);
  const frame = useEditor((s) => s.frame);
  const frames = useEditor((s) => s.piece.loop.frames);
  return (
    <Flex direction="column" gap="3" flex="1">
      <Flex align="center" gap="1">
        <PictureButton label="To the seam (Home)" onClick={() => goTo(0)}>
          <ChevronFirst size={18} />
        </PictureButton>
        <PictureButton label="One frame back" onClick={() => stepFrames(-1)}>
          <StepBack size={17} />
        </PictureButton>
        <chakra.button
          type="button"
          aria-label={playing ? 'Pause' : 'Play'}
          title={playing ? 'Pause (Space)' : 'Play (Space)'}
          w="42px"
          h="42px"
          borderRadius="full"
          bg="poppy"
          color="white"
          display="flex"
          alignItems="center"
          justifyContent="center"
          cursor="pointer"
          _hover={{ opacity: 0.9 }}
          onClick={togglePlay}
        >
          {playing ? <Pause size={20} /> : <Play size={20} style={{ marginLeft: 2 }} />}
        </chakra.button>
        <PictureButton label="One frame on" onClick={() => stepFrames(1)}>
          <StepForward size={17} />
        </PictureButton>
      </Flex>
      <Flex align="center" gap="2" maxW="150px">
        <Text fontSize="12.5px" w="48px">
          Frame
        </Text>
        <NumberField
          label="Frame"
          value={frame}
          min={-frames * 4}
          max={frames * 4}
          soft={[0, frames]}
          step={1}
          onChange={(v) => goTo(v)}
        />
      </Flex>
      <Flex align="center" gap="2">
        <Text fontSize="12.5px" w="48px">
          Phase
        </Text>
        <Text fontFamily="mono" fontSize="12px" fontWeight="600" pl="2" data-testid="phase">
          {(frame / frames).toFixed(3)}
        </Text>
      </Flex>
    </Flex>
  );
}
