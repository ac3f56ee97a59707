import { form } from '@maypole/core/fixtures/forms';
import { writePly } from '@maypole/core/files/ply';
import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { randomSource } from '@maypole/core/maths/random';
import { Installation } from './installation';
import { percentile, type Trial } from './trial';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const document = (name: string) => writePiece({ ...newPiece(name), ribbons: [newRibbon('torus', 0)] });

/** Asks until there is an answer; undefined for a request that was lost on its way. */
async function ask(
  url: string,
  init: RequestInit,
  withBody = true,
): Promise<{ status: number; body: unknown } | undefined> {
  try {
    const response = await fetch(url, { ...init, signal: AbortSignal.timeout(15_000) });
    if (response.status === 429) {
      // One who asks so much has to wait, as anyone.
      await pause(1000 * Number(response.headers.get('retry-after') ?? 1));
      return await ask(url, init, withBody);
    }
    return { status: response.status, body: withBody ? await response.json() : null };
  } catch {
    return undefined;
  }
}

/** Somebody who edits one piece: saves, and notes down what was acknowledged. */
class Editor {
  readonly acknowledged = new Map<number, string>();
  id = '';
  private head = 1;
  private count = 0;
  constructor(
    private readonly maypole: Installation,
    private readonly number: number,
  ) {}

  async begin(): Promise<void> {
    const source = document(`Editor ${this.number}`);
    const made = await ask(`${this.maypole.address}/api/pieces`, { method: 'POST', body: JSON.stringify({ source }) });
    if (made?.status !== 201) throw new Error(`A piece could not be made: ${JSON.stringify(made)}`);
    this.id = (made.body as { id: string }).id;
    this.acknowledged.set(1, source);
  }

  async save(): Promise<void> {
    const source = document(`Editor ${this.number}, save ${++this.count} ${Math.random()}`);
    const saved = await ask(`${this.maypole.address}/api/pieces/${this.id}`, {
      method: 'PUT',
      body: JSON.stringify({ source, basedOn: this.head }),
    });
    if (saved?.status === 200) {
      this.head = (saved.body as { revision: number }).revision;
      this.acknowledged.set(this.head, source);
    } else if (saved?.status === 409) {
      // A save whose answer was lost is there: this one is kept beside it.
      const { head, kept } = saved.body as { head: number; kept: number };
      this.acknowledged.set(kept, source);
      this.head = head;
    }
  }

  /** What was acknowledged and is not there to the letter. */
  async missing(): Promise<string[]> {
    const wrong: string[] = [];
    for (const [number, source] of this.acknowledged) {
      const found = await ask(`${this.maypole.address}/api/pieces/${this.id}/revisions/${number}`, {});
      if ((found?.body as { source?: string } | undefined)?.source !== source)
        wrong.push(
          `revision ${number} of ${this.id} was acknowledged and is ` +
            `${found?.status === 200 ? 'not the same' : `not there (${found?.status ?? 'no answer'})`}`,
        );
    }
    return wrong;
  }
}

/** Whatever is killed while people edit and files come in, what was acknowledged is there, to the letter. */
export const kills: Trial = {
  help: 'whatever is killed while people edit, what was acknowledged is there to the letter',
  short: 6,
  full: 200,
  async run(times, seed, tell) {
    const random = randomSource(seed);
    const maypole = new Installation();
    const wrong: string[] = [];
    const starts: number[] = [];
    const killed: Record<string, number> = {};
    const files = new Set<string>();
    let working = true;
    try {
      await maypole.start();
      const editors = Array.from({ length: 4 }, (_, i) => new Editor(maypole, i));
      for (const editor of editors) await editor.begin();
      const work = editors.map(async (editor) => {
        while (working) {
          await editor.save();
          await pause(5 + random() * 30);
        }
      });
      const imports = (async () => {
        for (let n = 2; working; n++) {
          const bytes = writePly(form('geodesic', { frequency: 2 + (n % 20) }));
          const taken = await ask(`${maypole.address}/api/assets?name=trial.ply`, {
            method: 'POST',
            body: Buffer.from(bytes),
          });
          if (taken?.status === 201) files.add((taken.body as { fingerprint: string }).fingerprint);
          await pause(50);
        }
      })();
      for (let i = 0; i < times; i++) {
        await pause(300 + random() * 900);
        const there = maypole.processes();
        const whom = (['command', 'application', 'database', 'all'] as const)[Math.floor(random() * 4)];
        killed[whom] = (killed[whom] ?? 0) + 1;
        for (const [name, pid] of Object.entries(there))
          if (pid && (whom === 'all' || whom === name)) {
            try {
              process.kill(pid, 'SIGKILL');
            } catch {
              // It had ended.
            }
          }
        await pause(random() * 300);
        // The database alone is started again by its command; everything else by hand.
        if (whom !== 'database') starts.push(await maypole.start());
        const end = Date.now() + 20_000;
        while (!(await maypole.answers())) {
          if (Date.now() > end) {
            wrong.push(`after killing ${whom} (number ${i}) it did not answer within 20 s`);
            starts.push(await maypole.start());
            break;
          }
          await pause(100);
        }
        if (i % 20 === 19)
          tell(`${i + 1} kills, ${editors.reduce((n, e) => n + e.acknowledged.size, 0)} saves acknowledged`);
      }
      working = false;
      await Promise.all([...work, imports]);
      for (const editor of editors) wrong.push(...(await editor.missing()));
      for (const fingerprint of files)
        if ((await ask(`${maypole.address}/api/assets/${fingerprint}`, { method: 'HEAD' }, false))?.status !== 200)
          wrong.push(`file ${fingerprint} was taken in and is not there`);
      const late = Math.max(...starts, 0);
      if (late > 15_000) wrong.push(`one start took ${Math.round(late / 1000)} s`);
      return {
        figures: {
          kills: Object.entries(killed)
            .map(([w, n]) => `${w} ${n}`)
            .join(', '),
          'saves acknowledged': editors.reduce((n, e) => n + e.acknowledged.size, 0),
          'files taken in': files.size,
          'starts: median, most, in ms': `${Math.round(percentile(starts, 0.5))}, ${Math.round(late)}`,
        },
        wrong,
      };
    } finally {
      working = false;
      maypole.stop();
    }
  },
};
