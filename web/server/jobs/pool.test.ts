import path from 'node:path';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { FairQueue } from './fair-queue';
import { WAITING_OF_ONE, type JobLimits } from './limits';
import { JobPool } from './pool';

const program = path.join(import.meta.dirname, 'fixtures/odd-jobs.mjs');
const LIMITS: JobLimits = { seconds: 20, megabytes: 2000, remedy: 'Make it smaller.' };
const pool = new JobPool({ program, most: 2 });
const run = (job: string, given: unknown = {}, limits: Partial<JobLimits> = {}, client = 'a') =>
  pool.run(client, job, given, { ...LIMITS, ...limits });
const alive = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

afterAll(() => pool.close());

describe('jobs in processes of their own', () => {
  it('give what they work out, bytes among it', async () => {
    expect(await run('add', { a: 2, b: 3 })).toBe(5);
    expect(await run('size', { bytes: Buffer.alloc(8_000_000) })).toBe(8_000_000);
  });
  it('say what they refuse, and hide what is a fault of ours', async () => {
    await expect(run('refuse')).rejects.toMatchObject({
      name: 'AppError',
      status: 422,
      message: 'This is not wanted.',
    });
    await expect(run('fault')).rejects.toMatchObject({
      name: 'Error',
      message: expect.stringContaining('TypeError') as string,
    });
  });
  it('that take too long are ended, and the next one is done', async () => {
    const began = Date.now();
    await expect(run('spin', {}, { seconds: 0.3 })).rejects.toMatchObject({
      status: 422,
      message: expect.stringMatching(/more than 0\.3 seconds.*Make it smaller\./) as string,
    });
    expect(Date.now() - began).toBeLessThan(5000);
    expect(await run('add', { a: 1, b: 1 })).toBe(2);
  });
  it('that take too much memory outside their heap are ended, and all they held is free', async () => {
    const single = new JobPool({ program, most: 1 });
    const pid = (await single.run('a', 'pid', {}, LIMITS)) as number;
    await expect(single.run('a', 'hoard', {}, { ...LIMITS, megabytes: 300 })).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('more than 300 MB of memory') as string,
    });
    await vi.waitFor(() => expect(alive(pid)).toBe(false), { timeout: 20_000 });
    expect(await single.run('a', 'add', { a: 1, b: 1 }, LIMITS)).toBe(2);
    single.close();
  });
  it('whose process ends by itself are told, and the next one is done', async () => {
    await expect(run('crash')).rejects.toMatchObject({
      status: 500,
      message: expect.stringContaining('ended by itself') as string,
    });
    expect(await run('add', { a: 4, b: 4 })).toBe(8);
  });
  it('of others are done between those of one who asks for much', async () => {
    const order: string[] = [];
    const many = Array.from({ length: 12 }, () => run('wait', { ms: 30 }, {}, 'much').then(() => order.push('much')));
    const one = run('wait', { ms: 1 }, {}, 'little').then(() => order.push('little'));
    await Promise.all([...many, one]);
    expect(order.indexOf('little')).toBeLessThan(5);
  });
  it('of one who asks for too many are refused', async () => {
    const all = Array.from({ length: WAITING_OF_ONE + 5 }, () =>
      run('wait', { ms: 1 }, {}, 'flood').then(
        () => 'done',
        (e: { status: number }) => e.status,
      ),
    );
    const how = await Promise.all(all);
    expect(how.filter((h) => h === 429).length).toBeGreaterThan(0);
    expect(how.filter((h) => h === 'done').length).toBeGreaterThanOrEqual(WAITING_OF_ONE);
  });
  it('are never more at once than there are processes', () => expect(pool.size).toBeLessThanOrEqual(2));
  it('that wait when all ends are refused', async () => {
    const other = new JobPool({ program, most: 1 });
    const both = [other.run('a', 'wait', { ms: 60_000 }, LIMITS), other.run('a', 'add', { a: 1, b: 1 }, LIMITS)];
    other.close();
    for (const one of both) await expect(one).rejects.toMatchObject({ status: 503 });
  });
});

describe('waiting lines', () => {
  it('are served in turn, each in its own order', () => {
    const queue = new FairQueue<string>();
    for (const [who, what] of ['a1', 'a2', 'a3', 'b1', 'c1', 'b2'].map((t) => [t[0], t])) queue.push(who, what);
    expect(queue.length).toBe(6);
    expect(queue.of('a')).toBe(3);
    const out = Array.from({ length: 7 }, () => queue.shift());
    expect(out).toEqual(['a1', 'b1', 'c1', 'a2', 'b2', 'a3', undefined]);
    expect([queue.length, queue.of('a')]).toEqual([0, 0]);
  });
});

describe('what may take long and what is done soon', () => {
  const heavy = { ...LIMITS, heavy: true } as const;
  it('one process is always left for what is done soon, however much of the other waits', async () => {
    const two = new JobPool({ program, most: 2 });
    const order: string[] = [];
    const slow = ['a', 'b', 'c'].map((client) =>
      two.run(client, 'wait', { ms: 700 }, heavy).then(() => order.push(`slow ${client}`)),
    );
    const soon = Array.from({ length: 5 }, (_, i) =>
      two.run('a', 'add', { a: i, b: 1 }, LIMITS).then(() => order.push('soon')),
    );
    await Promise.all(soon);
    expect(order).toEqual(['soon', 'soon', 'soon', 'soon', 'soon']);
    await Promise.all(slow);
    two.close();
  });
  it('of one client one that may take long is under way at a time; another’s comes before its next', async () => {
    const four = new JobPool({ program, most: 4 });
    const order: string[] = [];
    const run = (client: string) => four.run(client, 'wait', { ms: 200 }, heavy).then(() => order.push(client));
    await Promise.all([run('a'), run('a'), run('a'), run('b')]);
    expect(order.slice(0, 2).sort()).toEqual(['a', 'b']);
    expect(four.size).toBeLessThanOrEqual(2);
    four.close();
  });
});
