import { Worker } from 'node:worker_threads';
import { emptyFeatures, putFeatures, type DenoiserFeatures } from '@maypole/core/develop/denoise';
import { emptyLight, putTile, type LightPicture } from '@maypole/core/develop/light';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';
import type { Asset } from '@maypole/core/assets/asset';
import { assetOf } from '@maypole/core/assets/store';
import type { Mesh } from '@maypole/core/shape/mesh';
import type { LentExposure } from '@maypole/core/trace/paths/exposure';
import { PassBuffer } from '@maypole/core/trace/paths/passes';
import { tilesOf } from '@maypole/core/trace/paths/tiles';
import type { TraceSettings } from '@maypole/core/trace/paths/tracer';
import { COUNT, SUMS, type Tile, type TileResult } from '@maypole/core/trace/paths/tile-result';

/** Files that a picture needs, by SHA-256. */
type Files = readonly (readonly [string, Asset])[];

/** Messages to a thread; it answers each once. */
export type ToThread =
  /** Set a picture up for this many threads. */
  | {
      readonly type: 'picture';
      readonly pictures: readonly PictureAt<Mesh>[];
      readonly settings: TraceSettings;
      readonly samples: number;
      readonly files: Files;
      readonly threads: number;
    }
  /** Take over a picture that the first thread has set up. */
  | { readonly type: 'lent'; readonly lent: LentExposure; readonly samples: number; readonly files: Files }
  | { readonly type: 'tile'; readonly tile: Tile };
/** Its answers. */
export type FromThread =
  | { readonly type: 'ready'; readonly lent: readonly LentExposure[] }
  | { readonly type: 'tile'; readonly tile: Tile; readonly part: TileResult }
  | { readonly type: 'failed'; readonly name: string; readonly message: string };

/** One picture to trace. */
export interface TraceOrder {
  /** The frame at the instants of its exposure. */
  readonly pictures: readonly PictureAt<Mesh>[];
  readonly settings: TraceSettings;
  readonly samples: number;
}

export interface Traced {
  readonly light: LightPicture;
  readonly features: DenoiserFeatures;
  readonly passes: PassBuffer | null;
  /** Mean samples per pixel. */
  readonly samples: number;
}

/**
 * Threads that trace one picture after another. The first sets a picture up, the others read it from its shared memory,
 * and tiles are distributed among them; whoever traces which, the picture is the same in every bit.
 */
export class TraceCrew {
  private readonly threads: Worker[] = [];
  /** Files that the threads have received. */
  private readonly given = new Set<string>();

  constructor(private readonly count: number) {}

  /**
   * @param onShare receives the fraction of tiles done, 0…1
   * @throws an error with the name and message of the tracer: SceneTooLarge among them
   */
  async traced({ pictures, settings, samples }: TraceOrder, onShare?: (share: number) => void): Promise<Traced> {
    const { width, height } = settings;
    const light = emptyLight(width, height);
    const features = emptyFeatures(width, height, pictures[0].scene.camera.exposure);
    const passes = settings.passes ? new PassBuffer(pictures[0], width, height) : null;
    const tiles = tilesOf(width, height);
    let [next, done, taken] = [0, 0, 0];
    const put = (tile: Tile, part: TileResult) => {
      putTile(light, tile, part.sums);
      putFeatures(features, tile, part);
      passes?.put(tile, part);
      for (let i = COUNT; i < part.sums.length; i += SUMS) taken += part.sums[i];
      done++;
      onShare?.(done / tiles.length);
    };
    while (this.threads.length < Math.min(this.count, tiles.length)) this.threads.push(this.thread());
    const fresh = pictures[0].files.filter((name) => !this.given.has(name));
    const files = fresh.flatMap((name) => {
      const asset = assetOf(name);
      return asset ? [[name, asset] as const] : [];
    });
    for (const [name] of files) this.given.add(name);
    const [first, ...others] = this.threads;
    const trace = async (thread: Worker) => {
      while (next < tiles.length) {
        const { tile, part } = await answer(thread, { type: 'tile', tile: tiles[next++] }, 'tile');
        put(tile, part);
      }
    };
    try {
      const { lent } = await answer(
        first,
        { type: 'picture', pictures, settings, samples, files, threads: this.count },
        'ready',
      );
      await Promise.all([
        trace(first),
        ...others.map(async (thread, i) => {
          await answer(thread, { type: 'lent', lent: lent[i], samples, files }, 'ready');
          await trace(thread);
        }),
      ]);
    } catch (error) {
      // Stops the others from starting another tile of a picture that cannot be traced.
      next = tiles.length;
      await this.close();
      throw error;
    }
    return { light, features, passes, samples: taken / (width * height) };
  }

  /** Ends the threads; a picture that is being traced is rejected. */
  async close(): Promise<void> {
    const all = this.threads.splice(0);
    this.given.clear();
    await Promise.all(all.map((thread) => thread.terminate()));
  }

  private thread(): Worker {
    const thread = new Worker(new URL('./trace-worker.mjs', import.meta.url));
    // New threads have none of the files yet.
    this.given.clear();
    return thread;
  }
}

/** Sends a message to a thread and awaits its answer, which must be of one type. */
function answer<T extends 'ready' | 'tile'>(
  thread: Worker,
  message: ToThread,
  type: T,
): Promise<Extract<FromThread, { type: T }>> {
  return new Promise((resolve, reject) => {
    thread.removeAllListeners();
    thread.on('message', (m: FromThread) => {
      if (m.type === 'failed') return reject(Object.assign(new Error(m.message), { name: m.name }));
      if (m.type === type) resolve(m as Extract<FromThread, { type: T }>);
    });
    thread.on('error', reject);
    thread.on('exit', () => reject(new Error('A thread that traced a picture has ended.')));
    thread.postMessage(message);
  });
}
