import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { processesBy } from '../tools/cli/identity.mjs';

const maypole = path.join(import.meta.dirname, '../maypole');

/** A Maypole of its own, in a folder of its own, on loopback, to be treated badly. */
export class Installation {
  readonly data = mkdtempSync(path.join(os.tmpdir(), 'maypole-trial-'));
  private command: ChildProcess | undefined;
  address = '';
  private said = '';

  constructor(private readonly env: NodeJS.ProcessEnv = {}) {
    // Debian's postgres user has to reach it.
    chmodSync(this.data, 0o755);
  }

  /** Starts it; resolves with the milliseconds until it was ready. */
  async start(): Promise<number> {
    const began = performance.now();
    this.said = '';
    const port = this.address ? ['--port', new URL(this.address).port] : [];
    const child = spawn(maypole, ['start', ...port], { env: { ...process.env, ...this.env, MAYPOLE_DATA: this.data } });
    this.command = child;
    const take = (d: Buffer) => (this.said += d.toString());
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    const end = Date.now() + 180_000;
    for (;;) {
      const found = /(?:ready|runs) at (http\S+)/.exec(this.said);
      if (found) {
        this.address = found[1];
        return performance.now() - began;
      }
      if (child.exitCode !== null || Date.now() > end) throw new Error(`It did not start: ${this.said}`);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }

  /** The processes there are of it now: its command, the application, the database. */
  processes(): { command?: number; application?: number; database?: number } {
    const run = this.note('run.json') as { application?: { pid: number } } | undefined;
    const line = `/postgres\0-D\0${this.data}/database/cluster\0`;
    const [database] = processesBy((words: string) => words.includes(line));
    return {
      command: this.command?.exitCode === null && this.command.signalCode === null ? this.command.pid : undefined,
      application: run?.application?.pid,
      database,
    };
  }

  private note(name: string): unknown {
    try {
      return JSON.parse(readFileSync(path.join(this.data, name), 'utf8'));
    } catch {
      return undefined;
    }
  }

  async answers(): Promise<boolean> {
    return fetch(`${this.address}/api/health`, { signal: AbortSignal.timeout(1000) }).then(
      (r) => r.ok,
      () => false,
    );
  }

  stop(): void {
    spawnSync(maypole, ['stop'], { env: { ...process.env, MAYPOLE_DATA: this.data } });
    rmSync(this.data, { recursive: true, force: true });
  }
}
