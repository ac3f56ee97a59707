import { fork, type ChildProcess } from 'node:child_process';
import { sql } from 'drizzle-orm';
import { database } from '../data/db';
import { log } from '../gateway/log';
import { awaitsCheck } from './made-again';
import { waitsForRoom } from './room';
import { HERE } from './worker';

declare global {
  var maypoleWorker: LocalWorker | undefined;
}

/** Milliseconds between looks for work that nobody announced. */
const LOOK = 15_000;

/**
 * Keeps a worker beside the application: started when there is work, and absent otherwise. One that dies is restarted,
 * with a delay if it dies at once.
 */
export class LocalWorker {
  private child: ChildProcess | undefined;
  private startedAt = 0;

  constructor(private readonly program: string) {
    setInterval(() => void this.look(), LOOK).unref();
    // What was under way when the application ended continues at once.
    setTimeout(() => void this.look(), 500).unref();
  }

  /** There may be work. */
  wake(): void {
    void this.look();
  }

  private async look(): Promise<void> {
    if (this.child || Date.now() - this.startedAt < 2000) return;
    try {
      const { rows } = await database().execute(sql`
        select 1 from renders where not paused and (state = 'files' or (state = 'frames' and light = 'true')) limit 1`);
      const work = rows.length > 0 || (await awaitsCheck(database(), HERE));
      if (work && !(await waitsForRoom())) this.start();
    } catch {
      // The database is away; the next look finds it.
    }
  }

  private start(): void {
    if (this.child) return;
    this.startedAt = Date.now();
    const child = fork(this.program, [], { stdio: ['ignore', 'ignore', 'pipe', 'ipc'] });
    this.child = child;
    let says = '';
    child.stderr!.on('data', (d: Buffer) => (says = (says + d.toString()).slice(-2000)));
    child.on('error', () => undefined);
    child.on('exit', (status, signal) => {
      this.child = undefined;
      if (status !== 0) log().error({ status, signal, says }, 'the worker ended by itself');
      setTimeout(() => void this.look(), 2500).unref();
    });
  }
}

/** Wakes the local worker, if there is one. */
export function wakeWorker(): void {
  globalThis.maypoleWorker?.wake();
}

/** Keeps a local worker from now on, unless there is to be none. */
export function keepWorker(): void {
  const program = process.env.MAYPOLE_WORK;
  if (program && process.env.MAYPOLE_WORK_THREADS !== '0') globalThis.maypoleWorker ??= new LocalWorker(program);
}
