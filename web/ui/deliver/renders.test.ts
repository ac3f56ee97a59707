import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Queue, RenderSummary } from '@/contract/renders';
import { goesOn } from './awaited';
import { lookAtQueue, shareOf, useRenders } from './renders';

const world = vi.hoisted(() => ({
  queue: { renders: [] } as unknown as Queue,
  fails: '',
  asked: 0,
  told: [] as string[],
  trouble: [] as string[],
}));
vi.mock('./render-api', () => ({
  queueOf: () => {
    world.asked++;
    return world.fails ? Promise.reject(new Error(world.fails)) : Promise.resolve(world.queue);
  },
}));
vi.mock('../parts/toasts', () => ({
  tell: (words: string) => void world.told.push(words),
  tellTrouble: (words: string) => void world.trouble.push(words),
}));

const file = (state: string, share = 0) => ({ id: 'f', kind: 'mp4', state, share });
const render = (more: object): RenderSummary =>
  ({ id: 'r', name: 'Squall', state: 'frames', frames: 10, done: 0, files: [file('waiting')], ...more }) as never;
const queue = (...renders: RenderSummary[]) => (world.queue = { renders, machines: [] } as unknown as Queue);

beforeEach(() => {
  Object.assign(world, { fails: '', asked: 0, told: [], trouble: [] });
  useRenders.setState({ queue: null, trouble: null });
});
afterEach(() => vi.useRealTimers());

describe('how far a render is', () => {
  it('is nine tenths its frames and one tenth its files, whatever there is of either', () => {
    expect(shareOf(render({ done: 0 }))).toBe(0);
    expect(shareOf(render({ done: 5 }))).toBeCloseTo(0.45, 9);
    expect(shareOf(render({ done: 10 }))).toBeCloseTo(0.9, 9);
    expect(shareOf(render({ done: 10, files: [file('done'), file('made', 0.5)] }))).toBeCloseTo(0.975, 9);
    expect(shareOf(render({ done: 10, files: [file('done'), file('done')] }))).toBeCloseTo(1, 9);
    expect(shareOf(render({ frames: 0, files: [] }))).toBeCloseTo(0.9, 9);
  });
  it('never goes back while frames and files come', () => {
    let before = -1;
    for (let done = 0; done <= 10; done++) {
      const now = shareOf(render({ done }));
      expect(now).toBeGreaterThan(before);
      before = now;
    }
    for (let share = 0; share <= 1; share += 0.25) {
      const now = shareOf(render({ done: 10, files: [file('made', share)] }));
      expect(now).toBeGreaterThanOrEqual(before);
      before = now;
    }
  });
  it('goes on while it has frames or files to make', () => {
    expect(['frames', 'files', 'done', 'failed', 'cancelled'].map((state) => goesOn(render({ state })))).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
  });
});

describe('the end of a render', () => {
  it('is told once, with what came of it', async () => {
    queue(render({ state: 'files' }));
    await lookAtQueue();
    expect(world.told).toEqual([]);
    queue(render({ state: 'done', files: [file('done')] }));
    await lookAtQueue();
    await lookAtQueue();
    expect(world.told).toEqual(['Squall: its file is ready.']);
  });
  it('counts its outputs', async () => {
    queue(render({}));
    await lookAtQueue();
    queue(render({ state: 'done', files: [file('done'), file('done'), file('done')] }));
    await lookAtQueue();
    expect(world.told).toEqual(['Squall: 3 outputs are ready.']);
  });
  it('says why where it failed, and nothing of samples, of what was cancelled, and of what was over before', async () => {
    queue(render({ id: 'a' }), render({ id: 'b', estimate: true }), render({ id: 'c' }));
    await lookAtQueue();
    queue(
      render({ id: 'a', state: 'failed', message: 'The disk is full.' }),
      render({ id: 'b', state: 'done', estimate: true }),
      render({ id: 'c', state: 'cancelled' }),
      render({ id: 'd', state: 'done' }),
    );
    await lookAtQueue();
    expect(world.told).toEqual([]);
    expect(world.trouble).toEqual(['Squall: The disk is full.']);
  });
});

describe('a server that is away', () => {
  it('is told where the queue stands, and what was known of it stays', async () => {
    queue(render({ done: 3 }));
    await lookAtQueue();
    world.fails = 'The server cannot be reached.';
    await lookAtQueue();
    expect(useRenders.getState()).toMatchObject({ trouble: 'The server cannot be reached.' });
    expect(useRenders.getState().queue!.renders[0].done).toBe(3);
    world.fails = '';
    await lookAtQueue();
    expect(useRenders.getState().trouble).toBeNull();
  });
  it('is asked no more once nobody looks', async () => {
    vi.useFakeTimers();
    queue(render({}));
    await lookAtQueue();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(world.asked).toBe(1);
  });
});
