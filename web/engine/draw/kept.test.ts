import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Kept } from './kept';

let made: { number: number; lost: boolean; disposed: number }[];
const make = () => {
  const it = { number: made.length, lost: false, disposed: 0, dispose: () => void it.disposed++ };
  made.push(it);
  return Promise.resolve(it);
};

beforeEach(() => {
  made = [];
  vi.useFakeTimers();
});
afterEach(() => vi.useRealTimers());

describe('what is kept while it is used', () => {
  it('is made once, at the first use, and used by one after the other', async () => {
    const kept = new Kept(make, 1000);
    expect(made).toHaveLength(0);
    const order: string[] = [];
    let finish = () => undefined as void;
    const first = kept.use(async (it) => {
      order.push(`begins ${it.number}`);
      await new Promise<void>((done) => (finish = done));
      order.push('first ends');
      return 'one';
    });
    const second = kept.use((it) => Promise.resolve(void order.push(`second ${it.number}`)));
    await vi.advanceTimersByTimeAsync(0);
    expect(order).toEqual(['begins 0']);
    finish();
    expect(await first).toBe('one');
    await second;
    expect(order).toEqual(['begins 0', 'first ends', 'second 0']);
    expect(made).toHaveLength(1);
  });

  it('is given back once nobody has used it for a while, and made anew after that', async () => {
    const kept = new Kept(make, 1000);
    await kept.use(() => Promise.resolve());
    await vi.advanceTimersByTimeAsync(900);
    await kept.use(() => Promise.resolve());
    // The time begins again with every use.
    await vi.advanceTimersByTimeAsync(900);
    expect(made[0].disposed).toBe(0);
    await vi.advanceTimersByTimeAsync(200);
    expect(made[0].disposed).toBe(1);
    await kept.use((it) => Promise.resolve(expect(it.number).toBe(1)));
    expect(made).toHaveLength(2);
  });

  it('is not given back in the middle of long work', async () => {
    const kept = new Kept(make, 1000);
    await kept.use(() => Promise.resolve());
    const long = kept.use(() => new Promise<void>((done) => setTimeout(done, 5000)));
    await vi.advanceTimersByTimeAsync(4000);
    expect(made[0].disposed).toBe(0);
    await vi.advanceTimersByTimeAsync(1000);
    await long;
    await vi.advanceTimersByTimeAsync(1000);
    expect(made[0].disposed).toBe(1);
  });

  it('goes on after work that failed, and throws on what it threw', async () => {
    const kept = new Kept(make, 1000);
    await expect(kept.use(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await kept.use((it) => Promise.resolve(it.number))).toBe(0);
  });

  it('is made anew where its graphics device has gone', async () => {
    const kept = new Kept(make, 1000);
    await expect(
      kept.use((it) => {
        it.lost = true;
        return Promise.reject(new Error('gone'));
      }),
    ).rejects.toThrow('gone');
    expect(await kept.use((it) => Promise.resolve(it.number))).toBe(1);
    expect(made[0].disposed).toBe(1);
  });

  it('is tried again where it could not be made', async () => {
    let tries = 0;
    const kept = new Kept(() => (++tries === 1 ? Promise.reject(new Error('busy')) : make()), 1000);
    await expect(kept.use(() => Promise.resolve())).rejects.toThrow('busy');
    expect(await kept.use((it) => Promise.resolve(it.number))).toBe(0);
  });

  it('stays while it is held, and is given back when it is let go, once who uses it is done', async () => {
    const kept = new Kept(make, 1000);
    kept.hold();
    await kept.use(() => Promise.resolve());
    await vi.advanceTimersByTimeAsync(60_000);
    expect(made[0].disposed).toBe(0);
    let finish = () => undefined as void;
    const using = kept.use(() => new Promise<void>((done) => (finish = done)));
    await vi.advanceTimersByTimeAsync(0);
    kept.letGo();
    await vi.advanceTimersByTimeAsync(0);
    expect(made[0].disposed).toBe(0);
    finish();
    await using;
    await vi.advanceTimersByTimeAsync(0);
    expect(made[0].disposed).toBe(1);
    // Let go, it is as it was before: made anew, and given back after a while.
    await kept.use(() => Promise.resolve());
    await vi.advanceTimersByTimeAsync(1001);
    expect(made[1].disposed).toBe(1);
  });
});
