import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { log } from '../gateway/log';
import { metrics } from '../gateway/metrics';
import { AppError } from '../http/app-error';
import { FairQueue } from './fair-queue';
import { IDLE, WAITING_OF_ONE, type JobLimits } from './limits';

/** Messages to and from a process. */
export interface Order {
  readonly job: string;
  readonly given: unknown;
}
export type Answer =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly status: number; readonly error: string; readonly fault?: string };

interface Task extends Order {
  readonly client: string;
  readonly limits: JobLimits;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: Error) => void;
}

interface Seat {
  readonly child: ChildProcess;
  task: Task | undefined;
  began: number;
  watch: NodeJS.Timeout | undefined;
  rest: NodeJS.Timeout | undefined;
  says: string;
}

/** Milliseconds between looks at a job's memory. */
const LOOK = 50;
/** Megabytes a process may keep from one job to the next. */
const RECYCLED = 384;

interface PoolOptions {
  /** The program that runs jobs: it takes an Order and returns an Answer. */
  readonly program: string;
  /** Most processes. */
  readonly most?: number;
}

/**
 * Runs jobs in processes with limits of time and memory. Processes rather than threads: array buffers of a thread lie
 * outside its heap, and can be neither measured nor limited; a process can be ended with all it holds.
 */
export class JobPool {
  private readonly seats: Seat[] = [];
  /** Fast and slow jobs: the latter never get the last process. */
  private readonly light = new FairQueue<Task>();
  private readonly heavy = new FairQueue<Task>();
  private readonly most: number;
  private closed = false;

  constructor(private readonly options: PoolOptions) {
    this.most = Math.max(2, options.most ?? availableParallelism());
  }

  /**
   * Runs one job.
   *
   * @throws AppError with a sentence: the job's own, the limit it exceeded (422), or that too many wait (429)
   */
  run(client: string, job: string, given: unknown, limits: JobLimits): Promise<unknown> {
    if (this.light.of(client) + this.heavy.of(client) >= WAITING_OF_ONE)
      return Promise.reject(
        new AppError(429, `${WAITING_OF_ONE} of your jobs wait already; try again when some are done.`),
      );
    return new Promise((resolve, reject) => {
      (limits.heavy ? this.heavy : this.light).push(client, { client, job, given, limits, resolve, reject });
      this.next();
    });
  }

  private next(): void {
    metrics().waiting.set(this.light.length + this.heavy.length);
    if (this.closed) return;
    const free = this.seats.find((s) => !s.task);
    if (!free && this.seats.length >= this.most) return;
    const task = this.due();
    if (!task) return;
    const seat = free ?? this.seat();
    metrics().waiting.set(this.light.length + this.heavy.length);
    clearTimeout(seat.rest);
    seat.task = task;
    seat.began = performance.now();
    seat.watch = setInterval(() => this.look(seat), LOOK);
    seat.child.send({ job: task.job, given: task.given } satisfies Order, (error) => {
      if (error) this.end(seat, new AppError(500, 'The process that was to do this has ended; try again.'));
    });
    this.next();
  }

  /** The next job for which there is a process. */
  private due(): Task | undefined {
    const soon = this.light.shift();
    if (soon) return soon;
    const under = this.seats.flatMap((s) => (s.task?.limits.heavy ? [s.task.client] : []));
    return under.length < this.most - 1 ? this.heavy.shift((client) => !under.includes(client)) : undefined;
  }

  private seat(): Seat {
    const child = fork(this.options.program, [], {
      serialization: 'advanced',
      // Its heap is bounded by this; memory outside is polled.
      execArgv: ['--max-old-space-size=2048'],
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    });
    const seat: Seat = { child, task: undefined, began: 0, watch: undefined, rest: undefined, says: '' };
    child.stderr!.on('data', (d: Buffer) => (seat.says = (seat.says + d.toString()).slice(-2000)));
    child.on('message', (answer) => this.done(seat, answer as Answer));
    child.on('error', () => undefined);
    child.on('exit', () => {
      const known = this.seats.indexOf(seat);
      if (known >= 0) this.seats.splice(known, 1);
      clearInterval(seat.watch);
      clearTimeout(seat.rest);
      if (seat.task) {
        log().error({ job: seat.task.job, says: seat.says }, 'a job ended its process');
        this.settle(seat, 'died', (t) =>
          t.reject(new AppError(500, `This could not be done: its process ended by itself. ${t.limits.remedy}`)),
        );
      }
      this.next();
    });
    this.seats.push(seat);
    return seat;
  }

  private settle(seat: Seat, how: string, tell: (task: Task) => void): void {
    const { task } = seat;
    if (!task) return;
    clearInterval(seat.watch);
    seat.task = undefined;
    metrics().jobs.inc({ job: task.job, how });
    metrics().jobSeconds.observe({ job: task.job }, (performance.now() - seat.began) / 1000);
    tell(task);
  }

  private done(seat: Seat, answer: Answer): void {
    this.settle(seat, answer.ok ? 'done' : 'refused', (task) => {
      if (answer.ok) return task.resolve(answer.value);
      if (answer.fault) return task.reject(Object.assign(new Error(answer.fault), { status: answer.status }));
      task.reject(new AppError(answer.status, answer.error));
    });
    // Memory left by a large job is not counted against the next one.
    if (residentMegabytes(seat.child.pid!) > RECYCLED) this.end(seat);
    else {
      seat.rest = setTimeout(() => {
        if (!seat.task && this.seats.length > 1) this.end(seat);
      }, IDLE);
      seat.rest.unref();
    }
    this.next();
  }

  /** Ends a process at once, and rejects its job. */
  private end(seat: Seat, why?: Error): void {
    const at = this.seats.indexOf(seat);
    if (at >= 0) this.seats.splice(at, 1);
    this.settle(seat, 'ended', (t) => t.reject(why ?? new Error('ended')));
    clearTimeout(seat.rest);
    seat.child.kill('SIGKILL');
  }

  private look(seat: Seat): void {
    const { limits, job } = seat.task!;
    const seconds = (performance.now() - seat.began) / 1000;
    const megabytes = residentMegabytes(seat.child.pid!);
    const past =
      seconds > limits.seconds
        ? `more than ${limits.seconds} seconds`
        : megabytes > limits.megabytes
          ? `more than ${limits.megabytes} MB of memory`
          : undefined;
    if (!past) return;
    log().warn({ job, seconds: Math.round(seconds), megabytes: Math.round(megabytes) }, 'a job was ended');
    this.end(seat, new AppError(422, `This took ${past}, the most that one job may, and was ended. ${limits.remedy}`));
    this.next();
  }

  /** Ends all processes; waiting jobs are refused. */
  close(): void {
    this.closed = true;
    const ending = new AppError(503, 'Maypole is just ending; try again when it has been started.');
    for (const queue of [this.light, this.heavy]) for (let t = queue.shift(); t; t = queue.shift()) t.reject(ending);
    for (const seat of [...this.seats]) this.end(seat, ending);
  }

  /** Number of processes. */
  get size(): number {
    return this.seats.length;
  }
}

/** Resident memory of a process in megabytes (proc(5): VmRSS in /proc/pid/status, in kB whatever the page size). */
function residentMegabytes(pid: number): number {
  try {
    return Number(/^VmRSS:\s+(\d+) kB/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    // It has ended, which is reported separately.
    return 0;
  }
}
