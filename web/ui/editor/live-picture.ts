import type { Piece } from '@maypole/core/piece/piece';
import { composeFrame } from '@/engine/compose';
import type { ViewFrame } from '@/view/frame';
import { Stage } from '@/view/stage';
import { session } from '../state/session';
import { useEditor, type EditorState } from '../state/store';

interface Reports {
  /** The size of the picture in CSS pixels, whenever it changes. */
  onSize(size: { width: number; height: number }): void;
  /** Nothing can be drawn, and why. */
  onTrouble(words: string): void;
  /** The graphics device went away and the picture is made anew. */
  onLost(words: string): void;
}

/** Milliseconds without a change after which the picture stands still. */
const STILL = 160;
/** A device that is lost so often within a minute is not begun with again. */
const LOSSES = 3;

/**
 * The picture of the editor: drawn whenever something that shows has changed, from what the store and
 * the engine have. A ribbon that is still being worked out keeps its last shape. While it stands still
 * its edges get finer, sub-frame by sub-frame.
 */
export class LivePicture {
  private canvas!: HTMLCanvasElement;
  private stage: Stage | null = null;
  private ended = false;
  private asked = 0;
  private refining = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private shown: ViewFrame | null = null;
  private readonly losses: number[] = [];
  private readonly stops: (() => void)[] = [];

  /** @param element what the picture fills */
  constructor(
    private readonly element: HTMLElement,
    private readonly reports: Reports,
  ) {
    const observer = new ResizeObserver(this.measure);
    observer.observe(element);
    this.stops.push(() => observer.disconnect(), useEditor.subscribe(this.edited));
    void this.begin().then(() => {
      // The session begins with the editor around the picture, a little later than this.
      const stop = this.ended ? undefined : session()?.engine.subscribe(this.arrived);
      if (stop) this.stops.push(stop);
    });
  }

  end(): void {
    this.ended = true;
    for (const stop of this.stops) stop();
    this.letGo();
  }

  private async begin(): Promise<void> {
    const canvas = document.createElement('canvas');
    canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;display:block';
    canvas.dataset.testid = 'picture';
    try {
      const stage = await Stage.create(canvas, this.lost);
      if (this.ended) return stage.dispose();
      this.stage = stage;
      this.canvas = canvas;
      this.element.appendChild(canvas);
      this.measure();
    } catch (error) {
      this.reports.onTrouble(error instanceof Error ? error.message : String(error));
    }
  }

  /** A driver that restarts takes all that was drawn with it; all of it can be made again. */
  private readonly lost = () => {
    if (this.ended) return;
    this.letGo();
    const now = performance.now();
    this.losses.push(now);
    if (this.losses.filter((t) => now - t < 60_000).length > LOSSES)
      return this.reports.onTrouble(
        'The graphics device goes away again and again. Your piece is safe; close other programs that draw in 3D, then reload the page.',
      );
    this.reports.onLost('The graphics device went away for a moment; the picture is drawn anew.');
    void this.begin();
  };

  private letGo(): void {
    cancelAnimationFrame(this.asked);
    this.stopRefining();
    this.asked = 0;
    this.stage?.dispose();
    this.stage = null;
    this.canvas?.remove();
  }

  private readonly measure = () => {
    const { clientWidth: width, clientHeight: height } = this.element;
    if (!this.stage || width === 0 || height === 0) return;
    const ratio = Math.min(2, window.devicePixelRatio || 1);
    this.stage.setSize(Math.round(width * ratio), Math.round(height * ratio));
    this.reports.onSize({ width, height });
    this.draw();
  };

  private soon(): void {
    this.stopRefining();
    // What is asked for already stays: changes come once a turn of the screen, and putting it off each time would be for ever.
    if (!this.asked) this.asked = requestAnimationFrame(this.draw);
  }

  private stopRefining(): void {
    clearTimeout(this.resting);
    cancelAnimationFrame(this.refining);
  }

  private readonly draw = () => {
    this.asked = 0;
    this.stopRefining();
    const engine = session()?.engine;
    if (!this.stage || !engine || this.ended) return;
    const { piece, frame, mode } = useEditor.getState();
    const now = composeFrame(engine, piece, frame, mode);
    const waiting = piece.ribbons.filter((r) => r.on && !now.ribbons.some((x) => x.id === r.id));
    const ribbons = [...now.ribbons, ...(this.shown?.ribbons ?? []).filter((x) => waiting.some((r) => r.id === x.id))];
    this.shown = { ...now, ribbons };
    this.stage.draw(this.shown);
    // For tests and benchmarks: which frame stands in the picture, and whether it is complete.
    this.canvas.dataset.frame = String(frame);
    this.canvas.dataset.complete = String(waiting.length === 0);
    this.canvas.dataset.drawn = String(Number(this.canvas.dataset.drawn ?? 0) + 1);
    this.canvas.dataset.subframes = '1';
    this.canvas.dataset.still = 'false';
    this.resting = setTimeout(this.refine, STILL);
  };

  /** Adds sub-frames to what is shown, one a turn of the screen, until something changes. Always as many, so that what stands still looks the same each time. */
  private readonly refine = () => {
    const add = (number: number) => {
      if (!this.stage || !this.shown || this.ended) return;
      const of = this.stage.subframes;
      this.stage.draw(this.shown, number, of);
      this.canvas.dataset.subframes = String(number + 1);
      if (number + 1 < of) this.refining = requestAnimationFrame(() => add(number + 1));
      else this.canvas.dataset.still = 'true';
    };
    add(0);
  };

  private readonly edited = (a: EditorState, b: EditorState) => {
    if (a.piece === b.piece && a.frame === b.frame && a.mode === b.mode && a.detail === b.detail) return;
    // Where only shapes changed there is nothing new to draw until one arrives, and the engine tells that.
    const shapesOnly = a.mode === b.mode && a.frame === b.frame && looksAlike(a.piece, b.piece);
    if (shapesOnly && !session()?.engine.isSettled(a.frame)) return;
    this.soon();
  };

  private readonly arrived = () => {
    const engine = session()?.engine;
    if (!engine || !this.stage) return;
    // When the newest shape was there to be drawn: what is left after this is drawing alone.
    const { piece, frame } = useEditor.getState();
    if (engine.isReady(frame)) this.canvas.dataset.arrived = performance.now().toFixed(1);
    // Most shapes that arrive are of frames ahead: the picture is drawn anew only for what is in it.
    const shown = new Map(this.shown?.ribbons.map((r) => [r.id, r.shape]));
    const newer = piece.ribbons.some((r) => {
      const shape = r.on ? engine.geometry(r, frame) : undefined;
      return shape !== undefined && shape !== shown.get(r.id);
    });
    if (newer || this.canvas.dataset.complete !== 'true' || this.canvas.dataset.frame !== String(frame)) this.soon();
  };
}

/** Whether two states of a piece differ in shapes at most: what is there, what it wears and the scene are the same. */
function looksAlike(a: Piece, b: Piece): boolean {
  return (
    a.scene === b.scene &&
    a.ribbons.length === b.ribbons.length &&
    a.ribbons.every(
      (r, i) => r.id === b.ribbons[i].id && r.on === b.ribbons[i].on && r.finishes === b.ribbons[i].finishes,
    )
  );
}
