'use client';

import { Box, chakra, Flex, Text } from '@chakra-ui/react';
import { useCallback, useEffect, useState } from 'react';
import type { Viewer } from '@/contract/person';
import type { WorkerSummary } from '@/contract/renders';
import { PlainButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { Given, type Handed } from '../people/given';
import { LineField } from '../people/line-field';
import { AskSure, sure } from '../people/sure';
import { everyone, makeKey, takeAway, type KeyRow } from '../people/people-api';

/** Workers, and the keys by which further machines join. */
export function Machines({ viewer, workers }: { viewer: Viewer; workers: readonly WorkerSummary[] }) {
  const own = viewer.person.role === 'own';
  const [keys, setKeys] = useState<readonly KeyRow[]>([]);
  const [name, setName] = useState('');
  const [handed, setHanded] = useState<Handed>();
  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
      setKeys((await everyone()).keys.filter((k) => k.role === 'run'));
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'That did not work.');
    }
  }, []);
  useEffect(() => {
    if (own) void attempt(async () => undefined);
  }, [attempt, own]);
  const make = () =>
    attempt(async () => {
      const key = await sure(() => makeKey(name.trim(), 'run'));
      if (key === undefined) return;
      setName('');
      setHanded({
        title: `Key of ${name.trim()}`,
        text: `./maypole work --server ${location.origin} --key ${key}`,
        help: 'Run this on the other machine, in a copy of Maypole of the same version. The key is shown only this once.',
      });
    });
  return (
    <Box as="section" bg="panel" borderWidth="1px" borderColor="line" borderRadius="12px" p="4">
      <Text as="h2" fontFamily="heading" fontSize="16px" fontWeight="700">
        Machines
      </Text>
      {workers.length === 0 && (
        <Text fontSize="12.5px" color="muted" lineHeight="1.5" mt="1">
          No machine is working now. This machine begins by itself when there is something to do.
        </Text>
      )}
      {workers.map((w) => (
        <Line
          key={w.id}
          name={w.name}
          detail={
            (w.other ? 'of another version of Maypole, so it is given nothing: bring it to the same one. ' : '') +
            `${w.light === 'true' ? 'true light' : 'quick light'}, ${w.threads} ` +
            `${w.threads === 1 ? 'thread' : 'threads'}${w.silent > 30 ? `, silent for ${Math.round(w.silent)} s` : ''}`
          }
          dot={w.other || w.silent > 30 ? 'marigold' : 'leaf'}
        />
      ))}
      {own && (
        <>
          <Text fontSize="12.5px" fontWeight="600" color="muted" mt="4" mb="1">
            Keys
          </Text>
          {keys.map((k) => (
            <Line
              key={k.id}
              name={k.name}
              detail={
                k.lastUsedAt
                  ? 'used ' +
                    `${new Date(k.lastUsedAt).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}`
                  : 'never used'
              }
            >
              <PlainButton
                size="xs"
                aria-label={`Withdraw the key ${k.name}`}
                onClick={() => void attempt(() => takeAway('keys', k.id))}
              >
                Withdraw
              </PlainButton>
            </Line>
          ))}
          <chakra.form
            mt="2"
            display="flex"
            alignItems="flex-end"
            gap="2"
            onSubmit={(e) => {
              e.preventDefault();
              void make();
            }}
          >
            <Box flex="1">
              <LineField label="Another machine" value={name} onValue={setName} maxLength={80} required />
            </Box>
            <PlainButton type="submit" h="34px">
              Make a key
            </PlainButton>
          </chakra.form>
        </>
      )}
      {handed && <Given handed={handed} onClose={() => setHanded(undefined)} />}
      <AskSure />
    </Box>
  );
}

function Line({
  name,
  detail,
  dot,
  children,
}: {
  name: string;
  detail: string;
  dot?: string;
  children?: React.ReactNode;
}) {
  return (
    <Flex align="center" gap="2.5" py="2" borderTopWidth="1px" borderColor="line" mt="2" _first={{ mt: 0 }}>
      {dot && <Box w="8px" h="8px" borderRadius="full" bg={dot} flexShrink={0} />}
      <Box flex="1" minW="0">
        <Text fontSize="13.5px" fontWeight="600" truncate>
          {name}
        </Text>
        <Text fontSize="12px" color="muted" truncate>
          {detail}
        </Text>
      </Box>
      {children}
    </Flex>
  );
}
