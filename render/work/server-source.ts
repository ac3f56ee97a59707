import type { SheetName } from '@maypole/core/output/sheet';
import { MAKER } from '@maypole/core/trace/maker';
import type { KeptSheet } from '../frame/keep';
import type { PartFigures, PartWork, WorkSource } from './source';

/** The server does not give work, in its own words. */
export class Refused extends Error {
  override readonly name = 'Refused';
  constructor(
    message: string,
    /** Asking again is of no use. */
    readonly forGood: boolean,
  ) {
    super(message);
  }
}

/** Milliseconds that an answer may take; sheets are large. */
const PATIENCE = 120_000;
/** Times that a result is brought again while the server is away, and milliseconds between. */
const [AGAIN, BETWEEN] = [40, 3000];

/** Work of a server elsewhere, over HTTP with a key. */
export class ServerSource implements WorkSource {
  constructor(
    private readonly server: URL,
    private readonly key: string,
    private readonly worker: { readonly id: string; readonly name: string; readonly threads: number },
  ) {}

  async claim(): Promise<PartWork | undefined> {
    const answer = await this.ask('POST', '/api/work/claim', { ...this.worker, light: 'true', maker: MAKER });
    if (answer.status === 409) throw new Refused(await wordsOf(answer), true);
    return answer.status === 204 ? undefined : ((await answer.json()) as PartWork);
  }

  async piece({ lease }: PartWork): Promise<string> {
    return (await this.sound(this.ask('GET', `/api/work/leases/${lease}/piece`))).text();
  }

  async renew({ lease }: PartWork): Promise<boolean> {
    return (await this.ask('PUT', `/api/work/leases/${lease}`)).status !== 409;
  }

  async put({ lease }: PartWork, sheet: SheetName, bytes: Uint8Array): Promise<KeptSheet> {
    return this.patiently(async () =>
      (await this.sound(this.ask('PUT', `/api/work/leases/${lease}/sheets/${sheet}`, bytes))).json(),
    ) as Promise<KeptSheet>;
  }

  async done({ lease }: PartWork, sheets: Partial<Record<SheetName, KeptSheet>>, figures: PartFigures): Promise<void> {
    await this.patiently(() => this.sound(this.ask('POST', `/api/work/leases/${lease}/done`, { sheets, ...figures })));
  }

  async failed({ lease }: PartWork, message: string, forGood: boolean): Promise<void> {
    await this.ask('POST', `/api/work/leases/${lease}/failed`, { message: message.slice(0, 2000), forGood });
  }

  /** Tries again while the server is away: a finished frame is not thrown away for that. */
  private async patiently<T>(work: () => Promise<T>): Promise<T> {
    for (let i = 0; ; i++)
      try {
        return await work();
      } catch (error) {
        if ((error instanceof Refused && error.forGood) || i >= AGAIN) throw error;
        await new Promise((resolve) => setTimeout(resolve, BETWEEN));
      }
  }

  private async sound(asked: Promise<Response>): Promise<Response> {
    const answer = await asked;
    if (answer.ok) return answer;
    // It was given to another, or cancelled: it is of no use to bring it again.
    throw new Refused(await wordsOf(answer), answer.status === 409 || answer.status === 422);
  }

  private async ask(method: string, path: string, body?: object): Promise<Response> {
    let answer: Response;
    const bytes = body instanceof Uint8Array;
    try {
      answer = await fetch(new URL(path, this.server), {
        method,
        headers: {
          Authorization: `Bearer ${this.key}`,
          ...(body ? { 'Content-Type': bytes ? 'application/octet-stream' : 'application/json' } : {}),
        },
        body: body === undefined ? undefined : bytes ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
        signal: AbortSignal.timeout(PATIENCE),
      });
    } catch (error) {
      const cause = error instanceof Error && error.cause instanceof Error ? error.cause.message : String(error);
      throw new Refused(`${this.server.origin} does not answer (${cause}); asking again.`, false);
    }
    if (answer.status === 401 || answer.status === 403) throw new Refused(await wordsOf(answer), true);
    if (answer.status >= 500 || answer.status === 429) throw new Refused(await wordsOf(answer), false);
    return answer;
  }
}

async function wordsOf(answer: Response): Promise<string> {
  const body = (await answer.json().catch(() => undefined)) as { error?: string } | undefined;
  return body?.error ?? `The server answered ${answer.status}.`;
}
