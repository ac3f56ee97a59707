import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RenderSummary } from '@/contract/renders';
import { awaitRender, isAwaited, resumeAwaiting } from './awaited';

const world = vi.hoisted(() => ({
  renders: new Map<string, object>(),
  away: false,
  told: [] as string[],
  trouble: [] as string[],
  lent: 0,
}));
vi.mock('./render-api', async () => {
  const api = await import('../api');
  return {
    renderOf: (id: string) => {
      if (world.away) return Promise.reject(new Error('The server cannot be reached.'));
      const render = world.renders.get(id);
      return render ? Promise.resolve(render) : Promise.reject(new api.RequestTrouble(404, 'There is no such render.'));
    },
  };
});
vi.mock('./lending', () => ({ goOnLending: () => void world.lent++ }));
vi.mock('../parts/toasts', () => ({
  tell: (words: string) => void world.told.push(words),
  tellTrouble: (words: string) => void world.trouble.push(words),
}));

const put = (id: string, more: Partial<RenderSummary> & object) =>
  world.renders.set(id, {
    id,
    name: 'Halo',
    state: 'frames',
    estimate: false,
    paused: false,
    order: { light: 'true' },
    files: [{ id: 'f' }],
    ...more,
  });
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);
let kept: Map<string, string>;

beforeEach(() => {
  vi.useFakeTimers();
  kept = new Map();
  vi.stubGlobal('sessionStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  });
  world.renders.clear();
  Object.assign(world, { away: false, told: [], trouble: [], lent: 0 });
});
afterEach(async () => {
  // Whatever is still waited for is cleared away.
  world.renders.clear();
  world.away = false;
  await pass(10_000);
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a render that was begun here', () => {
  it('is told of at its end, once', async () => {
    put('a', {});
    awaitRender('a');
    await pass(10_000);
    expect(world.told).toEqual([]);
    expect(isAwaited('a')).toBe(true);
    put('a', { state: 'done' });
    await pass(10_000);
    expect(world.told).toEqual(['Halo: its file is ready.']);
    expect(isAwaited('a')).toBe(false);
    expect(kept.size).toBe(0);
  });
  it('is told of after the page was loaded anew', async () => {
    put('b', { state: 'files' });
    awaitRender('b');
    expect(JSON.parse(kept.get('maypole-awaited')!)).toEqual(['b']);
    kept.set('maypole-awaited', '["b","c",7]');
    put('c', { state: 'failed', message: 'The disk is full.' });
    resumeAwaiting();
    await pass(3500);
    expect(world.trouble).toEqual(['Halo: The disk is full.']);
    put('b', { state: 'done', files: [{}, {}] as never });
    await pass(3500);
    expect(world.told).toEqual(['Halo: 2 outputs are ready.']);
  });
  it('is waited for while the server is away, and given up where it was cleared', async () => {
    put('d', {});
    awaitRender('d');
    world.away = true;
    await pass(60_000);
    expect(isAwaited('d')).toBe(true);
    world.away = false;
    world.renders.clear();
    await pass(3500);
    expect(isAwaited('d')).toBe(false);
    expect([...world.told, ...world.trouble]).toEqual([]);
  });
  it('says nothing where it was cancelled, or was a sample', async () => {
    put('e', { state: 'cancelled' });
    put('f', { state: 'done', estimate: true });
    awaitRender('e');
    awaitRender('f');
    await pass(3500);
    expect([...world.told, ...world.trouble]).toEqual([]);
    expect(isAwaited('e') || isAwaited('f')).toBe(false);
  });
  it('in quick light is drawn by this browser, unless it is paused or in true light', async () => {
    put('g', {});
    awaitRender('g');
    await pass(3500);
    expect(world.lent).toBe(0);
    put('g', { order: { light: 'quick' } as never, paused: true });
    await pass(3500);
    expect(world.lent).toBe(0);
    put('g', { order: { light: 'quick' } as never });
    await pass(3500);
    expect(world.lent).toBe(1);
  });
  it('of a broken note of an earlier page does no harm', async () => {
    for (const broken of ['{', '{"a":1}', '"x"', 'null']) {
      kept.set('maypole-awaited', broken);
      resumeAwaiting();
    }
    await pass(3500);
    expect([...world.told, ...world.trouble]).toEqual([]);
    expect(isAwaited('x')).toBe(false);
  });
});
