/** A remote server and the worker key for it. */
export interface ServerAccess {
  /** Its address. */
  readonly server: string;
  readonly key: string;
  /** Milliseconds between renewals; see RENEW_SECONDS. */
  readonly every?: number;
}

/** The server refuses to give work, in its own words. */
export class Refused extends Error {
  override readonly name = 'Refused';
  constructor(
    message: string,
    /** Retrying is useless. */
    readonly forGood: boolean,
  ) {
    super(message);
  }
}

/** Milliseconds that an answer may take; frame images are large. */
const PATIENCE = 120_000;

/** Sends a request. @throws Refused if the server does not answer, denies access or fails */
export async function requestAt(
  { server, key }: ServerAccess,
  method: string,
  path: string,
  body?: object,
): Promise<Response> {
  let answer: Response;
  const bytes = body instanceof Uint8Array;
  const { origin } = new URL(server);
  try {
    answer = await fetch(new URL(path, server), {
      method,
      headers: {
        Authorization: `Bearer ${key}`,
        ...(body ? { 'Content-Type': bytes ? 'application/octet-stream' : 'application/json' } : {}),
      },
      body: body === undefined ? undefined : bytes ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
    });
  } catch (error) {
    const cause = error instanceof Error && error.cause instanceof Error ? error.cause.message : String(error);
    throw new Refused(`${origin} does not answer (${cause}); asking again.`, false);
  }
  if (answer.status === 401 || answer.status === 403) throw new Refused(await wordsOf(answer), true);
  if (answer.status >= 500 || answer.status === 429) throw new Refused(await wordsOf(answer), false);
  return answer;
}

/** Renews a lease; false if it is lost. */
export async function renewAt(access: ServerAccess, lease: string): Promise<boolean> {
  return (await requestAt(access, 'PUT', `/api/work/leases/${lease}`)).status !== 409;
}

/** The error message of an answer. */
export async function wordsOf(answer: Response): Promise<string> {
  const body = (await answer.json().catch(() => undefined)) as { error?: string } | undefined;
  return body?.error ?? `The server answered ${answer.status}.`;
}
