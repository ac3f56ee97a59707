import { describe, expect, it } from 'vitest';
import { EFFORTS, effortOf, setTrueLight, soundSettings, useTrueLight } from './true-light';

describe('settings of true light', () => {
  it('are an effort, or none', () => {
    for (const { id, effort } of EFFORTS) expect(effortOf(effort)).toBe(id);
    expect(effortOf({ ...EFFORTS[0].effort, least: 9 })).toBeNull();
    expect(effortOf({ ...EFFORTS[1].effort, bounces: { ...EFFORTS[1].effort.bounces, transmission: 3 } })).toBeNull();
  });
  it('that a browser has kept are taken as far as they are sound', () => {
    expect(soundSettings(null)).toEqual(soundSettings({ least: 'x', most: -1, bounces: 7, brightest: [] }));
    expect(soundSettings({ least: 100, most: 10 })).toMatchObject({ least: 100, most: 100 });
    expect(soundSettings({ bounces: { diffuse: 5, transmission: 7 } }).bounces).toMatchObject({
      diffuse: 5,
      transmission: 7,
    });
    expect(soundSettings({ brightest: null, map: true, bounces: { matt: 3, glass: 99 } })).toMatchObject({
      brightest: null,
      map: false,
      bounces: { diffuse: 3, transmission: 12, air: 2 },
    });
    // Kept before the air had bounces of its own, an effort is the same one.
    for (const { id, effort } of EFFORTS) {
      const { air: _, ...bounces } = effort.bounces;
      expect(effortOf(soundSettings({ ...effort, bounces }))).toBe(id);
    }
  });
  it('never ask for more samples at least than at most', () => {
    setTrueLight({ ...EFFORTS[0].effort });
    setTrueLight({ least: 4000 });
    expect(useTrueLight.getState()).toMatchObject({ least: 4000, most: 4000 });
  });
});
