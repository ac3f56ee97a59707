'use client';

import { Box, Flex, Menu, Text } from '@chakra-ui/react';
import { outputs } from '@maypole/core/output/index';
import { OUTPUT_GROUPS } from '@maypole/core/output/kind';
import { Plus } from 'lucide-react';
import { PlainButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { MenuList } from '../parts/menu-list';
import { addOutput } from './edit-outputs';

/** All output formats, by purpose. */
export function AddOutput() {
  return (
    <Menu.Root onSelect={({ value }) => addOutput(value)} positioning={{ placement: 'bottom-start' }}>
      <Menu.Trigger asChild>
        <PlainButton size="xs" data-opens="add-output">
          <Plus size={14} /> Add output
        </PlainButton>
      </Menu.Trigger>
      <MenuList maxH="min(560px, 70vh)" overflowY="auto" w="340px">
        {OUTPUT_GROUPS.map((group) => (
          <Menu.ItemGroup key={group.value}>
            <Menu.ItemGroupLabel fontSize="11.5px" color="muted" fontWeight="600">
              {group.title}
            </Menu.ItemGroupLabel>
            {outputs.all
              .filter((o) => o.group === group.value)
              .map((o) => (
                <Menu.Item key={o.kind} value={o.kind} py="1" cursor="pointer">
                  <Flex align="center" gap="2.5" minW="0">
                    <Box flexShrink={0}>
                      <DeclaredIcon name={o.icon} size={15} />
                    </Box>
                    <Text fontSize="13px" fontWeight="500" whiteSpace="nowrap">
                      {o.title}
                    </Text>
                    <Box fontSize="12px" color="muted" truncate>
                      {o.help}
                    </Box>
                  </Flex>
                </Menu.Item>
              ))}
          </Menu.ItemGroup>
        ))}
      </MenuList>
    </Menu.Root>
  );
}
