'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import { RequestTrouble } from '../api';
import { PasswordAsked } from './password-asked';
import { giveAgain } from './people-api';

/** What the server answers where the password is wanted once more. */
const WANTED = 428;

const useAsked = create<{ readonly answer: ((given: boolean) => void) | null }>(() => ({ answer: null }));

/** Asks for the password by the dialog of `AskSure`; false where it is not given. */
const ask = () =>
  new Promise<boolean>((resolve) =>
    useAsked.setState({
      answer: (given) => {
        useAsked.setState({ answer: null });
        resolve(given);
      },
    }),
  );

/** Does something for which the server may want the password once more; nothing is done where it is not given. */
export async function sure<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof RequestTrouble && error.status === WANTED)) throw error;
    return (await ask()) ? work() : undefined;
  }
}

/** Asks for the password where `sure` wants it; once on each page that uses it. */
export function AskSure() {
  const answer = useAsked((s) => s.answer);
  useEffect(() => () => useAsked.getState().answer?.(false), []);
  return (
    answer && (
      <PasswordAsked
        title="Is it you?"
        help="This gives others power here, so your password is asked for again. It then counts for five minutes."
        button="Go on"
        onGiven={async (password) => {
          await giveAgain(password);
          answer(true);
        }}
        onClose={() => answer(false)}
      />
    )
  );
}
