import { describe, expect, it } from 'vitest';
import { randomSource } from '@maypole/core/maths/random';
import { besideOf, type Rect } from './beside';

const window = { width: 1280, height: 800 };
const card = { width: 290, height: 150 };
const apart = (a: Rect, b: Rect) =>
  a.left + a.width <= b.left || b.left + b.width <= a.left || a.top + a.height <= b.top || b.top + b.height <= a.top;

describe('a card that points at something', () => {
  it('stands below it, or above where there is no room below', () => {
    expect(besideOf({ left: 400, top: 100, width: 80, height: 30 }, card, window, [])).toMatchObject({
      left: 400,
      top: 142,
    });
    expect(besideOf({ left: 400, top: 760, width: 80, height: 30 }, card, window, []).top).toBe(760 - 12 - 150);
  });
  it('covers neither that nor a menu that is open, wherever they are', () => {
    const random = randomSource(5);
    for (let i = 0; i < 500; i++) {
      const target = { left: 1100 * random(), top: 700 * random(), width: 30 + 100 * random(), height: 30 };
      const menu = { left: 1000 * random(), top: 500 * random(), width: 260, height: 280 };
      const at = besideOf(target, card, window, [menu]);
      expect(apart(at, target)).toBe(true);
      expect(apart(at, menu)).toBe(true);
      expect(at.left).toBeGreaterThanOrEqual(12);
      expect(at.left + at.width).toBeLessThanOrEqual(window.width - 12);
      expect(at.top + at.height).toBeLessThanOrEqual(window.height - 12);
    }
  });
  it('covers as little as it can of what fills the window, and stands in a corner where it points at nothing', () => {
    const all = { left: 0, top: 52, width: 1280, height: 748 };
    expect(besideOf(all, card, window, [])).toMatchObject(card);
    expect(besideOf(null, card, window, [])).toMatchObject({ left: 1280 - 290 - 12, top: 800 - 150 - 120 });
  });
});
