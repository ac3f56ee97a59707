'use client';

import { chakra, Flex, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { PASSWORD } from '@/contract/auth-figures';
import { PlainButton } from '../parts/buttons';
import { tell } from '../parts/toasts';
import { LineField } from './line-field';
import { changePassword } from './people-api';

/** Changes one's password. */
export function OwnPassword() {
  const [present, setPresent] = useState('');
  const [next, setNext] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const change = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await changePassword(present, next);
      tell('Your password is changed. Other browsers are signed out.');
      setPresent('');
      setNext('');
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : 'That did not work.');
    }
    setBusy(false);
  };
  return (
    <chakra.form
      onSubmit={(e) => {
        e.preventDefault();
        void change();
      }}
    >
      <Flex gap="3" align="flex-start">
        <chakra.div flex="1">
          <LineField
            label="Current password"
            type="password"
            autoComplete="current-password"
            required
            value={present}
            onValue={setPresent}
          />
        </chakra.div>
        <chakra.div flex="1">
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
        </chakra.div>
        <PlainButton type="submit" h="34px" mt="24px" loading={busy}>
          Change
        </PlainButton>
      </Flex>
      <Text role="alert" color="poppyText" fontSize="13px" mt="2" hidden={!trouble}>
        {trouble}
      </Text>
    </chakra.form>
  );
}
