'use client';

import { Box, Text } from '@chakra-ui/react';
import { ROLE_WORDS, type Person } from '@/contract/person';
import { PageHead } from '../parts/page-head';
import { AskSure } from './sure';
import { OwnPassword } from './own-password';
import { OwnSessions } from './own-sessions';
import { SecondFactor } from './second-factor';
import { Section } from './section';

/** One's own account: password, second factor, and sessions. */
export function AccountPage({ me }: { me: Person }) {
  return (
    <Box minH="100vh" bg="paper">
      <Box maxW="720px" mx="auto" px="6" py="8">
        <PageHead title={me.name} space="0" />
        <Text color="muted" fontSize="13.5px" mb="6">
          {ROLE_WORDS[me.role].title}: {ROLE_WORDS[me.role].help}
        </Text>
        <Section title="Password" help="Changing it signs you out in all other browsers.">
          <OwnPassword />
        </Section>
        <Section
          title="Codes at signing in"
          help={
            'After your password a code is asked for that a device of yours shows, so that a password alone opens ' +
            `nothing.${me.role === 'own' ? ' An owner can open everything here: turn this on.' : ''}`
          }
        >
          <SecondFactor />
        </Section>
        <Section title="Where you are signed in">
          <OwnSessions />
        </Section>
      </Box>
      <AskSure />
    </Box>
  );
}
