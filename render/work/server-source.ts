import type { FrameImageName } from '@maypole/core/output/frame-image';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import type { KeptFrameImage } from '../frame/keep';
import { Renewer } from './renewer';
import { Refused, requestAt, wordsOf, type ServerAccess } from './server-request';
import type { PartFigures, PartWork, WorkSource } from './source';

/** How often a result is delivered again while the server is away, and milliseconds between. */
const [AGAIN, BETWEEN] = [40, 3000];

/** Work from a remote server, over HTTP with a key. */
export class ServerSource implements WorkSource {
  private readonly access: ServerAccess;
  private readonly renewer: Renewer;

  constructor(
    server: URL,
    key: string,
    private readonly worker: { readonly id: string; readonly name: string; readonly threads: number },
  ) {
    this.access = { server: server.href, key };
    this.renewer = new Renewer(new URL('./renew-server.mjs', import.meta.url), this.access);
  }

  async claim(): Promise<PartWork | undefined> {
    const answer = await this.ask('POST', '/api/work/claim', {
      ...this.worker,
      light: 'true',
      maker: RENDERER_VERSION,
    });
    if (answer.status === 409) throw new Refused(await wordsOf(answer), true);
    return answer.status === 204 ? undefined : ((await answer.json()) as PartWork);
  }

  async piece({ lease }: PartWork): Promise<string> {
    return (await this.sound(this.ask('GET', `/api/work/leases/${lease}/piece`))).text();
  }

  keep({ lease }: PartWork, lost: () => void): () => void {
    return this.renewer.keep(lease, lost);
  }

  async giveBack({ lease }: PartWork): Promise<void> {
    await this.ask('DELETE', `/api/work/leases/${lease}`);
  }

  async put({ lease }: PartWork, sheet: FrameImageName, bytes: Uint8Array): Promise<KeptFrameImage> {
    return this.patiently(async () =>
      (await this.sound(this.ask('PUT', `/api/work/leases/${lease}/sheets/${sheet}`, bytes))).json(),
    ) as Promise<KeptFrameImage>;
  }

  async done(
    { lease }: PartWork,
    sheets: Partial<Record<FrameImageName, KeptFrameImage>>,
    figures: PartFigures,
  ): Promise<void> {
    await this.patiently(() => this.sound(this.ask('POST', `/api/work/leases/${lease}/done`, { sheets, ...figures })));
  }

  async failed({ lease }: PartWork, message: string, forGood: boolean): Promise<void> {
    await this.ask('POST', `/api/work/leases/${lease}/failed`, { message: message.slice(0, 2000), forGood });
  }

  /** Retries while the server is away, so that no finished frame is lost. */
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
    // It was assigned to another worker, or cancelled: retrying is useless.
    throw new Refused(await wordsOf(answer), answer.status === 409 || answer.status === 422);
  }

  private ask(method: string, path: string, body?: object): Promise<Response> {
    return requestAt(this.access, method, path, body);
  }
}
