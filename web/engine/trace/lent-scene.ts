import type { LentExposure } from '@maypole/core/trace/paths/exposure';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';
import type { Mesh } from '@maypole/core/shape/mesh';
import type { ToTracer } from './trace-protocol';

/** A frame that one worker has laid out in memory which others read. */
export interface LentFrame {
  /** Number of its job. */
  readonly id: number;
  readonly lent: LentExposure;
  /** Files needed to trace it. */
  readonly files: PictureAt<Mesh>['files'];
}

/** Has the first worker lay out frames in shared memory for all others. Without shared memory each lays out its own. */
export function shareFrames(workers: readonly Worker[]): void {
  if (!globalThis.crossOriginIsolated || workers.length < 2) return;
  const [first, ...others] = workers;
  const ports = others.map((worker) => {
    const { port1, port2 } = new MessageChannel();
    worker.postMessage({ type: 'borrow', from: port1 } satisfies ToTracer, [port1]);
    return port2;
  });
  first.postMessage({ type: 'lend', to: ports } satisfies ToTracer, ports);
}

/** Source of frames that another worker has laid out. */
export class Lender {
  private last: LentFrame | undefined;
  private came: () => void = () => {};

  constructor(port: MessagePort) {
    port.onmessage = ({ data }: MessageEvent<LentFrame>) => {
      this.last = data;
      this.came();
    };
  }

  /** The frame of a job, once it is there. A later request replaces one that has not arrived. */
  async frameOf(id: number): Promise<LentFrame> {
    while (this.last?.id !== id) await new Promise<void>((come) => (this.came = come));
    return this.last;
  }
}
