/** Works on the renders of a remote server: `./maypole work --server URL --key KEY`. */
import { randomUUID } from 'node:crypto';
import os from 'node:os';
import { FrameWorker } from '@maypole/render/work/frame-worker';
import { Refused } from '@maypole/render/work/server-request';
import { ServerSource } from '@maypole/render/work/server-source';

const env = process.env;
const threads = Number(env.MAYPOLE_THREADS) || os.availableParallelism();
const source = new ServerSource(new URL(env.MAYPOLE_SERVER!), env.MAYPOLE_KEY!, {
  id: `machine-${randomUUID()}`,
  name: env.MAYPOLE_NAME!,
  threads,
});
/** Shortest and longest pause after the server was away, in milliseconds. */
const [LEAST, MOST] = [1000, 60_000];

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    // A second signal does not wait for the frame: it is given back.
    if (ending) void worker.close().finally(() => process.exit(1));
    ending = true;
  });

const worker = new FrameWorker(source, threads);
console.log(
  `Works for ${env.MAYPOLE_SERVER} with ${threads} threads. Ctrl-C ends it after the frame it is at, twice at once.`,
);
let rest = LEAST;
while (!ending) {
  try {
    await worker.next();
    rest = LEAST;
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    console.error(message);
    // Permanent refusals: a withdrawn key, another version.
    if (error instanceof Refused && error.forGood) {
      process.exitCode = 2;
      break;
    }
    await new Promise((resolve) => setTimeout(resolve, rest));
    rest = Math.min(MOST, 2 * rest);
  }
}
await worker.close();
