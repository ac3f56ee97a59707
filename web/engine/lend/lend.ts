import { newItem, type Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';
import { sceneLists } from '@maypole/core/scene/index';
import { readBundle } from '@maypole/core/piece/bundle';
import type { PartWork } from '@maypole/render/work/source';
import { Offscreen } from '../draw/offscreen';

/** What a browser that lends its graphics card needs of the server. */
export interface LendSource {
  claim(signal: AbortSignal): Promise<PartWork | undefined>;
  piece(work: PartWork): Promise<string>;
  renew(work: PartWork): Promise<boolean>;
  giveBack(work: PartWork): Promise<void>;
  put(work: PartWork, sheet: string, picture: Blob): Promise<{ sha256: string; bytes: number }>;
  done(work: PartWork, sheets: object, figures: { seconds: number; memory: number }): Promise<void>;
  failed(work: PartWork, message: string, forGood: boolean): Promise<void>;
}

/** Milliseconds between renewals of the lease. */
const RENEW = 10_000;

/** The frame is no longer this browser's: it was cancelled, or given to another worker. */
class Lost extends Error {}

/** Draws frames in quick light for whoever asks the server for them. */
export class Lender {
  /** Renderer of the current render, with its backdrop and without; reused from frame to frame. */
  private drawing: { readonly render: string; readonly piece: Piece; readonly by: Map<boolean, Offscreen> } | undefined;

  /** The current frame. */
  private at: PartWork | undefined;

  constructor(private readonly source: LendSource) {}

  /** The page is left: its frame becomes available to others at once. */
  leave(): void {
    if (this.at) void this.source.giveBack(this.at).catch(() => undefined);
  }

  /** Draws one frame; false if there is none. */
  async next(signal: AbortSignal): Promise<boolean> {
    const work = await this.source.claim(signal);
    if (!work) return false;
    this.at = work;
    let giveUp: (why: Error) => void = () => undefined;
    let wanted = true;
    const lost = new Promise<never>((_, reject) => (giveUp = reject));
    const renew = async () => {
      // An unreachable server may still be waiting for the frame.
      if (await this.source.renew(work).catch(() => true)) return;
      wanted = false;
      giveUp(new Lost());
    };
    const renewing = setInterval(() => void renew(), RENEW);
    const drawing = this.draw(work, () => wanted);
    // An abandoned one ends some time, one way or another.
    drawing.catch(() => undefined);
    lost.catch(() => undefined);
    try {
      await Promise.race([drawing, lost]);
    } catch (error) {
      this.dispose();
      if (error instanceof Lost) return true;
      const message = error instanceof Error ? error.message : 'The frame could not be drawn.';
      await this.source.failed(work, message, false).catch(() => undefined);
    } finally {
      this.at = undefined;
      clearInterval(renewing);
    }
    return true;
  }

  dispose(): void {
    for (const offscreen of this.drawing?.by.values() ?? []) offscreen.dispose();
    this.drawing = undefined;
  }

  private async draw(work: PartWork, wanted: () => boolean): Promise<void> {
    const { order } = work;
    if (order.light !== 'quick') throw new Error('A browser draws frames in quick light alone.');
    const begun = performance.now();
    const sheets: Record<string, { sha256: string; bytes: number }> = {};
    for (const sheet of work.sheets) {
      const offscreen = await this.prepared(work, sheet === 'clear');
      await offscreen.draw(work.frame, order.subframes);
      const picture = await new Promise<Blob | null>((resolve) => offscreen.canvas.toBlob(resolve, 'image/png'));
      if (!picture)
        throw new Error(
          `Frame ${work.frame} of ${order.width} × ${order.height} pixels is more than this browser can write; make it smaller.`,
        );
      if (!wanted()) return;
      sheets[sheet] = await this.source.put(work, sheet, picture);
    }
    await this.source.done(work, sheets, { seconds: (performance.now() - begun) / 1000, memory: 0 });
  }

  private async prepared(work: PartWork, clear: boolean): Promise<Offscreen> {
    const { order, render } = work;
    if (order.light !== 'quick') throw new Error('A browser draws frames in quick light alone.');
    if (this.drawing?.render !== render) {
      this.dispose();
      const read = readPiece(readBundle(await this.source.piece(work)).source);
      if (!read.ok) throw new Error(read.message);
      this.drawing = { render, piece: read.piece, by: new Map() };
    }
    const { piece, by } = this.drawing;
    const known = by.get(clear);
    if (known) return known;
    const offscreen = await Offscreen.create(order.width, order.height);
    offscreen.setPiece(clear ? withoutBackdrop(piece) : piece, order.detail, order.look, clear);
    by.set(clear, offscreen);
    return offscreen;
  }
}

/** The piece without backdrop. */
function withoutBackdrop(piece: Piece): Piece {
  return { ...piece, scene: { ...piece.scene, backdrop: [newItem(sceneLists.backdrop.kinds.get('clear'))] } };
}
