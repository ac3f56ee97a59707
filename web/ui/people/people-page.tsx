'use client';

import { Box, chakra, Flex, Heading, Link, Text } from '@chakra-ui/react';
import { useCallback, useEffect, useState, type ReactNode } from 'react';
import { ROLE_WORDS, ROLES, type Person, type Role } from '@/server/people/person';
import type { RoomUsed } from '@/server/room';
import { SelectField } from '../fields/select-field';
import { PlainButton } from '../parts/buttons';
import { ModeButton } from '../parts/mode-button';
import { tellTrouble } from '../parts/toasts';
import { Given, type Handed } from './given';
import { LineField } from './line-field';
import { everyone, invite, makeKey, setRole, takeAway, type Everyone } from './people-api';
import { RoomBar } from './room-bar';
import { Trail } from './trail';

const roles = (which: readonly Role[]) => which.map((r) => ({ value: r, title: ROLE_WORDS[r].title }));
const day = (text: string) =>
  new Date(text).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** Who may come in, by which keys machines do, how much room is used, and what was done. */
export function PeoplePage({ me, room }: { me: Person; room: RoomUsed }) {
  const [all, setAll] = useState<Everyone>();
  const [handed, setHanded] = useState<Handed>();
  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
      setAll(await everyone());
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'That did not work.');
    }
  }, []);
  useEffect(() => {
    void attempt(async () => undefined);
  }, [attempt]);

  return (
    <Box minH="100vh" bg="paper">
      <Box maxW="860px" mx="auto" px="6" py="8">
        <Flex align="center">
          <Link href="/" color="ink">
            All pieces
          </Link>
          <Box flex="1" />
          <ModeButton />
        </Flex>
        <Heading as="h1" fontFamily="heading" fontSize="28px" mt="3" mb="6">
          People
        </Heading>
        <Section
          title="Who may come in"
          help={ROLES.map((r) => `${ROLE_WORDS[r].title}: ${ROLE_WORDS[r].help}`).join(' ')}
        >
          {all?.people.map((p) => (
            <Row key={p.id} name={p.name} detail={`${p.email}, since ${day(p.createdAt)}`}>
              <Box w="110px">
                <SelectField
                  label={`Role of ${p.name}`}
                  value={p.role}
                  options={roles(ROLES)}
                  onChange={(role) => void attempt(() => setRole(p.id, role as Role))}
                />
              </Box>
              <PlainButton
                size="xs"
                disabled={p.id === me.id}
                aria-label={`Remove ${p.name}`}
                onClick={() => void attempt(() => takeAway('person', p.id))}
              >
                Remove
              </PlainButton>
            </Row>
          ))}
          {all?.invites.map((i) => (
            <Row
              key={i.id}
              name={i.note || 'Invited'}
              detail={`${ROLE_WORDS[i.role].title}; not used yet, good until ${day(i.expiresAt)}`}
              faint
            >
              <PlainButton
                size="xs"
                aria-label={`Withdraw the invitation for ${i.note || 'somebody'}`}
                onClick={() => void attempt(() => takeAway('invites', i.id))}
              >
                Withdraw
              </PlainButton>
            </Row>
          ))}
          <Adding
            label="For whom"
            button="Invite by a link"
            choices={ROLES}
            start="edit"
            onAdd={(note, role) =>
              attempt(async () => {
                const token = await invite(role, note);
                setHanded({
                  title: `Link for ${note || 'whom you invite'}`,
                  text: `${location.origin}/enter?invite=${token}`,
                  help: 'Send it to them. It works once, for seven days, and is shown only now.',
                });
              })
            }
          />
        </Section>
        <Section
          title="Keys of machines"
          help="A machine shows its key in place of signing in. A withdrawn key opens nothing from then on."
        >
          {all?.keys.map((k) => (
            <Row
              key={k.id}
              name={k.name}
              detail={
                `${ROLE_WORDS[k.role].title}, made ${day(k.createdAt)}, ` +
                `${k.lastUsedAt ? `last used ${day(k.lastUsedAt)}` : 'never used'}`
              }
            >
              <PlainButton
                size="xs"
                aria-label={`Withdraw the key ${k.name}`}
                onClick={() => void attempt(() => takeAway('keys', k.id))}
              >
                Withdraw
              </PlainButton>
            </Row>
          ))}
          <Adding
            label="Which machine"
            button="Make a key"
            choices={['look', 'edit', 'run']}
            start="run"
            needed
            onAdd={(name, role) =>
              attempt(async () =>
                setHanded({
                  title: `Key of ${name}`,
                  text: await makeKey(name, role),
                  help: 'Take it now: it is shown only this once.',
                }),
              )
            }
          />
        </Section>
        <Section title="Room">
          <RoomBar room={all?.room ?? room} />
        </Section>
        <Section title="What was done" help="Kept for 180 days.">
          <Trail after={all} />
        </Section>
      </Box>
      {handed && <Given handed={handed} onClose={() => setHanded(undefined)} />}
    </Box>
  );
}

function Section({ title, help, children }: { title: string; help?: string; children: ReactNode }) {
  return (
    <Box as="section" bg="panel" borderWidth="1px" borderColor="line" borderRadius="12px" p="5" mb="5">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        {title}
      </Heading>
      {help && (
        <Text fontSize="12.5px" color="muted" lineHeight="1.5" mt="1">
          {help}
        </Text>
      )}
      <Box mt="3">{children}</Box>
    </Box>
  );
}

function Row({
  name,
  detail,
  faint,
  children,
}: {
  name: string;
  detail: string;
  faint?: boolean;
  children: ReactNode;
}) {
  return (
    <Flex align="center" gap="3" py="2" borderTopWidth="1px" borderColor="line">
      <Box flex="1" minW="0">
        <Text fontSize="14px" fontWeight="600" color={faint ? 'muted' : 'ink'} truncate>
          {name}
        </Text>
        <Text fontSize="12.5px" color="muted" truncate>
          {detail}
        </Text>
      </Box>
      {children}
    </Flex>
  );
}

function Adding({
  label,
  button,
  choices,
  start,
  needed = false,
  onAdd,
}: {
  label: string;
  button: string;
  choices: readonly Role[];
  start: Role;
  needed?: boolean;
  onAdd: (words: string, role: Role) => Promise<void>;
}) {
  const [words, setWords] = useState('');
  const [role, setRole] = useState(start);
  return (
    <chakra.form
      display="flex"
      alignItems="flex-end"
      gap="3"
      pt="3"
      borderTopWidth="1px"
      borderColor="line"
      onSubmit={(e) => {
        e.preventDefault();
        void onAdd(words.trim(), role).then(() => setWords(''));
      }}
    >
      <Box flex="1">
        <LineField label={label} value={words} onValue={setWords} maxLength={80} required={needed} />
      </Box>
      <Box w="110px" pb="5px">
        <SelectField
          label={`Role: ${button}`}
          value={role}
          options={roles(choices)}
          onChange={(r) => setRole(r as Role)}
        />
      </Box>
      <PlainButton type="submit" h="34px">
        {button}
      </PlainButton>
    </chakra.form>
  );
}
