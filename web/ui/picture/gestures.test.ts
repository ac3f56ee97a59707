import { newPiece, newRibbon, cameraOf } from '@maypole/core/piece/piece';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useEditor } from '../state/store';
import { Gestures } from './gestures';

const finger = (id: number, x: number, y: number) => ({ id, x, y, touch: true, other: false });
const mouse = (x: number, y: number, other = false) => ({ id: 1, x, y, touch: false, other });
const camera = () => cameraOf(useEditor.getState().piece).values as Record<string, number> & { target: number[] };
const HEIGHT = 500;

let gestures: Gestures;
beforeEach(() => {
  vi.useFakeTimers();
  useEditor.getState().open('id', { ...newPiece('Turned'), ribbons: [newRibbon('torus', 0)] }, 1);
  gestures = new Gestures();
});
afterEach(() => vi.useRealTimers());

describe('on the picture', () => {
  it('one finger turns, and a short touch is a click', () => {
    const before = camera();
    gestures.down(finger(1, 100, 100));
    gestures.move(finger(1, 104, 103), HEIGHT);
    expect(camera()).toEqual(before);
    expect(gestures.up({ id: 1 })).toBe(true);
    gestures.down(finger(1, 100, 100));
    gestures.move(finger(1, 150, 100), HEIGHT);
    expect(gestures.up({ id: 1 })).toBe(false);
    expect(camera().azimuth).not.toBe(before.azimuth);
    expect(camera().distance).toBe(before.distance);
  });
  it('two fingers zoom by how far they go apart, and shift by their middle; nothing turns', () => {
    const before = camera();
    gestures.down(finger(1, 100, 200));
    gestures.down(finger(2, 200, 200));
    gestures.move(finger(1, 50, 200), HEIGHT);
    gestures.move(finger(2, 250, 200), HEIGHT);
    expect(camera().distance).toBeCloseTo((before.distance * 100) / 200, 3);
    expect(camera().azimuth).toBe(before.azimuth);
    expect(camera().elevation).toBe(before.elevation);
    // The middle stayed where it was, but for the steps of one finger after the other.
    camera().target.forEach((x, i) => expect(x).toBeCloseTo(before.target[i], 1));
    gestures.move(finger(1, 50, 260), HEIGHT);
    gestures.move(finger(2, 250, 260), HEIGHT);
    expect(camera().target[1]).toBeGreaterThan(before.target[1]);
    expect(gestures.up({ id: 2 })).toBe(false);
    // The finger that is left does not throw the camera round.
    const pinched = camera();
    gestures.move(finger(1, 300, 100), HEIGHT);
    expect(camera()).toEqual(pinched);
    expect(gestures.up({ id: 1 })).toBe(false);
  });
  it('a turn is one edit, however long the hand rests in it, and the next turn is another', () => {
    const edits = () => useEditor.getState().history.past.length;
    for (const turns of [1, 2]) {
      gestures.down(mouse(100, 100));
      for (const x of [120, 140, 160]) {
        gestures.move(mouse(x, 100), HEIGHT);
        vi.advanceTimersByTime(3000);
      }
      gestures.up({ id: 1 });
      expect(edits()).toBe(turns);
    }
  });
  it('a long press is the right button: it shifts and is no click', () => {
    const before = camera();
    gestures.down(finger(1, 100, 100));
    vi.advanceTimersByTime(600);
    gestures.move(finger(1, 140, 100), HEIGHT);
    expect(camera().azimuth).toBe(before.azimuth);
    expect(camera().target).not.toEqual(before.target);
    expect(gestures.up({ id: 1 })).toBe(false);
  });
  it('the mouse turns, shifts with its right button, and clicks', () => {
    const before = camera();
    gestures.down(mouse(10, 10, true));
    gestures.move(mouse(60, 10, true), HEIGHT);
    expect(gestures.up({ id: 1 })).toBe(false);
    expect(camera().azimuth).toBe(before.azimuth);
    expect(camera().target).not.toEqual(before.target);
    gestures.down(mouse(10, 10));
    expect(gestures.up({ id: 1 })).toBe(true);
    gestures.down(mouse(10, 10));
    gestures.cancel();
    expect(gestures.up({ id: 1 })).toBe(false);
  });
});
