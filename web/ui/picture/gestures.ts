import { orbit, pan, zoom } from '../state/camera';
import { newDrag } from '../state/undo';

/** Milliseconds after which a finger that rests counts as the right button. */
const HELD = 500;
/** Pixels that a click may move. */
const STILL = 3;
/** A finger is less steady than a mouse. */
const STILL_TOUCH = 9;

interface Pointer {
  readonly x: number;
  readonly y: number;
}

/** What a pointer event says, as far as the camera is concerned. */
export interface PointerAt extends Pointer {
  readonly id: number;
  readonly touch: boolean;
  /** The right or middle button, or Shift. */
  readonly other: boolean;
}

/**
 * Pointers on the picture: one turns the camera; with the right button, Shift or after a long press it shifts it. Two
 * fingers shift and zoom; lifting one of them turns nothing until all are lifted.
 */
export class Gestures {
  private readonly pointers = new Map<number, Pointer>();
  private shifts = false;
  /** Nothing was moved yet: what ends so is a click. */
  private still = false;
  private pinched = false;
  /** What is done until all are lifted is one edit. */
  private drag = '';
  private timer: ReturnType<typeof setTimeout> | undefined;

  down({ id, x, y, touch, other }: PointerAt): void {
    this.pointers.set(id, { x, y });
    clearTimeout(this.timer);
    if (this.pointers.size > 1) {
      this.pinched = true;
      this.still = false;
      return;
    }
    this.pinched = false;
    this.drag = newDrag();
    this.shifts = other;
    this.still = !other;
    if (touch) this.timer = setTimeout(() => this.hold(), HELD);
  }

  /** A finger that rests is the right button: it shifts, and is no click. */
  private hold(): void {
    if (!this.still) return;
    this.shifts = true;
    this.still = false;
  }

  /** @param height of the picture in pixels */
  move({ id, x, y, touch }: PointerAt, height: number): void {
    const last = this.pointers.get(id);
    if (!last) return;
    if (this.pointers.size > 1) return this.pinch(id, { x, y }, height);
    const [dx, dy] = [x - last.x, y - last.y];
    if (dx === 0 && dy === 0) return;
    if (this.still && Math.hypot(dx, dy) < (touch ? STILL_TOUCH : STILL)) return;
    this.pointers.set(id, { x, y });
    this.still = false;
    clearTimeout(this.timer);
    if (this.pinched) return;
    if (this.shifts) pan(-dx / height, dy / height, this.drag);
    else orbit(-dx * 0.4, dy * 0.4, this.drag);
  }

  private pinch(id: number, at: Pointer, height: number): void {
    const [a, b] = [...this.pointers.values()];
    this.pointers.set(id, at);
    const [c, d] = [...this.pointers.values()];
    const apart = (p: Pointer, q: Pointer) => Math.max(1, Math.hypot(p.x - q.x, p.y - q.y));
    zoom(apart(a, b) / apart(c, d), this.drag);
    pan((a.x + b.x - c.x - d.x) / 2 / height, (c.y + d.y - a.y - b.y) / 2 / height, this.drag);
  }

  /** Whether it was a click. */
  up({ id }: Pick<PointerAt, 'id'>): boolean {
    const clicked = this.still && this.pointers.has(id) && this.pointers.size === 1;
    this.pointers.delete(id);
    clearTimeout(this.timer);
    return clicked;
  }

  cancel(): void {
    this.pointers.clear();
    this.still = false;
    clearTimeout(this.timer);
  }
}
