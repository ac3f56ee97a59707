import { newPiece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import type { PartWork } from '@maypole/render/work/source';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Lender, type LendSource } from './lend';

/** How long a picture takes, in milliseconds, and what has been disposed of. */
const drawer = vi.hoisted(() => ({ ms: 0, fails: '', made: 0, disposed: 0, clear: [] as boolean[] }));
vi.mock('../draw/offscreen', () => ({
  Offscreen: {
    create: () => {
      drawer.made++;
      return Promise.resolve({
        canvas: { toBlob: (done: (b: Blob) => void) => done(new Blob(['png'])) },
        setPiece: (_piece: unknown, _detail: string, _look: string, clear: boolean) => void drawer.clear.push(clear),
        draw: () =>
          new Promise<void>((resolve, reject) =>
            setTimeout(() => (drawer.fails ? reject(new Error(drawer.fails)) : resolve()), drawer.ms),
          ),
        dispose: () => void drawer.disposed++,
      });
    },
  },
}));

const work = (frame: number, more: object = {}) =>
  ({
    render: 'r1',
    frame,
    sheets: ['shown'],
    order: { light: 'quick', width: 16, height: 16, subframes: 8, detail: 'final', look: 'shaded' },
    ...more,
  }) as unknown as PartWork;

function source(parts: PartWork[], over: Partial<LendSource> = {}) {
  const told: string[] = [];
  const all: LendSource = {
    claim: () => Promise.resolve(parts.shift()),
    piece: () => Promise.resolve(writePiece(newPiece('Lent'))),
    renew: () => Promise.resolve(true),
    giveBack: (part) => Promise.resolve(void told.push(`back ${part.frame}`)),
    put: (part, sheet) => {
      told.push(`put ${part.frame} ${sheet}`);
      return Promise.resolve({ sha256: 'x', bytes: 3 });
    },
    done: (part) => Promise.resolve(void told.push(`done ${part.frame}`)),
    failed: (part, message) => Promise.resolve(void told.push(`failed ${part.frame}: ${message}`)),
    ...over,
  };
  return { told, all };
}

beforeEach(() => {
  vi.useFakeTimers();
  Object.assign(drawer, { ms: 100, fails: '', made: 0, disposed: 0, clear: [] });
});
afterEach(() => void vi.useRealTimers());

const signal = new AbortController().signal;
/** Has a lender draw all there is, while time goes by. */
async function all(lender: Lender): Promise<void> {
  for (;;) {
    const one = lender.next(signal);
    await vi.advanceTimersByTimeAsync(200_000);
    if (!(await one)) return;
  }
}

describe('a browser that lends its graphics card', () => {
  it('draws each frame in all its sheets, by one drawer for each backdrop, kept from frame to frame', async () => {
    const { told, all: from } = source([work(0, { sheets: ['shown', 'clear'] }), work(1, { sheets: ['clear'] })]);
    await all(new Lender(from));
    expect(told).toEqual(['put 0 shown', 'put 0 clear', 'done 0', 'put 1 clear', 'done 1']);
    expect([drawer.made, drawer.disposed, drawer.clear]).toEqual([2, 0, [false, true]]);
  });
  it('begins anew for another render', async () => {
    const { all: from } = source([work(0), work(0, { render: 'r2' })]);
    const lender = new Lender(from);
    await all(lender);
    expect([drawer.made, drawer.disposed]).toEqual([2, 1]);
    lender.dispose();
    expect(drawer.disposed).toBe(2);
  });
  it('lets go of a frame that was cancelled, tells nobody, and goes on with the next', async () => {
    drawer.ms = 120_000;
    let asked = 0;
    const { told, all: from } = source([work(0), work(1)], {
      renew: (part) => Promise.resolve(part.frame > 0 || ++asked < 3),
    });
    const lender = new Lender(from);
    const one = lender.next(signal);
    await vi.advanceTimersByTimeAsync(30_001);
    expect(await one).toBe(true);
    expect([told, drawer.disposed]).toEqual([[], 1]);
    await all(lender);
    expect(told).toEqual(['put 1 shown', 'done 1']);
  });
  it('goes on while the server cannot be asked', async () => {
    drawer.ms = 60_000;
    const { told, all: from } = source([work(0)], { renew: () => Promise.reject(new Error('away')) });
    await all(new Lender(from));
    expect(told).toEqual(['put 0 shown', 'done 0']);
  });
  it('tells what went wrong, and draws the next by a fresh drawer', async () => {
    drawer.fails = 'The device was lost.';
    const { told, all: from } = source([work(0), work(1, { order: { light: 'true' } })]);
    await all(new Lender(from));
    expect(told).toEqual(['failed 0: The device was lost.', 'failed 1: A browser draws frames in quick light alone.']);
    expect(drawer.disposed).toBe(1);
  });
});

describe('a page that is left', () => {
  it('gives the frame back that it is at, and none where it is at none', async () => {
    const { told, all: from } = source([work(3)]);
    const lender = new Lender(from);
    lender.leave();
    const drawing = lender.next(signal);
    await vi.advanceTimersByTimeAsync(50);
    lender.leave();
    expect(told).toEqual(['back 3']);
    await vi.advanceTimersByTimeAsync(1000);
    await drawing;
    lender.leave();
    expect(told.filter((t) => t.startsWith('back'))).toHaveLength(1);
  });
});
