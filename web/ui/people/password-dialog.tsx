'use client';

import { chakra, Dialog, Portal, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { PASSWORD } from '@/server/people/auth-figures';
import { PlainButton, StrongButton } from '../parts/buttons';
import { tell } from '../parts/toasts';
import { LineField } from './line-field';
import { changePassword } from './people-api';

/** Another password for oneself. */
export function PasswordDialog({ onClose }: { onClose: () => void }) {
  const [present, setPresent] = useState('');
  const [next, setNext] = useState('');
  const [trouble, setTrouble] = useState('');
  const change = () =>
    changePassword(present, next).then(
      () => {
        tell('Your password is changed. Other browsers are signed out.');
        onClose();
      },
      (error: Error) => setTrouble(error.message),
    );
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" borderRadius="14px" p="6" maxW="380px">
            <Dialog.Title fontFamily="heading" fontSize="19px" mb="4">
              Change your password
            </Dialog.Title>
            <chakra.form
              display="flex"
              flexDirection="column"
              gap="4"
              onSubmit={(e) => {
                e.preventDefault();
                void change();
              }}
            >
              <LineField
                label="Current password"
                type="password"
                autoComplete="current-password"
                required
                value={present}
                onValue={setPresent}
              />
              <LineField
                label="New password"
                help={`At least ${PASSWORD.least} letters; a few words are good.`}
                type="password"
                autoComplete="new-password"
                required
                minLength={PASSWORD.least}
                maxLength={PASSWORD.most}
                value={next}
                onValue={setNext}
              />
              <Text role="alert" color="poppyText" fontSize="13px" hidden={!trouble}>
                {trouble}
              </Text>
              <chakra.div display="flex" justifyContent="flex-end" gap="2">
                <PlainButton onClick={onClose}>Cancel</PlainButton>
                <StrongButton type="submit">Change</StrongButton>
              </chakra.div>
            </chakra.form>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
