import type { LentExposure } from '@maypole/core/trace/exposure';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';
import type { Mesh } from '@maypole/core/shape/mesh';
import type { ToTracer } from './trace-protocol';

/** A frame that one worker has laid out in memory that others read. */
export interface LentFrame {
  /** Of the job it is for. */
  readonly id: number;
  readonly lent: LentExposure;
  /** Files that it cannot be traced without. */
  readonly files: PictureAt<Mesh>['files'];
}

/**
 * Has the first of several workers lay out the frames that all of them trace, in memory that they share. Where a page may
 * not share memory each of them goes on laying out its own.
 */
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

/** Where frames come from that another worker has laid out. */
export class Lender {
  private last: LentFrame | undefined;
  private came: () => void = () => {};

  constructor(port: MessagePort) {
    port.onmessage = ({ data }: MessageEvent<LentFrame>) => {
      this.last = data;
      this.came();
    };
  }

  /** The frame of a job, once it is there. One that is asked for later takes the place of one that has not come. */
  async frameOf(id: number): Promise<LentFrame> {
    while (this.last?.id !== id) await new Promise<void>((come) => (this.came = come));
    return this.last;
  }
}
