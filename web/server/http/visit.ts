/** Headers by which the gateway describes a request to the application; clients cannot set them. */
export const CLIENT = 'x-maypole-client';
export const REQUEST = 'x-maypole-request';
export const SECURE = 'x-maypole-secure';

/** What is known of a request besides its contents. */
export interface Visit {
  /** Client address; `local` without a gateway (in tests). */
  readonly client: string;
  /** Identity for fairness: the person where there are accounts, else the address. */
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
