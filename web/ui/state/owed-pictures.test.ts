import { afterEach, describe, expect, it, vi } from 'vitest';
import { owePicture, owesPicture, pictureDrawn } from './owed-pictures';

afterEach(() => void vi.unstubAllGlobals());

describe('pictures owed', () => {
  const check = () => {
    owePicture('a');
    owePicture('a');
    owePicture('b');
    expect([owesPicture('a'), owesPicture('b'), owesPicture('c')]).toEqual([true, true, false]);
    pictureDrawn('a');
    expect([owesPicture('a'), owesPicture('b')]).toEqual([false, true]);
    pictureDrawn('b');
  };
  it('are remembered by the tab', () => {
    const store = new Map<string, string>();
    vi.stubGlobal('sessionStorage', {
      getItem: (k: string) => store.get(k) ?? null,
      setItem: (k: string, v: string) => store.set(k, v),
    });
    check();
    const kept = [...store.values()].map((text) => JSON.parse(text) as string[]);
    expect(kept).toHaveLength(1);
    for (const id of ['a', 'b']) expect(kept[0]).not.toContain(id);
  });
  it('and by the page where the browser keeps nothing, or something garbled', () => {
    vi.stubGlobal('sessionStorage', undefined);
    check();
    vi.stubGlobal('sessionStorage', { getItem: () => '{"no', setItem: () => undefined });
    check();
  });
});
