import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { goOnLending, lend, stopLending, useLending } from './lending';

/** What the lender finds each time it asks: true drew a frame, false nothing to do, words a failure. */
const world = vi.hoisted(() => ({
  answers: [] as (boolean | string)[],
  rest: false as boolean,
  made: 0,
  disposed: 0,
  names: [] as (string | undefined)[],
}));
vi.mock('@/engine/lend/lend', () => ({
  Lender: class {
    constructor() {
      world.made++;
    }
    async next(signal: AbortSignal): Promise<boolean> {
      const answer = world.answers.shift() ?? world.rest;
      // Asking waits a while where there is nothing to do.
      await new Promise((done) => setTimeout(done, answer === true ? 10 : 1000));
      signal.throwIfAborted();
      if (typeof answer === 'string') throw new Error(answer);
      return answer;
    }
    dispose(): void {
      world.disposed++;
    }
  },
}));
vi.mock('./render-api', () => ({
  lendSource: (_id: string, name: string) => {
    world.names.push(name);
    return {};
  },
}));

const now = () => useLending.getState();
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('navigator', { userAgent: 'Some Mobile browser' });
  vi.stubGlobal('window', new EventTarget());
  Object.assign(world, { answers: [], rest: false, made: 0, disposed: 0, names: [] });
  useLending.setState({ on: false, drawn: 0, trouble: null });
});
afterEach(async () => {
  stopLending();
  await pass(10_000);
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a browser that lends its graphics card', () => {
  it('draws until it is told otherwise, and counts what it drew', async () => {
    world.answers = [true, true, false, false, false, false, true];
    lend(true);
    expect(now().on).toBe(true);
    await pass(10_000);
    expect(now().drawn).toBe(3);
    expect(world.disposed).toBe(0);
    stopLending();
    await pass(2000);
    expect(now()).toMatchObject({ on: false, trouble: null });
    expect(world.disposed).toBe(1);
  });
  it('for its own renders ends by itself when nothing is left', async () => {
    world.answers = [true, true, false, false];
    lend(false);
    await pass(20_000);
    expect(now()).toMatchObject({ on: false, drawn: 2 });
    expect(world.disposed).toBe(1);
    // And begins anew with the next render.
    lend(false);
    await pass(20);
    expect(world.made).toBe(2);
  });
  it('is one lender, however often it is asked, and goes on for good once it is asked to', async () => {
    world.answers = [true];
    lend(false);
    lend(true);
    lend(false);
    expect(world.made).toBe(1);
    await pass(60_000);
    expect(now().on).toBe(true);
    expect(world.disposed).toBe(0);
  });
  it('says what went wrong, tries again after a rest, and forgets it with the next frame', async () => {
    world.answers = ['The server cannot be reached.', true];
    lend(true);
    await pass(1500);
    expect(now().trouble).toBe('The server cannot be reached.');
    await pass(3000);
    expect(now()).toMatchObject({ trouble: null, drawn: 1 });
  });
  it('gives up its own renders after several failures, and for others never', async () => {
    world.answers = Array.from({ length: 9 }, () => 'It cannot be drawn here.');
    lend(false);
    await pass(60_000);
    expect(world.disposed).toBe(1);
    world.answers = Array.from({ length: 9 }, () => 'It cannot be drawn here.');
    lend(true);
    await pass(30_000);
    expect(world.disposed).toBe(1);
  });
  it('goes on by itself with what was begun here, but not after somebody has told it to stop', async () => {
    lend(false);
    await pass(20_000);
    goOnLending();
    await pass(20);
    expect(world.made).toBe(2);
    stopLending();
    await pass(2000);
    goOnLending();
    await pass(20);
    expect(world.made).toBe(2);
    // Leaving the page that lends is not telling it to stop.
    stopLending(false);
    goOnLending();
    await pass(20);
    expect(world.made).toBe(3);
    stopLending();
    // With the next render that is begun it draws again.
    lend(false);
    await pass(20);
    expect(world.made).toBe(4);
  });
  it('is called by what it is, or as it is told to', async () => {
    lend(true);
    stopLending();
    await pass(2000);
    lend(true, { name: 'The one by the window' });
    expect(world.names).toEqual(['Browser on a phone', 'The one by the window']);
  });
});
