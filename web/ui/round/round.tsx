'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import { ChevronFirst, Pause, Play, StepBack, StepForward } from 'lucide-react';
import { AWAY, PaneEdge } from '../parts/pane-edge';
import { useLayout } from '../state/layout';
import { PictureButton } from '../parts/buttons';
import { goTo, stepFrames, togglePlay } from '../state/player';
import { LiveText } from '../state/live';
import { useEditor } from '../state/store';
import { Dial } from './dial';
import { FrameField } from './frame-field';
import { LANE, OPEN_LANE } from './lane-view';
import { Lanes } from './lanes';

/** Width of the ribbons' bands, so that the lanes align with the picture. */
const BANDS = 60;
/** Head, ruler, one lane and its editor. */
const FOR_EDITING = 34 + 17 + LANE + OPEN_LANE + 6;

/** The timeline: dial and lanes. Its upper edge can be dragged, and the whole hidden. */
export function Round() {
  const pulled = useLayout((s) => s.round);
  const panel = useLayout((s) => s.panel);
  const editing = useEditor((s) => s.openLane !== null);
  const away = pulled === 0;
  const height = away ? 0 : editing ? Math.max(pulled, FOR_EDITING) : pulled;
  return (
    <Flex
      as="section"
      aria-label="Round"
      position="relative"
      flexShrink={0}
      borderTopWidth="1px"
      borderColor="line"
      bg="panel"
      // The picture always stays visible.
      maxH="calc(100vh - 260px)"
      style={{ height: height || AWAY }}
    >
      <PaneEdge pane="round" side="top" label="Height of the round" shown={height} />
      {!away && (
        <>
          <Flex
            flexShrink={0}
            align="center"
            gap="6"
            px="5"
            borderRightWidth="1px"
            borderColor="line"
            minW="370px"
            maxW="480px"
            style={{ width: panel + BANDS }}
          >
            <Dial />
            <Transport />
          </Flex>
          <Lanes />
        </>
      )}
    </Flex>
  );
}

function Transport() {
  const playing = useEditor((s) => s.playing);
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
        <FrameField />
      </Flex>
      <Flex align="center" gap="2">
        <Text fontSize="12.5px" w="48px">
          Phase
        </Text>
        <Text fontFamily="mono" fontSize="12px" fontWeight="600" pl="2" data-testid="phase">
          <LiveText of={(s) => (s.frame / frames).toFixed(3)} />
        </Text>
      </Flex>
    </Flex>
  );
}
