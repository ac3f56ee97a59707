'use client';

import { chakra, Dialog, Portal, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { PlainButton, StrongButton } from '../parts/buttons';
import { LineField } from './line-field';

/** Asks for the present password for one action; stays open, with the reason, if it is wrong. */
export function PasswordAsked({
  title,
  help,
  button,
  onGiven,
  onClose,
}: {
  title: string;
  help: string;
  button: string;
  onGiven: (password: string) => Promise<void>;
  onClose: () => void;
}) {
  const [password, setPassword] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const go = () => {
    setBusy(true);
    setTrouble('');
    onGiven(password)
      .catch((error: Error) => setTrouble(error.message))
      .finally(() => setBusy(false));
  };
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" borderRadius="14px" p="6" maxW="380px">
            <Dialog.Title fontFamily="heading" fontSize="19px">
              {title}
            </Dialog.Title>
            <Text fontSize="13px" color="muted" lineHeight="1.5" mt="1" mb="4">
              {help}
            </Text>
            <chakra.form
              display="flex"
              flexDirection="column"
              gap="4"
              onSubmit={(e) => {
                e.preventDefault();
                go();
              }}
            >
              <LineField
                label="Current password"
                type="password"
                autoComplete="current-password"
                required
                autoFocus
                value={password}
                onValue={setPassword}
              />
              <Text role="alert" color="poppyText" fontSize="13px" hidden={!trouble}>
                {trouble}
              </Text>
              <chakra.div display="flex" justifyContent="flex-end" gap="2">
                <PlainButton onClick={onClose}>Cancel</PlainButton>
                <StrongButton type="submit" loading={busy}>
                  {button}
                </StrongButton>
              </chakra.div>
            </chakra.form>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
