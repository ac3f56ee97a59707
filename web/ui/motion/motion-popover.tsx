'use client';

import { Popover, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { useEditor } from '../state/store';

/** What hangs beside a value and says how it moves. */
export function MotionPopover({ label, open, trigger, children }: { label: string; open: boolean; trigger: ReactNode; children: ReactNode }) {
  return (
    <Popover.Root
      open={open}
      onOpenChange={(d) => !d.open && useEditor.setState({ motionOf: null, preview: null })}
      positioning={{ placement: 'right-start', gutter: 10, strategy: 'fixed', overflowPadding: 8 }}
      lazyMount
      unmountOnExit
      autoFocus={false}
    >
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="328px" maxH="min(640px, calc(100vh - 24px))" overflowY="auto" bg="panel" borderRadius="12px" borderWidth="1px" borderColor="line" boxShadow="float" aria-label={`Motion of ${label}`}>
            <Popover.Body p="3.5">{children}</Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
