'use client';

import { Flex, Text } from '@chakra-ui/react';
import { useCallback, useEffect, useState } from 'react';
import { PlainButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { browserWords } from './browser-words';
import { leaveElsewhere, ownSessions, type SessionRow } from './people-api';
import { Row } from './section';

const moment = (text: string) =>
  new Date(text).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** One's sessions, each of which can be ended. */
export function OwnSessions() {
  const [all, setAll] = useState<readonly SessionRow[]>();
  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
      setAll(await ownSessions());
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'That did not work.');
    }
  }, []);
  useEffect(() => {
    void attempt(async () => undefined);
  }, [attempt]);
  if (!all) return <Text color="muted">…</Text>;
  return (
    <>
      {all.map((s) => (
        <Row
          key={s.id}
          name={s.here ? `${browserWords(s.agent)} (this browser)` : browserWords(s.agent)}
          detail={`${s.client ?? 'From an unknown address'}, since ${moment(s.since)}${s.here ? '' : `, last used ${moment(s.seenAt)}`}`}
        >
          {!s.here && (
            <PlainButton
              size="xs"
              aria-label={`Sign out there: ${browserWords(s.agent)}, ${s.client ?? ''}`}
              onClick={() => void attempt(() => leaveElsewhere(s.id))}
            >
              Sign out there
            </PlainButton>
          )}
        </Row>
      ))}
      {all.length > 2 && (
        <Flex justify="flex-end" pt="3" borderTopWidth="1px" borderColor="line">
          <PlainButton size="xs" onClick={() => void attempt(() => leaveElsewhere())}>
            Sign out everywhere else
          </PlainButton>
        </Flex>
      )}
    </>
  );
}
