import type { FromDeveloper, ToDeveloper } from '@/engine/trace/develop-protocol';

/**
 * Workers that turn light into pictures: one for the first, coarse picture, another for all that follow. Made when
 * first needed.
 */
export class Darkrooms {
  private first: Worker | null = null;
  private following: Worker | null = null;
  /** The picture of which more than the coarse one has been shown. */
  private past = -1;

  constructor(private readonly take: (message: FromDeveloper) => void) {}

  tell(message: ToDeveloper, transfer: Transferable[] = []): void {
    this.begin();
    if (message.type === 'begin') this.first!.postMessage(message);
    if (message.type === 'coarse') {
      // Later pictures fill their gaps from it.
      const sums = message.sums.slice();
      this.first!.postMessage({ ...message, sums }, [sums.buffer]);
    }
    this.following!.postMessage(message, transfer);
  }

  end(): void {
    this.first?.terminate();
    this.following?.terminate();
    this.first = this.following = null;
  }

  /** Starts the workers. */
  begin(): void {
    if (this.first) return;
    this.first = new Worker(new URL('../../engine/trace/coarse.worker.ts', import.meta.url), { type: 'module' });
    this.following = new Worker(new URL('../../engine/trace/develop.worker.ts', import.meta.url), { type: 'module' });
    this.first.onmessage = ({ data }: MessageEvent<FromDeveloper>) => data.id !== this.past && this.take(data);
    this.following.onmessage = ({ data }: MessageEvent<FromDeveloper>) => {
      this.past = data.id;
      this.take(data);
    };
  }
}
