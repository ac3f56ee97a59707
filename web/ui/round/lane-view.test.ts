import { beforeEach, describe, expect, it } from 'vitest';
import { panTime, useLaneView, USUAL_SPAN, viewFrom, zoomTime } from './lane-view';

const view = () => useLaneView.getState();
/** Where a moment lies between the left edge (0) and the right (1). */
const placeOf = (moment: number) => (moment - viewFrom(view())) / view().span;

beforeEach(() => useLaneView.setState({ centre: 0.5, span: USUAL_SPAN }));

describe('the time that lanes show', () => {
  it('is one loop and a little of its neighbours on both sides', () => {
    expect(placeOf(0)).toBeGreaterThan(0.05);
    expect(placeOf(0) + placeOf(1)).toBeCloseTo(1, 12);
  });
  it.each([0.5, 1.7, 0.9])('zoomed by %s keeps the moment under the pointer where it is', (factor) => {
    for (const moment of [-0.1, 0, 0.33, 1]) {
      const before = placeOf(moment);
      zoomTime(factor, moment);
      expect(placeOf(moment)).toBeCloseTo(before, 10);
    }
    expect(view().span).toBeCloseTo(Math.min(4, USUAL_SPAN * factor ** 4), 10);
  });
  it('stays between a fiftieth of a loop and four, and keeps its place at those ends', () => {
    for (let i = 0; i < 60; i++) zoomTime(0.5, 0.25);
    expect(view().span).toBe(0.02);
    const there = view().centre;
    zoomTime(0.5, 0.9);
    expect(view().centre).toBe(there);
    for (let i = 0; i < 60; i++) zoomTime(2, 0.25);
    expect(view().span).toBe(4);
  });
  it('goes on by what it is pushed, without end in either direction', () => {
    const from = viewFrom(view());
    panTime(3);
    panTime(-0.25);
    expect(viewFrom(view())).toBeCloseTo(from + 2.75, 12);
    expect(view().span).toBe(USUAL_SPAN);
  });
});
