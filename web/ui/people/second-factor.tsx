'use client';

import { Flex, Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { PlainButton } from '../parts/buttons';
import { tell, tellTrouble } from '../parts/toasts';
import { Given } from './given';
import { PasswordAsked } from './password-asked';
import { beginSecond, endSecond, hasSecond, newPaperCodes, type SecondBegun } from './people-api';
import { SecondSetup } from './second-setup';

type Doing = 'begin' | 'end' | 'codes';
const ASKED: Readonly<Record<Doing, { title: string; help: string; button: string }>> = {
  begin: { title: 'Ask for codes', help: 'Your password first; then your device is set up.', button: 'Go on' },
  end: {
    title: 'Ask for codes no longer',
    help: 'From then on your password alone opens your account. The codes on paper are void.',
    button: 'Turn off',
  },
  codes: { title: 'New codes for paper', help: 'Those that you have on paper are void from then on.', button: 'Go on' },
};
const PAPER = 'Keep them where your device is not. Each works once, in place of a code. They are shown only now.';

/** The second factor: switched on with an authenticator and recovery codes, and off. */
export function SecondFactor() {
  const [on, setOn] = useState<boolean>();
  const [doing, setDoing] = useState<Doing>();
  const [begun, setBegun] = useState<SecondBegun>();
  const [paper, setPaper] = useState<readonly string[]>();
  useEffect(() => {
    hasSecond().then(setOn, (error: Error) => tellTrouble(error.message));
  }, []);
  const given = async (password: string) => {
    if (doing === 'begin') setBegun(await beginSecond(password));
    else if (doing === 'codes') setPaper(await newPaperCodes(password));
    else {
      await endSecond(password);
      setOn(false);
      tell('No codes are asked for any more.');
    }
    setDoing(undefined);
  };
  if (on === undefined) return <Text color="muted">…</Text>;
  return (
    <>
      <Flex align="center" gap="3">
        <Text flex="1" fontSize="14px" fontWeight="600">
          {on ? 'Codes are asked for.' : 'No codes are asked for.'}
        </Text>
        {on && (
          <PlainButton size="xs" onClick={() => setDoing('codes')}>
            New codes for paper
          </PlainButton>
        )}
        <PlainButton size="xs" onClick={() => setDoing(on ? 'end' : 'begin')}>
          {on ? 'Turn off' : 'Turn on'}
        </PlainButton>
      </Flex>
      {doing && <PasswordAsked {...ASKED[doing]} onGiven={given} onClose={() => setDoing(undefined)} />}
      {begun && (
        <SecondSetup
          uri={begun.uri}
          onDone={() => {
            setOn(true);
            setPaper(begun.codes);
            setBegun(undefined);
          }}
          onClose={() => setBegun(undefined)}
        />
      )}
      {paper && (
        <Given
          handed={{ title: 'Codes for paper', text: paper.join('  '), help: PAPER }}
          onClose={() => setPaper(undefined)}
        />
      )}
    </>
  );
}
