import { Worker } from 'node:worker_threads';
import { emptyGuides, putGuides, type Guides } from '@maypole/core/develop/denoise';
import { emptyLight, putTile, type LightPicture } from '@maypole/core/develop/light';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';
import type { Asset } from '@maypole/core/files/asset';
import { assetOf } from '@maypole/core/files/store';
import type { Mesh } from '@maypole/core/shape/mesh';
import { PassSheet } from '@maypole/core/trace/passes';
import { tilesOf } from '@maypole/core/trace/tiles';
import { COUNT, SUMS, type Tile, type TraceSettings, type Worked } from '@maypole/core/trace/tracer';

/** What a thread is told. */
export type ToThread =
  | {
      readonly type: 'picture';
      readonly pictures: readonly PictureAt<Mesh>[];
      readonly settings: TraceSettings;
      readonly samples: number;
      readonly files: readonly (readonly [string, Asset])[];
    }
  | { readonly type: 'tile'; readonly tile: Tile };
/** What it answers. */
export type FromThread =
  | { readonly type: 'ready' }
  | { readonly type: 'tile'; readonly tile: Tile; readonly part: Worked }
  | { readonly type: 'failed'; readonly name: string; readonly message: string };

/** One picture that is to be traced. */
export interface TraceOrder {
  /** The frame at the instants of its exposure. */
  readonly pictures: readonly PictureAt<Mesh>[];
  readonly settings: TraceSettings;
  readonly samples: number;
}

export interface Traced {
  readonly light: LightPicture;
  readonly guides: Guides;
  readonly sheet: PassSheet | null;
  /** Samples a pixel, in the mean. */
  readonly samples: number;
}

/**
 * Threads that trace pictures one after the other, tiles of each shared out among them: whoever takes which, the picture
 * is the same in every bit.
 */
export class TraceCrew {
  private readonly threads: Worker[] = [];
  /** Files that the threads have been given. */
  private readonly given = new Set<string>();

  constructor(private readonly count: number) {}

  /**
   * @param onShare told the share of tiles done, 0…1
   * @throws an error with the name and words that tracing gave: SceneTooLarge among them
   */
  async traced({ pictures, settings, samples }: TraceOrder, onShare?: (share: number) => void): Promise<Traced> {
    const { width, height } = settings;
    const light = emptyLight(width, height);
    const guides = emptyGuides(width, height, pictures[0].scene.camera.exposure);
    const sheet = settings.passes ? new PassSheet(pictures[0], width, height) : null;
    const tiles = tilesOf(width, height);
    let [next, done, taken] = [0, 0, 0];
    const put = (tile: Tile, part: Worked) => {
      putTile(light, tile, part.sums);
      putGuides(guides, tile, part);
      sheet?.put(tile, part);
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
    try {
      await Promise.all(
        this.threads.map(
          (thread) =>
            new Promise<void>((resolve, reject) => {
              thread.removeAllListeners();
              const say = (message: ToThread) => thread.postMessage(message);
              const give = () => (next < tiles.length ? say({ type: 'tile', tile: tiles[next++] }) : resolve());
              thread.on('message', (m: FromThread) => {
                if (m.type === 'failed') {
                  // Nobody begins another tile of a picture that cannot be traced.
                  next = tiles.length;
                  return reject(Object.assign(new Error(m.message), { name: m.name }));
                }
                if (m.type === 'tile') put(m.tile, m.part);
                give();
              });
              thread.on('error', reject);
              thread.on('exit', () => reject(new Error('A thread that traced a picture has ended.')));
              say({ type: 'picture', pictures, settings, samples, files });
            }),
        ),
      );
    } catch (error) {
      await this.close();
      throw error;
    }
    return { light, guides, sheet, samples: taken / (width * height) };
  }

  /** Ends the threads; a picture that is being traced is then refused. */
  async close(): Promise<void> {
    const all = this.threads.splice(0);
    this.given.clear();
    await Promise.all(all.map((thread) => thread.terminate()));
  }

  private thread(): Worker {
    const thread = new Worker(new URL('./trace-worker.mjs', import.meta.url));
    // Files that the others have already are not there yet.
    this.given.clear();
    return thread;
  }
}
