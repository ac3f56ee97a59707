import { fork } from 'node:child_process';
import http from 'node:http';
import net from 'node:net';
import path from 'node:path';
import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { Installation } from './installation';
import { percentile, type Trial } from './trial';

/** Asks from an address of its own; gives the milliseconds until all of the answer was there. */
function timed(
  address: string,
  path: string,
  from: string,
  init: { method?: string; body?: string | Buffer } = {},
): Promise<{ ms: number; status: number }> {
  const base = new URL(address);
  return new Promise((resolve) => {
    const began = performance.now();
    const request = http.request(
      { host: base.hostname, port: base.port, path, method: init.method ?? 'GET', localAddress: from, agent: false },
      (response) => {
        response.resume();
        response.on('close', () => resolve({ ms: performance.now() - began, status: response.statusCode! }));
      },
    );
    request.on('error', () => resolve({ ms: performance.now() - began, status: 0 }));
    request.end(init.body);
  });
}

/** How long one person waits for the shelf and for how the server is, meanwhile. */
async function asOther(address: string, seconds: number) {
  const waits = { health: [] as number[], shelf: [] as number[] };
  const failed: number[] = [];
  const end = Date.now() + seconds * 1000;
  while (Date.now() < end) {
    for (const [name, path] of [
      ['health', '/api/health'],
      ['shelf', '/api/pieces'],
    ] as const) {
      const { ms, status } = await timed(address, path, '127.0.0.2');
      if (status === 200) waits[name].push(ms);
      else failed.push(status);
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  return { health: waits.health, shelf: waits.shelf, failed };
}

/** Many who work at once, connections that stay half open, floods and heavy imports leave others their answers. */
export const load: Trial = {
  help: 'many clients, half-open connections, floods and imports leave others their answers',
  short: 4,
  full: 30,
  async run(seconds, _seed, tell) {
    const maypole = new Installation();
    const wrong: string[] = [];
    const slow: string[] = [];
    try {
      await maypole.start();
      const { address } = maypole;
      await asOther(address, 2);
      const quiet = await asOther(address, seconds);
      const figures: Record<string, string | number> = {};
      const note = (what: string, found: Awaited<ReturnType<typeof asOther>>) => {
        const words = (list: number[]) =>
          `${percentile(list, 0.5).toFixed(0)} / ${percentile(list, 0.95).toFixed(0)} / ${percentile(list, 0.99).toFixed(0)}`;
        figures[`${what}: health, ms at 50/95/99 %`] = words(found.health);
        figures[`${what}: shelf`] = words(found.shelf);
        if (found.failed.length > 0)
          wrong.push(`${what}: ${found.failed.length} of the other’s requests failed (${found.failed[0]})`);
        tell(`${what}: health ${words(found.health)}, shelf ${words(found.shelf)}`);
      };
      note('quiet', quiet);

      // People at work: each looks at the shelf, opens, saves.
      let working = true;
      const saves: number[] = [];
      const people = Array.from({ length: 50 }, async (_, i) => {
        const from = `127.0.1.${i + 1}`;
        const source = writePiece({ ...newPiece(`Load ${i}`), ribbons: [newRibbon('torus', 0)] });
        while (working) {
          const { ms, status } = await timed(address, '/api/pieces', from, {
            method: 'POST',
            body: JSON.stringify({ source }),
          });
          if (status === 201) saves.push(ms);
          else if (working) wrong.push(`somebody at work was answered ${status}`);
          await new Promise((resolve) => setTimeout(resolve, 1000));
        }
      });
      note('50 people who save once a second', await asOther(address, seconds));
      working = false;
      await Promise.all(people);
      figures['50 people: a save, ms at 50/95 %'] =
        `${percentile(saves, 0.5).toFixed(0)} / ${percentile(saves, 0.95).toFixed(0)}`;

      // Their pieces are on the shelf now, which takes longer than the one before.
      const after = await asOther(address, seconds);
      note('quiet again, with their pieces', after);
      const usual = percentile(after.shelf, 0.5);
      const slower = (what: string, found: Awaited<ReturnType<typeof asOther>>) => {
        const shelf = percentile(found.shelf, 0.5);
        if (shelf > 2 * usual + 3)
          slow.push(
            `${what}: others wait ${shelf.toFixed(0)} ms for the shelf, more than twice the ${usual.toFixed(0)} ms as usual`,
          );
      };

      const port = Number(new URL(address).port);
      const half = Array.from({ length: 400 }, () => {
        const socket = net.connect({ port, host: '127.0.0.1', localAddress: '127.0.0.3' }, () =>
          socket.write('GET / HTTP/1.1\r\nHost: 127'),
        );
        socket.on('error', () => undefined);
        return socket;
      });
      const beside = await asOther(address, seconds);
      note('400 half-open connections', beside);
      for (const socket of half) socket.destroy();
      slower('half-open connections', beside);

      // From a process of its own, so that what is measured is not how busy the one is that measures.
      const flood = fork(path.join(import.meta.dirname, 'flood.mjs'), [address, '127.0.0.4', '60']);
      const heard = () =>
        new Promise<number>((resolve, reject) => {
          flood.once('message', (n) => resolve(n as number));
          flood.once('exit', () => reject(new Error('The flood ended before it was told to.')));
        });
      // What may come at once has come when the first is turned away, and the limit holds.
      await heard();
      const refused = heard();
      const under = await asOther(address, seconds);
      flood.send('end');
      note('a flood of one client, 60 at once', under);
      figures['of the flood turned away'] = await refused;
      slower('a flood', under);

      let importing = true;
      const heavy = Buffer.from(`v 0 0 0\nv 1 0 0\nv 0 1 0\n${'f 1 2 3\n'.repeat(990_000)}`);
      const imports = Array.from({ length: 2 }, async () => {
        while (importing)
          await timed(address, '/api/assets?name=heavy.obj', '127.0.0.5', { method: 'POST', body: heavy });
      });
      const during = await asOther(address, seconds);
      importing = false;
      await Promise.all(imports);
      note('two imports of a million faces at a time', during);
      // Of few answers the slowest one is not the 99th of a hundred.
      if (during.health.length >= 200 && percentile(during.health, 0.99) > 50)
        slow.push(
          `while files come in, health takes ${percentile(during.health, 0.99).toFixed(0)} ms at 99 %, of 50 asked`,
        );
      return { figures, wrong, slow };
    } finally {
      maypole.stop();
    }
  },
};
