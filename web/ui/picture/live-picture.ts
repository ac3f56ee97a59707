import type { Piece } from '@maypole/core/piece/piece';
import { instantInRounds } from '@maypole/core/scene/shutter';
import { composeFrame, composeInstants } from '@/engine/draw/compose';
import type { ViewFrame } from '@/view/stage/frame';
import { rendererOnCanvas, subframesFor, type FrameRenderer } from '@/view/stage/drawer';
import { session } from '../state/session';
import { useCovered } from '../state/covered';
import { shownMode } from '../state/focusing';
import { useTrueLight } from '../state/true-light';
import { useEditor, type EditorState } from '../state/store';
import { Pace } from './pace';

interface Reports {
  /** The size of the picture in CSS pixels, whenever it changes. */
  onSize(size: { width: number; height: number }): void;
  /** How many sub-frames the picture is the average of by now, and how many it is to be. */
  onRefined(done: number, of: number): void;
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
 * the engine have. A ribbon that is still being worked out keeps its last shape. While it moves and
 * drawing is slow it has fewer pixels; while it stands still its edges get finer, sub-frame by sub-frame.
 */
export class LivePicture {
  private canvas!: HTMLCanvasElement;
  private drawer: FrameRenderer | null = null;
  /** A drawing is under way; what changes meanwhile is drawn after it. */
  private drawing = false;
  private again = false;
  private ended = false;
  private asked = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private shown: ViewFrame | null = null;
  private readonly pace = new Pace();
  /** How many device pixels one of what is shown covers each way. */
  private coarse = 1;
  private readonly losses: number[] = [];
  private readonly stops: (() => void)[] = [];

  /** @param element what the picture fills */
  constructor(
    private readonly element: HTMLElement,
    private readonly reports: Reports,
  ) {
    const observer = new ResizeObserver(this.measure);
    observer.observe(element);
    this.stops.push(
      () => observer.disconnect(),
      useEditor.subscribe(this.edited),
      // What was beneath true light is seen, and made finer.
      useTrueLight.subscribe((a, b) => a.compare && !b.compare && this.soon()),
      useCovered.subscribe(({ covered }) => (covered ? this.stopRefining() : this.soon())),
    );
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
    const makeCanvas = () => {
      const canvas = document.createElement('canvas');
      canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;display:block';
      canvas.dataset.testid = 'picture';
      return canvas;
    };
    try {
      const { drawer, canvas } = await rendererOnCanvas(makeCanvas, { onLost: this.lost });
      if (this.ended) return drawer.dispose();
      this.drawer = drawer;
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
    this.drawing = this.again = false;
    this.drawer?.dispose();
    this.drawer = null;
    this.canvas?.remove();
  }

  private readonly measure = () => {
    const { clientWidth: width, clientHeight: height } = this.element;
    if (!this.drawer || width === 0 || height === 0) return;
    const ratio = Math.min(2, window.devicePixelRatio || 1);
    this.drawer.setSize(Math.round(width * ratio), Math.round(height * ratio));
    this.reports.onSize({ width, height });
    void this.draw();
  };

  private soon(): void {
    this.stopRefining();
    // What is asked for already stays: changes come once a turn of the screen, and putting it off each time would be for ever.
    if (!this.asked && !useCovered.getState().covered) this.asked = requestAnimationFrame(() => void this.draw());
  }

  private stopRefining(): void {
    clearTimeout(this.resting);
  }

  private readonly draw = async (): Promise<void> => {
    this.asked = 0;
    this.stopRefining();
    const engine = session()?.engine;
    const { drawer, canvas } = this;
    if (!drawer || !engine || this.ended) return;
    if (this.drawing) {
      this.again = true;
      return;
    }
    const { piece, frame } = useEditor.getState();
    const mode = shownMode(useEditor.getState());
    const now = composeFrame(engine, piece, frame, mode);
    const waiting = piece.ribbons.filter((r) => r.on && !now.ribbons.some((x) => x.id === r.id));
    const ribbons = [...now.ribbons, ...(this.shown?.ribbons ?? []).filter((x) => waiting.some((r) => r.id === x.id))];
    this.shown = { ...now, ribbons };
    canvas.dataset.still = 'false';
    this.coarse = this.pace.begin(performance.now());
    if (!(await this.drawn(drawer, this.shown, 0, 1, this.coarse))) return;
    this.pace.end(performance.now());
    // For tests and benchmarks: which frame stands in the picture, and whether it is complete.
    canvas.dataset.frame = String(frame);
    canvas.dataset.complete = String(waiting.length === 0);
    canvas.dataset.drawn = String(Number(canvas.dataset.drawn ?? 0) + 1);
    canvas.dataset.subframes = '1';
    this.reports.onRefined(1, this.wanted(this.shown, drawer));
    if (this.again) this.soon();
    else this.resting = setTimeout(() => void this.refine(), STILL);
  };

  /** Draws, one at a time; false where the drawer has gone meanwhile. */
  private async drawn(
    drawer: FrameRenderer,
    frame: ViewFrame,
    number: number,
    of: number,
    coarse = 1,
  ): Promise<boolean> {
    this.drawing = true;
    this.again = false;
    try {
      await drawer.draw(frame, number, of, coarse);
    } catch (error) {
      if (this.drawer === drawer) console.warn(error);
    }
    if (this.drawer !== drawer) return false;
    this.drawing = false;
    return !this.ended;
  }

  /**
   * Adds sub-frames to what is shown, one a turn of the screen, until something changes. Always as many, so
   * that what stands still looks the same each time.
   */
  private async refine(): Promise<void> {
    const { drawer, canvas, shown } = this;
    if (!drawer || !shown || this.drawing || this.ended) return;
    const { coarse } = this;
    this.coarse = 1;
    if (followsRays()) {
      // It is seen until the first rays are there.
      if (coarse > 1 && (await this.drawn(drawer, shown, 0, 1)) && this.again) this.soon();
      return;
    }
    const of = this.wanted(shown, drawer);
    const instants = await this.instants(shown, of);
    // Worked out in the meantime, so that something may have changed.
    if (this.drawing || this.ended || this.asked || this.shown !== shown) return;
    for (let number = 0; number < of; number++) {
      const instant = instants[instantInRounds(number, of, instants.length)];
      if (!(await this.drawn(drawer, instant, number, of))) return;
      canvas.dataset.subframes = String(number + 1);
      this.reports.onRefined(number + 1, of);
      // An edit, a new shape or another size: what was begun is not the picture any more.
      if (this.again) return this.soon();
      if (this.asked || useCovered.getState().covered) return;
    }
    canvas.dataset.still = 'true';
  }

  /** How many sub-frames what is shown gets: as many as were chosen, or as it wants by what is in it. */
  private wanted(shown: ViewFrame, drawer: FrameRenderer): number {
    const usual = subframesFor(shown, drawer.subframes);
    return usual > 1 ? (useEditor.getState().subframes ?? usual) : 1;
  }

  /** The picture at all instants of its exposure; as it is where that is one, or where they cannot be made. */
  private async instants(shown: ViewFrame, of: number): Promise<readonly ViewFrame[]> {
    const engine = session()?.engine;
    if (!engine || shown.scene.camera.shutter === 0) return [shown];
    const { piece, frame } = useEditor.getState();
    const mode = shownMode(useEditor.getState());
    const goOn = () => !this.ended && !this.asked && this.shown === shown;
    return composeInstants(engine, piece, frame, mode, of, goOn).catch(() => [shown]);
  }

  private readonly edited = (a: EditorState, b: EditorState) => {
    const sameMode = shownMode(a) === shownMode(b) && a.light === b.light && a.subframes === b.subframes;
    if (a.piece === b.piece && a.frame === b.frame && sameMode && a.detail === b.detail) return;
    // Where only shapes changed there is nothing new to draw until one arrives, and the engine tells that.
    const shapesOnly = sameMode && a.frame === b.frame && looksAlike(a.piece, b.piece);
    if (shapesOnly && !session()?.engine.isSettled(a.frame)) return;
    this.soon();
  };

  private readonly arrived = () => {
    const engine = session()?.engine;
    if (!engine || !this.drawer) return;
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

/** Whether true light lies over the picture, so that making it finer beneath would be for nobody. */
function followsRays(): boolean {
  const { light, mode } = useEditor.getState();
  return light === 'true' && mode === 'shaded' && !useTrueLight.getState().compare;
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
