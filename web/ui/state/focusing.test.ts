import { addressKey, valuesOf } from '@maypole/core/piece/addresses';
import { cameraOf, newPiece } from '@maypole/core/piece/piece';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { noteFocusing, shownMode } from './focusing';

const piece = newPiece();
const camera = { type: 'scene', item: cameraOf(piece).id } as const;

describe('what is sharp', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('is shown while a value that focuses is set, and a moment longer; other values show nothing', () => {
    const told: boolean[] = [];
    const tell = (x: boolean) => told.push(x);
    noteFocusing(piece, [{ owner: camera, param: 'azimuth' }], tell);
    expect(told).toEqual([]);
    noteFocusing(piece, [{ owner: camera, param: 'focus' }], tell);
    vi.advanceTimersByTime(500);
    noteFocusing(piece, [{ owner: camera, param: 'fNumber' }], tell);
    vi.advanceTimersByTime(500);
    expect(told).toEqual([true, true]);
    vi.advanceTimersByTime(2000);
    expect(told).toEqual([true, true, false]);
  });
  it('is shown before a click that focuses, too; otherwise the picture is looked at as chosen', () => {
    const looked = { mode: 'clay', focusing: false, pick: null } as const;
    expect(shownMode(looked)).toBe('clay');
    expect(shownMode({ ...looked, focusing: true })).toBe('sharp');
    expect(shownMode({ ...looked, pick: 'focus' })).toBe('sharp');
    expect(shownMode({ ...looked, pick: { light: 'a' } })).toBe('clay');
  });
  it('hangs on no name: every value of the camera that focuses says so where it is declared', () => {
    const told: string[] = [];
    for (const { address } of valuesOf(piece).filter((v) => v.address.owner.type === 'scene'))
      noteFocusing(piece, [address], (on) => on && told.push(addressKey(address).split('/').slice(-1)[0]));
    expect(told.length).toBeGreaterThanOrEqual(4);
  });
});
