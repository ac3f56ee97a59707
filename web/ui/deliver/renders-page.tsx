'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { useCallback, useEffect, useState } from 'react';
import type { Viewer } from '@/contract/person';
import { SwitchField } from '../fields/switch-field';
import { PageHead } from '../parts/page-head';
import { fileSize } from '../parts/words';
import { worksOn } from './estimate';
import { Machines } from './machines';
import { lend, stopLending, useLending } from './lending';
import { RenderCard } from './render-card';
import { WaitsForRoom } from './waits-for-room';
import { goesOn } from './awaited';
import { useQueue, useRenders } from './renders';

/** All renders, and the machines that work on them. */
export function RendersPage({ viewer }: { viewer: Viewer }) {
  const queue = useQueue();
  const trouble = useRenders((s) => s.trouble);
  const [opened, setOpened] = useState<Record<string, boolean>>({});
  const open = useCallback((id: string, value: boolean) => setOpened((o) => ({ ...o, [id]: value })), []);
  const renders = (queue?.renders ?? []).filter((r) => !r.estimate);
  const on = renders.filter(goesOn);
  const over = renders.filter((r) => !goesOn(r));
  const cards = (list: typeof renders) =>
    list.map((render, i) => (
      <RenderCard
        key={render.id}
        render={render}
        all={renders}
        worked={queue!.workers.some((w) => worksOn(w, render.order.light))}
        ahead={list === on && i > 0 ? on[i - 1].id : undefined}
        open={opened[render.id] ?? goesOn(render)}
        onOpen={(value) => open(render.id, value)}
      />
    ));
  return (
    <Box minH="100vh" bg="paper">
      <Box maxW="1120px" mx="auto" px="6" py="8">
        <PageHead title="Renders" space="1" />
        <Text fontSize="13px" color={trouble ? 'poppyText' : 'muted'} mb="6" role="status">
          {trouble ??
            (queue
              ? `${on.length === 0 ? 'Nothing is being rendered' : on.length === 1 ? 'One render goes on' : `${on.length} renders go on`}. ` +
                `Frames and files take ${fileSize(queue.used)}; ${fileSize(queue.free)} are free on the disk.`
              : 'Looking…')}
        </Text>
        <Flex gap="6" align="flex-start" direction={{ base: 'column', md: 'row' }}>
          <Box flex="1" minW="0" w="100%">
            <WaitsForRoom queue={queue} />
            {cards(on)}
            {over.length > 0 && (
              <Text fontSize="12.5px" fontWeight="600" color="muted" mt={on.length > 0 ? 5 : 0} mb="1.5">
                Ended
              </Text>
            )}
            {cards(over)}
            {queue && renders.length === 0 && (
              <Text fontSize="13.5px" color="muted" lineHeight="1.6" maxW="480px">
                Nothing was rendered yet. Open a piece, choose Deliver, and press Render: the frames come here, from
                this machine and from all that are joined to it.
              </Text>
            )}
          </Box>
          <Box w={{ base: '100%', md: '320px' }} flexShrink={0}>
            <Machines viewer={viewer} workers={queue?.workers ?? []} />
            <LendSwitch />
          </Box>
        </Flex>
      </Box>
    </Box>
  );
}

/** Lends this browser for as long as the page is open. */
function LendSwitch() {
  const { on, drawn, trouble } = useLending();
  useEffect(() => () => stopLending(false), []);
  return (
    <Box as="section" bg="panel" borderWidth="1px" borderColor="line" borderRadius="12px" p="4" mt="4">
      <Flex align="center">
        <Text fontSize="14px" fontWeight="600" flex="1">
          Lend this browser
        </Text>
        <SwitchField label="Lend this browser" value={on} onChange={(value) => (value ? lend(true) : stopLending())} />
      </Flex>
      <Text
        fontSize="12.5px"
        color={trouble ? 'poppyText' : 'muted'}
        lineHeight="1.5"
        mt="1"
        role="status"
        data-testid="lending"
      >
        {trouble ??
          (on
            ? `Its graphics card draws quick light for whoever asks, ${drawn} ${drawn === 1 ? 'frame' : 'frames'} so far.`
            : 'Its graphics card then draws frames in quick light, while this page is open.')}
      </Text>
    </Box>
  );
}
