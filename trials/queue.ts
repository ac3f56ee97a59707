import { readFileSync } from 'node:fs';
import { outputs } from '@maypole/core/output/index';
import { newItem, newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import { sql } from 'drizzle-orm';
import { connect } from '../web/server/data/db';
import { claimPart, finishPart } from '../web/server/render/queue';
import { Installation } from './installation';
import { percentile, type Trial } from './trial';

const PARTS = 100_000;
/** Frames that throttled workers share, and milliseconds that each takes them. */
const [FRAMES_SHARED, FRAME_TAKES] = [96, 250];
const worker = (n: number) =>
  ({ id: `trial-${n}-0000`, name: 'Trial', light: 'true', threads: 1, maker: RENDERER_VERSION, by: 'trial' }) as const;
/** Milliseconds that a claim may take at the 95th of a hundred. */
const GOAL = 10;

/** How long a claim of a frame takes while a hundred thousand wait, by one worker after another and by several at once. */
export const queue: Trial = {
  help: `a frame is claimed in under ${GOAL} ms while ${PARTS} wait`,
  short: 400,
  full: 4000,
  async run(times, _seed, tell) {
    const maypole = new Installation({ MAYPOLE_WORK_THREADS: '0' });
    try {
      await maypole.start();
      const { application } = maypole.processes();
      const environment = readFileSync(`/proc/${application}/environ`, 'utf8').split('\0');
      const url = environment.find((e) => e.startsWith('DATABASE_URL='))!.slice('DATABASE_URL='.length);
      const db = connect(url);
      try {
        const fresh = newPiece('Many');
        const source = writePiece({
          ...fresh,
          render: { ...fresh.render, values: { ...fresh.render.values, light: 'true' } },
          outputs: [newItem(outputs.get('png'))],
          ribbons: [newRibbon('box', 0)],
        });
        const post = (route: string, body: object) =>
          fetch(`${maypole.address}${route}`, { method: 'POST', body: JSON.stringify(body) }).then((r) => r.json());
        // Ten renders of ten thousand frames each.
        const made = (await post('/api/pieces', { source })) as { id: string; revision: number };
        for (let i = 0; i < 10; i++) {
          const { id } = (await post('/api/renders', { piece: made.id, revision: made.revision })) as { id: string };
          await db.execute(sql`
            insert into render_parts (render_id, index, rank, fingerprint)
            select ${id}::uuid, n, n, 'many-' || n from generate_series(${fresh.loop.frames}::int, ${PARTS / 10 - 1}::int) n`);
        }
        await db.execute(sql`analyze render_parts`);
        tell(`${PARTS} frames wait`);
        const took = async (count: number, w: number): Promise<number[]> => {
          const out: number[] = [];
          for (let i = 0; i < count; i++) {
            const began = performance.now();
            const part = await claimPart(db, worker(w));
            out.push(performance.now() - began);
            if (!part) throw new Error('there was no frame to claim');
          }
          return out;
        };
        const one = await took(times, 0);
        const began = performance.now();
        const several = (await Promise.all([1, 2, 3, 4, 5, 6].map((w) => took(Math.ceil(times / 6), w)))).flat();
        const rate = several.length / ((performance.now() - began) / 1000);
        const words = (list: number[]) => [0.5, 0.95, 0.99].map((s) => percentile(list, s).toFixed(1)).join(' / ');
        // Workers that do nothing but wait as long as a frame would take, so that two processors can be many machines.
        const together = async (workers: number): Promise<number> => {
          const began = performance.now();
          let left = FRAMES_SHARED;
          const work = async (n: number) => {
            while (left-- > 0) {
              const part = (await claimPart(db, worker(n)))!;
              await new Promise((resolve) => setTimeout(resolve, FRAME_TAKES));
              await finishPart(
                db,
                part.lease,
                { solid: { sha256: '0'.repeat(64), bytes: 1 } },
                { seconds: 0, memory: 1 },
              );
            }
          };
          await Promise.all(Array.from({ length: workers }, (_, n) => work(n)));
          return performance.now() - began;
        };
        const alone = await together(1);
        const shared: string[] = [];
        const slow: string[] = [];
        for (const n of [2, 4, 8]) {
          const by = alone / (await together(n));
          shared.push(`${n} workers ${by.toFixed(2)}×`);
          if (by < 0.9 * n) slow.push(`${n} workers were ${by.toFixed(2)} times as fast as one`);
        }
        const late = percentile(one, 0.95);
        return {
          figures: {
            'one after the other, ms at 50 / 95 / 99 %': words(one),
            'by six at once': words(several),
            'claims a second by six': Math.round(rate),
            [`frames of ${FRAME_TAKES} ms`]: shared.join(', '),
          },
          wrong: [...(late > GOAL ? [`a claim took ${late.toFixed(1)} ms at the 95th of a hundred`] : []), ...slow],
        };
      } finally {
        await db.$client.end();
      }
    } finally {
      maypole.stop();
    }
  },
};
