/** Headers by which the way in tells the application of a request; what a client writes under them is replaced. */
export const CLIENT = 'x-maypole-client';
export const REQUEST = 'x-maypole-request';
export const SECURE = 'x-maypole-secure';

/** What is known of a request besides what it says. */
export interface Visit {
  /** Address it comes from; `local` where no way in stood before the application (in tests). */
  readonly client: string;
  /** Whose turn it is, where there are lines: the person where people have accounts, else the address. */
  readonly who: string;
  /** Its number in the log. */
  readonly request: string;
  /** Whether it came over TLS. */
  readonly secure: boolean;
}

export function visitOf(headers: Pick<Headers, 'get'>): Visit {
  const client = headers.get(CLIENT) ?? 'local';
  return {
    client,
    who: client,
    request: headers.get(REQUEST) ?? '',
    secure: headers.get(SECURE) === '1',
  };
}
