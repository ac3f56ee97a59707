'use client';

import { Box, chakra, Dialog, Flex, Portal, QrCode, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { PlainButton, StrongButton } from '../parts/buttons';
import { LineField } from './line-field';
import { confirmSecond } from './people-api';

/** The secret of a Key URI, in groups of four for typing. */
const secretOf = (uri: string) => (new URL(uri).searchParams.get('secret') ?? '').replace(/(.{4})(?=.)/g, '$1 ');

/** Sets an authenticator up: shows the secret, and takes the first code. */
export function SecondSetup({ uri, onDone, onClose }: { uri: string; onDone: () => void; onClose: () => void }) {
  const [code, setCode] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const go = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await confirmSecond(code);
      onDone();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : 'That did not work.');
      setBusy(false);
    }
  };
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" borderRadius="14px" p="6" maxW="520px">
            <Dialog.Title fontFamily="heading" fontSize="19px" mb="4">
              Set your device up
            </Dialog.Title>
            <Flex gap="5">
              {/** Dark on light in dusk mode too: many scanners need it. */}
              <Box bg="white" p="3" borderRadius="8px" flexShrink="0" h="fit-content">
                <QrCode.Root value={uri} size="md" color="black">
                  <QrCode.Frame>
                    <QrCode.Pattern />
                  </QrCode.Frame>
                </QrCode.Root>
              </Box>
              <Box minW="0">
                <Text fontSize="13px" lineHeight="1.5">
                  Show this picture to the program for codes on your device, or type its secret there:
                </Text>
                <Text fontFamily="mono" fontSize="12.5px" mt="2" mb="4" data-testid="secret" wordBreak="break-word">
                  {secretOf(uri)}
                </Text>
                <chakra.form
                  onSubmit={(e) => {
                    e.preventDefault();
                    void go();
                  }}
                >
                  <LineField
                    label="The code it shows"
                    inputMode="numeric"
                    autoComplete="one-time-code"
                    required
                    maxLength={10}
                    value={code}
                    onValue={setCode}
                  />
                  <Text role="alert" color="poppyText" fontSize="13px" mt="2" hidden={!trouble}>
                    {trouble}
                  </Text>
                  <Flex justify="flex-end" gap="2" mt="4">
                    <PlainButton onClick={onClose}>Cancel</PlainButton>
                    <StrongButton type="submit" loading={busy}>
                      Turn on
                    </StrongButton>
                  </Flex>
                </chakra.form>
              </Box>
            </Flex>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
