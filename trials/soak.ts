import { form } from '@maypole/core/fixtures/forms';
import { writePly } from '@maypole/core/files/ply';
import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { readFileSync } from 'node:fs';
import { Installation } from './installation';
import type { Trial } from './trial';

/** Megabytes, handles and connections that the server has. */
async function taken(address: string) {
  const text = await (await fetch(`${address}/api/metrics`)).text();
  const value = (name: string) => Number(new RegExp(`^${name} (\\S+)`, 'm').exec(text)?.[1] ?? NaN);
  return {
    heap: value('nodejs_heap_size_used_bytes') / 1e6,
    resident: value('process_resident_memory_bytes') / 1e6,
    handles: value('nodejs_active_handles_total'),
    files: value('process_open_fds'),
  };
}

/** For as many minutes as asked, people edit and files come in and go out; memory and handles stay flat. */
export const soak: Trial = {
  help: 'for so many minutes of work, memory and handles stay flat (60 in full)',
  short: 3,
  full: 60,
  async run(minutes, _seed, tell) {
    const maypole = new Installation();
    const wrong: string[] = [];
    try {
      await maypole.start();
      const { address } = maypole;
      const end = Date.now() + minutes * 60_000;
      const series: Awaited<ReturnType<typeof taken>>[] = [];
      let rounds = 0;
      let next = Date.now() + (minutes * 60_000) / 10;
      while (Date.now() < end) {
        const source = writePiece({ ...newPiece(`Soak ${rounds}`), ribbons: [newRibbon('torus', 0)] });
        const made = (await (
          await fetch(`${address}/api/pieces`, { method: 'POST', body: JSON.stringify({ source }) })
        ).json()) as { id: string };
        const url = `${address}/api/pieces/${made.id}`;
        await fetch(url, {
          method: 'PUT',
          body: JSON.stringify({ source: source.replace('Soak', 'Soaked'), basedOn: 1 }),
        });
        await (await fetch(`${url}/file`)).text();
        await fetch(`${address}/api/assets?name=x.ply`, {
          method: 'POST',
          body: Buffer.from(writePly(form('geodesic', { frequency: 2 + (rounds % 30) }))),
        });
        await (await fetch(`${address}/`)).text();
        await fetch(url, { method: 'DELETE' });
        rounds++;
        if (Date.now() < next) continue;
        next += (minutes * 60_000) / 10;
        const now = await taken(address);
        series.push(now);
        tell(
          `${series.length} of 10: heap ${now.heap.toFixed(0)} MB, resident ${now.resident.toFixed(0)} MB, ` +
            `${now.handles} handles, ${now.files} files open`,
        );
      }
      const [early, late] = [series[2] ?? series[0], series.at(-1)!];
      if (late.resident > 1.5 * early.resident + 50)
        wrong.push(`memory grew from ${early.resident.toFixed(0)} to ${late.resident.toFixed(0)} MB`);
      if (late.handles > early.handles + 20) wrong.push(`handles grew from ${early.handles} to ${late.handles}`);
      const log = readFileSync(`${maypole.data}/logs/maypole.jsonl`, 'utf8');
      if (/"level":50/.test(log)) wrong.push('its log tells of a fault');
      return {
        figures: {
          minutes,
          rounds,
          'resident MB, early and late': `${early.resident.toFixed(0)}, ${late.resident.toFixed(0)}`,
          handles: `${early.handles}, ${late.handles}`,
        },
        wrong,
      };
    } finally {
      maypole.stop();
    }
  },
};
