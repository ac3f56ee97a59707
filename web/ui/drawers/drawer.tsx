'use client';

import { Box, Flex, Heading } from '@chakra-ui/react';
import { explained } from '@maypole/core/guide/words';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { PictureButton } from '../parts/buttons';
import { PaneEdge } from '../parts/pane-edge';
import { PANES, useLayout } from '../state/layout';
import { useNarrow } from '../state/narrow';
import { useEditor } from '../state/store';

/** A panel at the right; the picture keeps the rest. */
export function DrawerFrame({ title, children, foot }: { title: string; children: ReactNode; foot?: ReactNode }) {
  const width = useLayout((s) => s.drawer);
  const narrow = useNarrow();
  const close = () => useEditor.setState({ drawer: null });
  return (
    <Flex
      as="aside"
      aria-label={title}
      data-drawer
      position="relative"
      direction="column"
      flexShrink={1}
      minW={narrow ? '0' : `${PANES.drawer.least}px`}
      style={{ width: narrow ? '100%' : width }}
      borderLeftWidth={narrow ? undefined : '1px'}
      borderColor="line"
      bg="panel"
      minH="0"
    >
      {!narrow && <PaneEdge pane="drawer" side="left" label={`Width of ${title.toLowerCase()}`} onAway={close} />}
      <Flex align="center" justify="space-between" px="4" pt="3" pb="1.5">
        <Heading as="h2" fontFamily="heading" fontSize="16px" fontWeight="700" title={explained(title)}>
          {title}
        </Heading>
        <PictureButton label={`Close ${title.toLowerCase()}`} onClick={close}>
          <X size={17} />
        </PictureButton>
      </Flex>
      <Box flex="1" overflowY="auto" px="4" pb="5">
        {children}
      </Box>
      {foot && (
        <Box px="4" py="3" borderTopWidth="1px" borderColor="line" flexShrink={0}>
          {foot}
        </Box>
      )}
    </Flex>
  );
}
