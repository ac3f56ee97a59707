'use client';

import { CloseButton, Dialog, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  /** A sentence under the title. */
  readonly note?: string;
  readonly width?: string;
  readonly children: ReactNode;
}

/** A wide dialog: title, a note, and scrolling content. */
export function WideDialog({ title, open, onClose, note, width = '1000px', children }: Props) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(d) => !d.open && onClose()}
      motionPreset="none"
      placement="center"
      scrollBehavior="inside"
      lazyMount
      unmountOnExit
    >
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content
            maxW={width}
            w="calc(100vw - 48px)"
            maxH="calc(100vh - 64px)"
            bg="panel"
            color="ink"
            borderRadius="14px"
            borderWidth="1px"
            borderColor="line"
          >
            <Dialog.Header display="block" px="6" pt="5" pb="3">
              <Dialog.Title fontFamily="heading" fontSize="21px" fontWeight="700">
                {title}
              </Dialog.Title>
              {note && (
                <Dialog.Description color="muted" fontSize="13.5px" mt="1">
                  {note}
                </Dialog.Description>
              )}
            </Dialog.Header>
            <Dialog.CloseTrigger asChild top="4" insetEnd="4">
              <CloseButton size="sm" aria-label="Close" color="ink" _hover={{ bg: 'field' }} />
            </Dialog.CloseTrigger>
            <Dialog.Body px="6" pb="6" overflowY="auto">
              {children}
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
