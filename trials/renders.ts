import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { MotionDoc } from '@maypole/core/declare/documents';
import { outputs } from '@maypole/core/output/index';
import { newItem, newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { randomSource } from '@maypole/core/maths/random';
import { writePiece } from '@maypole/core/piece/read';
import { Installation } from './installation';
import type { Trial } from './trial';

const FRAMES = 60;
/** Kills while one render goes on, after which it is let come to its end. */
const KILLS_OF_ROUND = 10;
/** Seconds that a render may take. */
const PATIENCE = 300;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

interface Part {
  readonly index: number;
  readonly state: string;
  readonly doneAt: string | null;
}
interface Render {
  readonly state: string;
  readonly message: string | null;
  readonly done: number;
  readonly parts: readonly Part[];
  readonly files: readonly {
    readonly kind: string;
    readonly state: string;
    readonly count: number;
    readonly report: { readonly sound: boolean; readonly words: string } | null;
  }[];
}

/** A twisting ring, small and quick to make. */
function document(): string {
  const fresh = newPiece('Trial');
  const angle: MotionDoc = { motion: 'wave', shape: 'sine', low: -90, high: 90, turns: 1, phase: 0 };
  return writePiece({
    ...fresh,
    loop: { frames: FRAMES, fps: 25 },
    format: { width: 48, height: 48 },
    render: { ...fresh.render, values: { ...fresh.render.values, light: 'true', samples: 8, denoise: false } },
    outputs: [newItem(outputs.get('png'), { depth: '16' }), newItem(outputs.get('mp4'))],
    ribbons: [{ ...newRibbon('torus', 0), steps: [newStep('torus'), newStep('twist', { angle })] }],
  });
}

/** A disk of its own for renders, in memory, that can be filled to the last byte; only root may have one. */
class SmallDisk {
  readonly folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-trial-disk-'));
  /** 2 GB stay free, so that it has little more than that. */
  readonly there = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=2400m', 'tmpfs', this.folder]).status === 0;

  constructor() {
    chmodSync(this.folder, 0o755);
  }

  /** Is full for so many milliseconds. */
  async fill(ms: number): Promise<void> {
    const filler = path.join(this.folder, 'filler');
    // As much as there is: it is written until there is no room for more.
    spawnSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=16M']);
    await pause(ms);
    rmSync(filler, { force: true });
  }

  remove(): void {
    if (this.there) spawnSync('umount', [this.folder]);
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A server with workers that join it, each a command of its own. */
class Farm {
  readonly disk = new SmallDisk();
  readonly maypole = new Installation({
    // Longer than from one sign of life to the next: a frame that waits for room on the disk is not taken from its worker.
    MAYPOLE_LEASE_SECONDS: '12',
    MAYPOLE_WORK_THREADS: '1',
    ...(this.disk.there ? { MAYPOLE_RENDERS: this.disk.folder } : {}),
  });
  private readonly joined: (ChildProcess | undefined)[] = [];
  private key = '';

  /** Asks until there is an answer: what is killed meanwhile comes back. */
  async ask(route: string, method = 'GET', body?: object): Promise<unknown> {
    for (let i = 0; i < 300; i++) {
      try {
        const answer = await fetch(`${this.maypole.address}${route}`, {
          method,
          ...(body ? { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } } : {}),
          signal: AbortSignal.timeout(10_000),
        });
        if (answer.status < 500 && answer.status !== 429) {
          if (!answer.ok) throw new Error(`${method} ${route}: ${answer.status} ${await answer.text()}`);
          return answer.status === 204 ? undefined : answer.json();
        }
      } catch (error) {
        if (error instanceof Error && /: 4\d\d /.test(error.message)) throw error;
      }
      await pause(200);
    }
    throw new Error(`${route} has no answer`);
  }

  async start(): Promise<void> {
    await this.maypole.start();
    this.key = ((await this.ask('/api/people/keys', 'POST', { name: 'Trial', role: 'run' })) as { key: string }).key;
  }

  join(n: number): void {
    const child = spawn(process.execPath, ['--import', 'tsx', path.join(import.meta.dirname, '../tools/work.ts')], {
      stdio: 'ignore',
      env: {
        ...process.env,
        MAYPOLE_SERVER: this.maypole.address,
        MAYPOLE_KEY: this.key,
        MAYPOLE_THREADS: '1',
        MAYPOLE_NAME: `Worker ${n}`,
      },
    });
    this.joined[n] = child;
  }

  /** Kills a joined worker and has another in its place. */
  replace(n: number): void {
    this.joined[n]?.kill('SIGKILL');
    this.join(n);
  }

  /** Kills the worker beside the application; it is started again by it. */
  killLocal(): boolean {
    const { application } = this.maypole.processes();
    for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p))) {
      try {
        const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
        const parent = /^PPid:\s*(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
        if (!line.includes('/maypole/work.mjs') || Number(parent) !== application) continue;
        process.kill(Number(pid), 'SIGKILL');
        return true;
      } catch {
        // It has ended.
      }
    }
    return false;
  }

  leave(): void {
    for (const child of this.joined) child?.kill('SIGKILL');
  }

  /** Fingerprints of the bytes of all frames of a render. */
  async frames(id: string): Promise<string[]> {
    const out: string[] = [];
    for (let i = 0; i < FRAMES; i++) {
      const answer = await fetch(`${this.maypole.address}/api/renders/${id}/frames/${i}`);
      if (!answer.ok) throw new Error(`frame ${i}: ${answer.status}`);
      out.push(
        createHash('sha256')
          .update(Buffer.from(await answer.arrayBuffer()))
          .digest('hex'),
      );
    }
    return out;
  }
}

const OVER = ['done', 'failed', 'cancelled'];

/** Whatever is killed while a render goes on, it comes to its end with every frame, each accepted once, the same in every bit. */
export const renders: Trial = {
  help: 'whatever is killed or filled while three workers render, every frame is there once, the same in every bit',
  short: 12,
  full: 60,
  async run(times, seed, tell) {
    const random = randomSource(seed);
    const farm = new Farm();
    const wrong: string[] = [];
    const killed: Record<string, number> = {};
    try {
      await farm.start();
      const made = (await farm.ask('/api/pieces', 'POST', { source: document() })) as { id: string; revision: number };
      const begin = async () =>
        ((await farm.ask('/api/renders', 'POST', { piece: made.id, revision: made.revision })) as { id: string }).id;
      const look = async (id: string) => (await farm.ask(`/api/renders/${id}`)) as Render;
      const whole = async (id: string, kill: (done: number) => Promise<void>) => {
        const accepted = new Map<number, string>();
        let twice = 0;
        const end = Date.now() + PATIENCE * 1000;
        for (;;) {
          const render = await look(id);
          for (const p of render.parts) {
            if (p.state !== 'done') {
              if (accepted.has(p.index)) twice++;
              continue;
            }
            const known = accepted.get(p.index);
            if (known !== undefined && known !== p.doneAt) twice++;
            accepted.set(p.index, p.doneAt!);
          }
          if (OVER.includes(render.state)) return { render, twice };
          if (Date.now() > end) throw new Error(`the render did not end: ${render.state}, ${render.done} of ${FRAMES}`);
          await kill(render.done);
          await pause(150);
        }
      };
      const first = await begin();
      const calm = await whole(first, () => Promise.resolve());
      if (calm.render.state !== 'done')
        wrong.push(`undisturbed it ended as ${calm.render.state}: ${calm.render.message}`);
      const wanted = await farm.frames(first);
      tell('the undisturbed render is there');
      if (!farm.disk.there) tell('its disk is not filled: only root may mount one in memory');
      let kills = 0;
      for (let round = 0; kills < times; round++) {
        // Nothing is taken over from the one before.
        for (const r of ((await farm.ask('/api/renders')) as { renders: { id: string }[] }).renders)
          await farm.ask(`/api/renders/${r.id}`, 'DELETE');
        farm.join(0);
        farm.join(1);
        const id = await begin();
        let ofRound = 0;
        const { render, twice } = await whole(id, async () => {
          if (kills >= times || ofRound++ >= KILLS_OF_ROUND) return;
          await pause(400 + random() * 900);
          const whom = (['joined', 'joined', 'local', 'application', 'database', 'all', 'disk'] as const)[
            Math.floor(random() * (farm.disk.there ? 7 : 6))
          ];
          const there = farm.maypole.processes();
          if (whom === 'disk') await farm.disk.fill(1000 + random() * 5000);
          else if (whom === 'joined') farm.replace(random() < 0.5 ? 0 : 1);
          else if (whom === 'local') {
            if (!farm.killLocal()) return;
          } else
            for (const [name, pid] of Object.entries(there))
              if (pid && (whom === 'all' || whom === name)) {
                try {
                  process.kill(pid, 'SIGKILL');
                } catch {
                  // It had ended.
                }
              }
          kills++;
          killed[whom] = (killed[whom] ?? 0) + 1;
          if (whom === 'application' || whom === 'all') await farm.maypole.start();
        });
        farm.leave();
        if (render.state !== 'done') wrong.push(`round ${round} ended as ${render.state}: ${render.message}`);
        if (twice > 0) wrong.push(`round ${round}: ${twice} accepted frames were made again`);
        if (render.done !== FRAMES) wrong.push(`round ${round}: ${render.done} frames of ${FRAMES}`);
        const found = render.state === 'done' ? await farm.frames(id) : wanted;
        const others = found.filter((sha, i) => sha !== wanted[i]).length;
        if (others > 0) wrong.push(`round ${round}: ${others} frames are not the same in every bit`);
        for (const f of render.files)
          if (f.state !== 'done' || (f.kind === 'png' && f.count !== FRAMES) || !f.report?.sound)
            wrong.push(`round ${round}: ${f.kind} is ${f.state}, ${f.count} files, ${f.report?.words}`);
        tell(`${kills} kills, round ${round + 1} ended whole`);
      }
      return {
        figures: {
          kills: Object.entries(killed)
            .map(([w, n]) => `${w} ${n}`)
            .join(', '),
        },
        wrong,
      };
    } finally {
      farm.leave();
      farm.maypole.stop();
      farm.disk.remove();
    }
  },
};
