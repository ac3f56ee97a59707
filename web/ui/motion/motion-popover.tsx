'use client';

import { Popover, Portal } from '@chakra-ui/react';
import { useId, useLayoutEffect, useRef, type ReactNode, type Ref } from 'react';
import { focusAfterClosing } from '../parts/focus-after';
import { useEditor } from '../state/store';

/** Props of the button that opens the popover. */
export interface TriggerProps {
  readonly id: string;
  readonly ref: Ref<HTMLButtonElement>;
  readonly 'aria-haspopup': 'dialog';
  readonly 'aria-expanded': boolean;
}

/**
 * What hangs beside a value and says how it moves. There may be a hundred values, so that all but the
 * button is made only where it is open.
 */
export function MotionPopover({
  label,
  open,
  trigger,
  children,
}: {
  label: string;
  open: boolean;
  trigger: (props: TriggerProps) => ReactNode;
  children: () => ReactNode;
}) {
  const id = useId();
  const button = useRef<HTMLButtonElement>(null);
  return (
    <>
      {trigger({ id, ref: button, 'aria-haspopup': 'dialog', 'aria-expanded': open })}
      {open && (
        <OpenPopover label={label} trigger={id} giveBack={() => button.current?.focus({ preventScroll: true })}>
          {children()}
        </OpenPopover>
      )}
    </>
  );
}

function OpenPopover({
  label,
  trigger,
  giveBack,
  children,
}: {
  label: string;
  trigger: string;
  giveBack: () => void;
  children: ReactNode;
}) {
  const back = useRef(giveBack);
  // Immediately, so that the next keys are not lost; never taken from what has the focus by then.
  useLayoutEffect(() => {
    const give = back.current;
    return () => {
      if (focusAfterClosing() === null) give();
    };
  }, []);
  return (
    <Popover.Root
      open
      ids={{ trigger }}
      finalFocusEl={focusAfterClosing}
      onOpenChange={(d) => !d.open && useEditor.setState({ motionOf: null, preview: null })}
      positioning={{ placement: 'right-start', gutter: 10, strategy: 'fixed', overflowPadding: 8 }}
      autoFocus={false}
    >
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
