/** The local worker: makes frames in true light and all files, and ends when idle. */
import { randomUUID } from 'node:crypto';
import os from 'node:os';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import { FrameWorker } from '@maypole/render/work/frame-worker';
import { database } from '../data/db';
import { beginAnew } from './create';
import { DatabaseSource } from './database-source';
import { nextFile } from './files';
import { HERE } from './worker';

/** Milliseconds between looks for work, and of idleness before it ends. */
const [LOOK, IDLE] = [500, 20_000];

// Below whatever people wait for.
os.setPriority(10);

const threads = Number(process.env.MAYPOLE_WORK_THREADS) || Math.max(1, os.availableParallelism() - 1);
const db = database();
const worker = new FrameWorker(
  new DatabaseSource(db, {
    id: `here-${randomUUID()}`,
    ...HERE,
    light: 'true',
    threads,
    maker: RENDERER_VERSION,
  }),
  threads,
);

// Its current frame continues once the application is up again.
process.on('disconnect', () => void worker.close().finally(() => process.exit(0)));

async function main(): Promise<void> {
  await beginAnew(db).catch((error: Error) => console.error(error.message));
  let last = Date.now();
  while (Date.now() - last < IDLE) {
    try {
      if ((await nextFile(db)) || (await worker.next())) {
        last = Date.now();
        continue;
      }
    } catch (error) {
      // The database may be away for a moment; anything else is reported by the parent.
      console.error(error instanceof Error ? error.message : error);
    }
    await new Promise((resolve) => setTimeout(resolve, LOOK));
  }
  process.exit(0);
}

void main();
