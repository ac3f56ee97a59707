'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useCallback, useEffect, useState, useRef } from 'react';
import { KEY_DAYS } from '@/contract/auth-figures';
import { ROLE_WORDS, ROLES, type Person, type Role } from '@/contract/person';
import type { RoomUsed } from '@/contract/room';
import { SelectField } from '../fields/select-field';
import { PlainButton } from '../parts/buttons';
import { PageHead } from '../parts/page-head';
import { tellTrouble } from '../parts/toasts';
import { Given, type Handed } from './given';
import { LineField } from './line-field';
import { everyone, invite, makeKey, setRole, takeAway, type Everyone } from './people-api';
import { RoomBar } from './room-bar';
import { Row, Section } from './section';
import { AskSure, sure } from './sure';
import { Trail } from './trail';

const roles = (which: readonly Role[]) => which.map((r) => ({ value: r, title: ROLE_WORDS[r].title }));
const daysWords = (days: number) => (days < 365 ? `${days} days` : days === 365 ? 'a year' : `${days / 365} years`);
const day = (text: string) =>
  new Date(text).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** Accounts, worker keys, used storage, and the audit log. */
export function PeoplePage({ me, room }: { me: Person; room: RoomUsed }) {
  const [all, setAll] = useState<Everyone>();
  const [handed, setHanded] = useState<Handed>();
  const asked = useRef(0);
  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
      // Answers may come in another order; only the last one asked for knows of every action.
      const own = ++asked.current;
      const now = await everyone();
      if (own === asked.current) setAll(now);
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
        <PageHead title="People" space="6" />
        <WhoMayComeIn all={all} me={me} attempt={attempt} onHanded={setHanded} />
        <Keys all={all} attempt={attempt} onHanded={setHanded} />
        <Section title="Room">
          <RoomBar room={all?.room ?? room} />
        </Section>
        <Section title="What was done" help="Kept for 180 days.">
          <Trail after={all} />
        </Section>
      </Box>
      {handed && <Given handed={handed} onClose={() => setHanded(undefined)} />}
      <AskSure />
    </Box>
  );
}

interface SectionProps {
  readonly all: Everyone | undefined;
  /** Does something, tells what is wrong, and shows everybody anew. */
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>;
  readonly onHanded: (handed: Handed) => void;
}

function WhoMayComeIn({ all, me, attempt, onHanded }: SectionProps & { readonly me: Person }) {
  return (
    <Section title="Who may come in" help={ROLES.map((r) => `${ROLE_WORDS[r].title}: ${ROLE_WORDS[r].help}`).join(' ')}>
      {all?.people.map((p) => (
        <Row key={p.id} name={p.name} detail={`${p.email}, since ${day(p.createdAt)}`}>
          <Box w="110px">
            <SelectField
              label={`Role of ${p.name}`}
              value={p.role}
              options={roles(ROLES)}
              onChange={(role) => void attempt(() => sure(() => setRole(p.id, role as Role)))}
            />
          </Box>
          <PlainButton
            size="xs"
            disabled={p.id === me.id}
            aria-label={`Remove ${p.name}`}
            onClick={() => void attempt(() => sure(() => takeAway('person', p.id)))}
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
            const token = await sure(() => invite(role, note));
            if (token === undefined) return;
            onHanded({
              title: `Link for ${note || 'whom you invite'}`,
              text: `${location.origin}/enter?invite=${token}`,
              help: 'Send it to them. It works once, for seven days, and is shown only now.',
            });
          })
        }
      />
    </Section>
  );
}

function Keys({ all, attempt, onHanded }: SectionProps) {
  return (
    <Section
      title="Keys of machines"
      help="A machine shows its key in place of signing in. A withdrawn key, and one whose time is over, opens nothing."
    >
      {all?.keys.map((k) => (
        <Row
          key={k.id}
          name={k.name}
          detail={
            `${ROLE_WORDS[k.role].title}, made ${day(k.createdAt)}, opens until ${day(k.endsAt)}, ` +
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
        lasting
        onAdd={(name, role, days) =>
          attempt(async () => {
            const key = await sure(() => makeKey(name, role, days));
            if (key === undefined) return;
            onHanded({
              title: `Key of ${name}`,
              text: key,
              help: `Take it now: it is shown only this once. It opens until ${day(new Date(Date.now() + days * 86_400_000).toISOString())}.`,
            });
          })
        }
      />
    </Section>
  );
}

function Adding({
  label,
  button,
  choices,
  start,
  needed = false,
  lasting = false,
  onAdd,
}: {
  label: string;
  button: string;
  choices: readonly Role[];
  start: Role;
  needed?: boolean;
  /** Whether its expiry is chosen. */
  lasting?: boolean;
  onAdd: (words: string, role: Role, days: number) => Promise<void>;
}) {
  const [words, setWords] = useState('');
  const [role, setRole] = useState(start);
  const [days, setDays] = useState<number>(KEY_DAYS.usual);
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
        void onAdd(words.trim(), role, days).then(() => setWords(''));
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
      {lasting && (
        <Box w="120px" pb="5px">
          <SelectField
            label="How long it opens"
            value={`${days}`}
            options={KEY_DAYS.offered.map((d) => ({ value: `${d}`, title: daysWords(d) }))}
            onChange={(d) => setDays(Number(d))}
          />
        </Box>
      )}
      <PlainButton type="submit" h="34px">
        {button}
      </PlainButton>
    </chakra.form>
  );
}
