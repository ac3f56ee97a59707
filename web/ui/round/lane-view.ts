import { create } from 'zustand';

/** The visible range of time, in loops. */
interface LaneView {
  /** The moment in the centre: 0.5 puts the seams at the sides, 0 puts one in the middle. */
  readonly centre: number;
  /** Loops from edge to edge. */
  readonly span: number;
  /** Vertical zoom of the curve in the open lane. */
  readonly valueZoom: number;
  readonly only: 'piece' | 'ribbon';
  readonly snap: boolean;
}

/** One loop and a little of its neighbours. */
export const USUAL_SPAN = 1.3;
export const LANE = 40;
export const OPEN_LANE = 232;
export const NAMES = 208;
const [NARROWEST, WIDEST] = [0.02, 4];

export const useLaneView = create<LaneView>()(() => ({
  centre: 0.5,
  span: USUAL_SPAN,
  valueZoom: 1,
  only: 'piece',
  snap: true,
}));

/** Zooms in time about a moment, which keeps its screen position. */
export function zoomTime(factor: number, about: number): void {
  useLaneView.setState((s) => {
    const span = Math.max(NARROWEST, Math.min(WIDEST, s.span * factor));
    return { span, centre: about + (s.centre - about) * (span / s.span) };
  });
}

export function panTime(by: number): void {
  useLaneView.setState((s) => ({ centre: s.centre + by }));
}

/** The first visible moment. */
export function viewFrom(s: Pick<LaneView, 'centre' | 'span'>): number {
  return s.centre - s.span / 2;
}
