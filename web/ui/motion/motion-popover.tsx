'use client';

import { Popover, Portal } from '@chakra-ui/react';
import { useRef, type ReactNode } from 'react';
import { focusAfterClosing } from '../parts/focus-after';
import { useEditor } from '../state/store';

/** What hangs beside a value and says how it moves. */
export function MotionPopover({
  label,
  open,
  trigger,
  children,
}: {
  label: string;
  open: boolean;
  trigger: ReactNode;
  children: ReactNode;
}) {
  const button = useRef<HTMLButtonElement>(null);
  return (
    <Popover.Root
      finalFocusEl={focusAfterClosing}
      open={open}
      onOpenChange={(d) => !d.open && useEditor.setState({ motionOf: null, preview: null })}
      positioning={{ placement: 'right-start', gutter: 10, strategy: 'fixed', overflowPadding: 8 }}
      // At once, so that the keys that follow are not lost on the way back.
      onEscapeKeyDown={() => queueMicrotask(() => button.current?.focus())}
      lazyMount
      unmountOnExit
      autoFocus={false}
    >
      <Popover.Trigger asChild ref={button}>
        {trigger}
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            width="328px"
            maxH="min(640px, calc(100vh - 24px))"
            overflowY="auto"
            bg="panel"
            borderRadius="12px"
            borderWidth="1px"
            borderColor="line"
            boxShadow="float"
            aria-label={`Motion of ${label}`}
          >
            <Popover.Body p="3.5">{children}</Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
