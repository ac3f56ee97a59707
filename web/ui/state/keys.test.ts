import { beforeEach, describe, expect, it, vi } from 'vitest';
import { actionWith, changeKeys, keysOf, resetAllKeys, resetKeys, restoreKeys } from './keys';

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  });
  restoreKeys();
});

describe('keys of actions', () => {
  it('are changed, kept in the browser, and given back', () => {
    expect(actionWith('Space')).toBe('play');
    expect(changeKeys('play', 'Alt P')).toBeUndefined();
    expect([actionWith('Space'), actionWith('Alt P')]).toEqual([undefined, 'play']);
    restoreKeys();
    expect(keysOf('play')).toBe('Alt P');
    resetKeys('play');
    expect(keysOf('play')).toBe('Space');
    expect(kept.get('maypole-keys')).toBe('{}');
  });

  it('that another action has are taken from it, and it is said which', () => {
    expect(changeKeys('dusk', 'D')).toBe('deliver');
    expect([actionWith('D'), keysOf('deliver')]).toEqual(['dusk', null]);
    // Given back, they come from whichever has them now.
    resetKeys('deliver');
    expect([actionWith('D'), keysOf('dusk')]).toEqual(['deliver', null]);
    resetAllKeys();
    expect([actionWith('D'), keysOf('dusk')]).toEqual(['deliver', null]);
  });

  it('can be taken away, and those of the browser cannot be had', () => {
    changeKeys('remove-ribbon', null);
    expect(actionWith('Delete')).toBeUndefined();
    expect(() => changeKeys('throw', 'Ctrl W')).toThrow('Ctrl W belongs to the browser');
  });

  it('what is kept and is no key is passed over', () => {
    kept.set('maypole-keys', JSON.stringify({ play: 7, nothing: 'X', throw: 'Y' }));
    restoreKeys();
    expect([keysOf('play'), actionWith('X'), keysOf('throw')]).toEqual(['Space', undefined, 'Y']);
    kept.set('maypole-keys', '{broken');
    restoreKeys();
    expect(keysOf('throw')).toBe('J');
  });
});
