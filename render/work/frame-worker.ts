import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { hasPasses, type FrameImageName } from '@maypole/core/output/frame-image';
import type { Piece } from '@maypole/core/piece/piece';
import { sha256, type KeptFrameImage } from '../frame/keep';
import { TraceCrew } from '../frame/trace-crew';
import { sheetsOf, trueFrame } from '../frame/true-frame';
import { pieceFrom } from './piece-from';
import type { PartWork, WorkSource } from './source';

/** Makes frames in true light, one after another, as they are assigned. */
export class FrameWorker {
  private readonly crew: TraceCrew;
  private cache = new MeshCache();
  private known: { readonly render: string; readonly piece: Piece } | undefined;
  /** The present frame. */
  private at: PartWork | undefined;
  /** What it is doing, in words; empty if nothing. */
  doing = '';

  constructor(
    private readonly source: WorkSource,
    threads: number,
  ) {
    this.crew = new TraceCrew(threads);
  }

  /** Makes one frame; false if there is none to make. */
  async next(): Promise<boolean> {
    const work = await this.source.claim();
    if (!work) return false;
    let wanted = true;
    const end = this.source.keep(work, () => {
      if (!wanted) return;
      wanted = false;
      // Not awaited: the threads end with it.
      void this.crew.close();
    });
    this.at = work;
    try {
      await this.make(work);
    } catch (error) {
      if (wanted) await this.tell(work, error);
    } finally {
      wanted = false;
      end();
      this.at = undefined;
      this.doing = '';
    }
    return true;
  }

  /** Ends the threads. An unfinished frame is given back, so that it need not wait for its lease to expire. */
  async close(): Promise<void> {
    const { at } = this;
    if (at) await this.source.giveBack(at).catch(() => undefined);
    await this.crew.close();
  }

  private async make(work: PartWork): Promise<void> {
    const { order, frame } = work;
    if (order.light !== 'true') throw new Error('This worker makes frames in true light alone.');
    const begun = performance.now();
    if (this.known?.render !== work.render) {
      this.cache = new MeshCache();
      this.known = { render: work.render, piece: await pieceFrom(await this.source.piece(work)) };
    }
    const { piece } = this.known;
    this.doing = `${piece.name}, frame ${frame}`;
    const drawn = await trueFrame(
      this.crew,
      piece,
      frame,
      { ...order, error: order.error / 100, passes: work.sheets.some(hasPasses) },
      this.cache,
    );
    const sheets: Partial<Record<FrameImageName, KeptFrameImage>> = {};
    for await (const [name, { bytes, content }] of sheetsOf(drawn, work.sheets)) {
      const kept = work.again
        ? { sha256: sha256(bytes), bytes: bytes.length }
        : await this.source.put(work, name, bytes);
      sheets[name] = { ...kept, content };
    }
    const memory = process.resourceUsage().maxRSS / 1024;
    await this.source.done(work, sheets, { seconds: (performance.now() - begun) / 1000, memory });
  }

  private async tell(work: PartWork, error: unknown): Promise<void> {
    const { name, message } = error instanceof Error ? error : { name: '', message: String(error) };
    await this.source.failed(work, message, name === 'SceneTooLarge' || name === 'PieceTrouble');
  }
}
