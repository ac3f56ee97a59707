'use client';

import { Box, Flex, Toast, Toaster as ChakraToaster, createToaster } from '@chakra-ui/react';
import { CircleAlert, CircleCheck } from 'lucide-react';

/** Short messages at the foot of the page. */
export const toaster = createToaster({ placement: 'bottom', pauseOnPageIdle: true, max: 3, offsets: '20px' });

export function tell(title: string, action?: { label: string; onClick: () => void }): void {
  toaster.create({ title, type: 'success', duration: action ? 8000 : 4000, action });
}

export function tellTrouble(title: string): void {
  toaster.create({ title, type: 'error', duration: 9000, closable: true });
}

export function Toasts() {
  return (
    <ChakraToaster toaster={toaster}>
      {(toast) => (
        <Toast.Root
          bg="ink"
          color="inverse"
          borderRadius="card"
          boxShadow="float"
          width="auto"
          maxW="560px"
          py="2.5"
          px="4"
        >
          <Flex align="center" gap="3">
            <Box color={toast.type === 'error' ? 'poppy' : 'leaf'} flexShrink={0}>
              {toast.type === 'error' ? <CircleAlert size={18} /> : <CircleCheck size={18} />}
            </Box>
            <Toast.Title fontWeight="500">{toast.title}</Toast.Title>
            {toast.action && (
              <Toast.ActionTrigger
                color="inverse"
                fontWeight="700"
                bg="transparent"
                border="0"
                textDecoration="underline"
                textUnderlineOffset="3px"
              >
                {toast.action.label}
              </Toast.ActionTrigger>
            )}
            {toast.closable && <Toast.CloseTrigger position="static" color="inverse" />}
          </Flex>
        </Toast.Root>
      )}
    </ChakraToaster>
  );
}
