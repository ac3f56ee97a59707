'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { ChevronFirst, Layers, Pause, Play, SlidersHorizontal, Timer } from 'lucide-react';
import type { ReactNode } from 'react';
import { PictureButton } from '../parts/buttons';
import { FrameField } from '../round/frame-field';
import { Lanes } from '../round/lanes';
import { useFold, type Fold } from '../state/narrow';
import { goTo, togglePlay } from '../state/player';
import { useEditor } from '../state/store';
import { RibbonBands } from '../thread/ribbon-bands';
import { Thread } from '../thread/thread';
import { LoopField } from './loop-field';

/** Lies beside or under the picture of a narrow screen: a drawer, the steps, or the lanes. */
export function NarrowSide({ drawer, below }: { drawer: ReactNode; below: boolean }) {
  const fold = useFold((s) => s.fold);
  if (!drawer && !fold) return null;
  return (
    <Flex
      data-testid="narrow-side"
      position="relative"
      flexShrink={0}
      minW="0"
      minH="0"
      overflow="hidden"
      bg="panel"
      borderColor="line"
      {...(below ? { borderTopWidth: '1px', w: '100%', h: '54%' } : { borderLeftWidth: '1px', w: 'min(340px, 50vw)' })}
    >
      {drawer ?? (fold === 'steps' ? <Steps /> : <Time />)}
    </Flex>
  );
}

function Steps() {
  return (
    <>
      <RibbonBands />
      <Box flex="1" minW="0" minH="0" display="flex">
        <Thread />
      </Box>
    </>
  );
}

function Time() {
  return (
    <Flex as="section" aria-label="Round" direction="column" flex="1" minW="0" minH="0">
      <Flex align="center" gap="2" px="3" py="1.5" borderBottomWidth="1px" borderColor="line">
        <LoopField />
        <Text fontSize="12.5px" ml="2">
          Frame
        </Text>
        <Box w="90px">
          <FrameField />
        </Box>
      </Flex>
      <Flex flex="1" minH="0">
        <Lanes />
      </Flex>
    </Flex>
  );
}

const FOLDS: readonly { readonly fold: Fold; readonly title: string; readonly picture: ReactNode }[] = [
  { fold: 'steps', title: 'Steps', picture: <Layers size={17} /> },
  { fold: 'time', title: 'Time', picture: <Timer size={17} /> },
];

/** At the lower edge of a narrow screen: playing, and what lies beside the picture. */
export function NarrowTabs() {
  const fold = useFold((s) => s.fold);
  const drawer = useEditor((s) => s.drawer);
  const playing = useEditor((s) => s.playing);
  const choose = (next: Fold) => {
    useFold.setState({ fold: !drawer && fold === next ? null : next });
    useEditor.setState({ drawer: null });
  };
  return (
    <Flex
      as="nav"
      aria-label="Parts of the editor"
      flexShrink={0}
      h="46px"
      px="2"
      gap="1"
      align="center"
      borderTopWidth="1px"
      borderColor="line"
      bg="panel"
    >
      <PictureButton label="To the seam (Home)" onClick={() => goTo(0)}>
        <ChevronFirst size={18} />
      </PictureButton>
      <chakra.button
        type="button"
        aria-label={playing ? 'Pause' : 'Play'}
        w="40px"
        h="40px"
        borderRadius="full"
        bg="poppy"
        color="white"
        display="flex"
        alignItems="center"
        justifyContent="center"
        flexShrink={0}
        onClick={togglePlay}
      >
        {playing ? <Pause size={19} /> : <Play size={19} style={{ marginLeft: 2 }} />}
      </chakra.button>
      <Box flex="1" />
      {FOLDS.map(({ fold: own, title, picture }) => (
        <Tab key={own} title={title} pressed={!drawer && fold === own} onClick={() => choose(own)}>
          {picture}
        </Tab>
      ))}
      <Tab
        title="Scene"
        pressed={drawer === 'scene'}
        onClick={() => useEditor.setState({ drawer: drawer === 'scene' ? null : 'scene' })}
      >
        <SlidersHorizontal size={17} />
      </Tab>
    </Flex>
  );
}

function Tab({
  title,
  pressed,
  onClick,
  children,
}: {
  title: string;
  pressed: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <chakra.button
      type="button"
      aria-pressed={pressed}
      display="flex"
      alignItems="center"
      gap="1.5"
      h="40px"
      px="2.5"
      borderRadius="8px"
      fontSize="13px"
      fontWeight="600"
      bg={pressed ? 'field' : undefined}
      color={pressed ? 'ink' : 'muted'}
      cursor="pointer"
      onClick={onClick}
    >
      {children}
      {title}
    </chakra.button>
  );
}
