'use client';

import { Menu, Portal } from '@chakra-ui/react';
import type { ComponentProps } from 'react';

/** The content of an open menu, above everything else. */
export function MenuList(props: ComponentProps<typeof Menu.Content>) {
  return (
    <Portal>
      <Menu.Positioner>
        <Menu.Content
          bg="panel"
          borderWidth="1px"
          borderColor="line"
          boxShadow="float"
          borderRadius="10px"
          {...props}
        />
      </Menu.Positioner>
    </Portal>
  );
}
