import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from '@maypole/render/frame/keep';
import { Renewer } from '@maypole/render/work/renewer';
import type { PartFigures, PartWork, WorkSource } from '@maypole/render/work/source';
import { sql } from 'drizzle-orm';
import { carried } from '../pieces/bundle';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { claimWork, failWork, finishWork, giveBackWork } from './leases';
import { assertDisk, isFull, frameImageStore } from './room';
import type { Worker } from './worker';

/** Attempts to write a frame while the disk is full, and milliseconds between. */
const [AGAIN, BETWEEN] = [40, 3000];

/** The document of a render, with the files it names. */
export async function* renderDocument(db: Database, render: string): AsyncGenerator<string> {
  const { rows } = await db.execute<{ source: string }>(sql`select source from renders where id = ${render}`);
  if (rows.length === 0) throw new AppError(404, 'There is no such render; it may have been cleared.');
  yield* carried(db, rows[0].source);
}

/** Work for a worker on the server's own machine: through database and disk. */
export class DatabaseSource implements WorkSource {
  private readonly renewer = new Renewer(new URL('./renew-database.mjs', import.meta.url), undefined);

  constructor(
    private readonly db: Database,
    private readonly worker: Worker,
  ) {}

  claim(): Promise<PartWork | undefined> {
    return claimWork(this.db, this.worker);
  }

  async piece({ render }: PartWork): Promise<string> {
    let text = '';
    for await (const part of renderDocument(this.db, render)) text += part;
    return text;
  }

  keep({ lease }: PartWork, lost: () => void): () => void {
    return this.renewer.keep(lease, lost);
  }

  giveBack({ lease }: PartWork): Promise<void> {
    return giveBackWork(this.db, lease);
  }

  async put({ fingerprint }: PartWork, sheet: FrameImageName, bytes: Uint8Array): Promise<KeptFrameImage> {
    for (let i = 0; ; i++)
      try {
        await assertDisk(bytes.length);
        return await frameImageStore().put(fingerprint, sheet, bytes);
      } catch (error) {
        // A finished frame is held until there is room for it, and not thrown away.
        if (!isFull(error) || i >= AGAIN) throw error;
        await new Promise((resolve) => setTimeout(resolve, BETWEEN));
      }
  }

  done(
    { lease }: PartWork,
    sheets: Partial<Record<FrameImageName, KeptFrameImage>>,
    figures: PartFigures,
  ): Promise<void> {
    return finishWork(this.db, lease, sheets, figures);
  }

  failed({ lease }: PartWork, message: string, forGood: boolean): Promise<void> {
    return failWork(this.db, lease, message, forGood);
  }
}
