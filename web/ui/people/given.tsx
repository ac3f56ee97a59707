'use client';

import { chakra, Dialog, Portal, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { PlainButton, StrongButton } from '../parts/buttons';

/** A secret that is shown once. */
export interface Handed {
  readonly title: string;
  readonly text: string;
  readonly help: string;
}

/** Shows a link or a key to be copied. */
export function Given({ handed, onClose }: { handed: Handed; onClose: () => void }) {
  const [copied, setCopied] = useState(false);
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" borderRadius="14px" p="6" maxW="520px">
            <Dialog.Title fontFamily="heading" fontSize="19px">
              {handed.title}
            </Dialog.Title>
            <Text fontSize="13px" color="muted" mt="1" mb="3">
              {handed.help}
            </Text>
            <chakra.textarea
              aria-label={handed.title}
              readOnly
              rows={3}
              value={handed.text}
              onFocus={(e) => e.target.select()}
              w="100%"
              p="2.5"
              bg="field"
              color="ink"
              borderRadius="8px"
              fontFamily="mono"
              fontSize="12.5px"
              wordBreak="break-all"
              resize="none"
            />
            <chakra.div display="flex" justifyContent="flex-end" gap="2" mt="4">
              <PlainButton onClick={onClose}>Done</PlainButton>
              <StrongButton onClick={() => void navigator.clipboard.writeText(handed.text).then(() => setCopied(true))}>
                {copied ? 'Copied' : 'Copy'}
              </StrongButton>
            </chakra.div>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
