'use client';

import { Box, chakra, Flex, Heading, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { PASSWORD } from '@/contract/auth-figures';
import { RequestTrouble } from '../api';
import { StrongButton } from '../parts/buttons';
import { Logo } from '../parts/logo';
import { LineField } from './line-field';
import { accept, enter, enterCode } from './people-api';

/** Signs in, or creates an account from an invitation. */
export function EnterPage({ invite, to }: { invite?: string; to: string }) {
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [second, setSecond] = useState(false);
  const [code, setCode] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const go = async () => {
    setBusy(true);
    setTrouble('');
    try {
      if (invite && !second) await accept({ token: invite, name, email, password });
      if (second) await enterCode(code);
      else if (await enter(email, password)) {
        setSecond(true);
        setBusy(false);
        return;
      }
      // A full load, so that nothing of an earlier session stays in the page.
      location.assign(to);
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : 'That did not work.');
      // Too late, or too many attempts: begin again with the password.
      if (error instanceof RequestTrouble && error.status === 410) setSecond(false);
      setCode('');
      setBusy(false);
    }
  };
  return (
    <Flex minH="100vh" align="center" justify="center" bg="paper" p="6">
      <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="14px" p="8" w="400px" boxShadow="float">
        <Logo />
        <Heading as="h1" fontFamily="heading" fontSize="22px" mt="4" mb="1">
          {second ? 'And a code' : invite ? 'You are invited' : 'Sign in'}
        </Heading>
        <Text color="muted" fontSize="13.5px" lineHeight="1.5" mb="5">
          {second
            ? 'Your account asks for one after the password.'
            : invite
              ? 'Make your account, and you are in. This link works once.'
              : 'Without an account you need an invitation from the owner.'}
        </Text>
        <chakra.form
          display="flex"
          flexDirection="column"
          gap="4"
          onSubmit={(e) => {
            e.preventDefault();
            void go();
          }}
        >
          {second ? (
            <LineField
              key="code"
              label="Code"
              help="The one that your device shows now, or one of those on paper."
              autoComplete="one-time-code"
              required
              autoFocus
              maxLength={20}
              value={code}
              onValue={setCode}
            />
          ) : (
            <>
              {invite && (
                <LineField
                  label="Name"
                  help="As the others see it."
                  autoComplete="name"
                  required
                  maxLength={80}
                  value={name}
                  onValue={setName}
                />
              )}
              <LineField
                label="E-mail"
                type="email"
                autoComplete="username"
                required
                maxLength={200}
                value={email}
                onValue={setEmail}
              />
              <LineField
                label="Password"
                help={invite ? `At least ${PASSWORD.least} letters; a few words are good.` : undefined}
                type="password"
                autoComplete={invite ? 'new-password' : 'current-password'}
                required
                minLength={invite ? PASSWORD.least : undefined}
                maxLength={PASSWORD.most}
                value={password}
                onValue={setPassword}
              />
            </>
          )}
          <Text role="alert" color="poppyText" fontSize="13px" lineHeight="1.45" hidden={!trouble}>
            {trouble}
          </Text>
          <StrongButton type="submit" loading={busy} h="36px">
            {invite && !second ? 'Make my account' : 'Sign in'}
          </StrongButton>
        </chakra.form>
      </Box>
    </Flex>
  );
}
