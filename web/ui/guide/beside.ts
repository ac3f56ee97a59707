/** A rectangle on the screen, in CSS pixels. */
export interface Rect {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

type Size = Pick<Rect, 'width' | 'height'>;

/** Distance to the target and to the window's edge, in pixels. */
const [GAP, EDGE] = [12, 12];

const overlap = (a: Rect, b: Rect): number =>
  Math.max(0, Math.min(a.left + a.width, b.left + b.width) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.top + a.height, b.top + b.height) - Math.max(a.top, b.top));

/**
 * Where a card stands that points at something: below it, above it or beside it, else in a corner; the first of these
 * places in which it covers neither that nor anything else that is in use, or where it covers least.
 *
 * @param target what it points at; null for nothing
 * @param card its size
 * @param inUse open menus and dialogs
 */
export function besideOf(target: Rect | null, card: Size, window: Size, inUse: readonly Rect[]): Rect {
  const right = window.width - card.width - EDGE;
  const bottom = window.height - card.height - EDGE;
  const place = (left: number, top: number): Rect => ({
    left: Math.max(EDGE, Math.min(right, left)),
    top: Math.max(EDGE, Math.min(bottom, top)),
    ...card,
  });
  const corners = [place(right, bottom - 108), place(EDGE, bottom), place(right, 60), place(EDGE, 60)];
  const near = target
    ? [
        place(target.left, target.top + target.height + GAP),
        place(target.left, target.top - GAP - card.height),
        place(target.left + target.width + GAP, target.top),
        place(target.left - GAP - card.width, target.top),
      ]
    : [];
  const covered = (at: Rect) => [...(target ? [target] : []), ...inUse].reduce((sum, r) => sum + overlap(at, r), 0);
  return [...near, ...corners].reduce((best, at) => (covered(at) < covered(best) ? at : best));
}
