'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import { RequestTrouble } from '../api';
import { PasswordAsked } from './password-asked';
import { giveAgain } from './people-api';

/** The status by which the server asks for the password again. */
const WANTED = 428;

const useAsked = create<{ readonly answer: ((given: boolean) => void) | null }>(() => ({ answer: null }));

/** Asks for the password by the dialog of `AskSure`; false if it is not given. */
const ask = () =>
  new Promise<boolean>((resolve) =>
    useAsked.setState({
      answer: (given) => {
        useAsked.setState({ answer: null });
        resolve(given);
      },
    }),
  );

/** Does something for which the server may ask for the password again; nothing happens if it is not given. */
export async function sure<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof RequestTrouble && error.status === WANTED)) throw error;
    return (await ask()) ? work() : undefined;
  }
}

/** The dialog that `sure` uses; once on each page. */
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
