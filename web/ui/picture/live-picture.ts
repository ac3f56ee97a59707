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
  /** Called with the size of the picture in CSS pixels whenever it changes. */
  onSize(size: { width: number; height: number }): void;
  /** Called with the number of sub-frames averaged so far, and in all. */
  onRefined(done: number, of: number): void;
  /** Called with the reason if nothing can be drawn. */
  onTrouble(words: string): void;
  /** Called when the graphics device was lost and the picture is remade. */
  onLost(words: string): void;
}

/** Milliseconds without a change before the picture counts as still. */
const STILL = 160;
/** A device lost this often within a minute is given up. */
const LOSSES = 3;

/**
 * The editor's picture: drawn whenever something visible has changed, from the store and the engine. A ribbon under
 * evaluation keeps its last shape. While it moves and drawing is slow, it has fewer pixels; while still, it is refined
 * sub-frame by sub-frame.
 */
export class LivePicture {
  private canvas!: HTMLCanvasElement;
  private drawer: FrameRenderer | null = null;
  /** A picture is being drawn; later changes are drawn after it. */
  private drawing = false;
  private again = false;
  private ended = false;
  private asked = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private shown: ViewFrame | null = null;
  private readonly pace = new Pace();
  /** Device pixels per pixel of the picture, each way. */
  private coarse = 1;
  private readonly losses: number[] = [];
  private readonly stops: (() => void)[] = [];

  /** @param element the element that the picture fills */
  constructor(
    private readonly element: HTMLElement,
    private readonly reports: Reports,
  ) {
    const observer = new ResizeObserver(this.measure);
    observer.observe(element);
    this.stops.push(
      () => observer.disconnect(),
      useEditor.subscribe(this.edited),
      // What was hidden below true light becomes visible, and is refined.
      useTrueLight.subscribe((a, b) => a.compare && !b.compare && this.soon()),
      useCovered.subscribe(({ covered }) => (covered ? this.stopRefining() : this.soon())),
    );
    void this.begin().then(() => {
      // The session starts with the surrounding editor, slightly later than this.
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

  /** A restarting driver loses everything drawn; all of it can be made again. */
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
    // A pending request stays: changes arrive at every refresh, and postponing it each time would never end.
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
    // For tests and benchmarks: the frame in the picture, and whether it is complete.
    canvas.dataset.frame = String(frame);
    canvas.dataset.complete = String(waiting.length === 0);
    canvas.dataset.drawn = String(Number(canvas.dataset.drawn ?? 0) + 1);
    canvas.dataset.subframes = '1';
    this.reports.onRefined(1, this.wanted(this.shown, drawer));
    if (this.again) this.soon();
    else this.resting = setTimeout(() => void this.refine(), STILL);
  };

  /** Draws, one at a time; false if the renderer is gone meanwhile. */
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
   * Adds sub-frames, one per refresh, until something changes. Their number is fixed, so that the same picture always
   * looks the same.
   */
  private async refine(): Promise<void> {
    const { drawer, canvas, shown } = this;
    if (!drawer || !shown || this.drawing || this.ended) return;
    const { coarse } = this;
    this.coarse = 1;
    if (followsRays()) {
      // It is visible until the first rays are traced.
      if (coarse > 1 && (await this.drawn(drawer, shown, 0, 1)) && this.again) this.soon();
      return;
    }
    const of = this.wanted(shown, drawer);
    const instants = await this.instants(shown, of);
    // Something may have changed during evaluation.
    if (this.drawing || this.ended || this.asked || this.shown !== shown) return;
    for (let number = 0; number < of; number++) {
      const instant = instants[instantInRounds(number, of, instants.length)];
      if (!(await this.drawn(drawer, instant, number, of))) return;
      canvas.dataset.subframes = String(number + 1);
      this.reports.onRefined(number + 1, of);
      // An edit, a new shape or another size: the pending result is not the picture any more.
      if (this.again) return this.soon();
      if (this.asked || useCovered.getState().covered) return;
    }
    canvas.dataset.still = 'true';
  }

  /** Sub-frames of the current picture: as chosen, or as its contents need. */
  private wanted(shown: ViewFrame, drawer: FrameRenderer): number {
    const usual = subframesFor(shown, drawer.subframes);
    return usual > 1 ? (useEditor.getState().subframes ?? usual) : 1;
  }

  /** The picture at all instants of its exposure; itself if there is one instant, or if they cannot be made. */
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
    // If only shapes changed, there is nothing to draw until one arrives, which the engine reports.
    const shapesOnly = sameMode && a.frame === b.frame && looksAlike(a.piece, b.piece);
    if (shapesOnly && !session()?.engine.isSettled(a.frame)) return;
    this.soon();
  };

  private readonly arrived = () => {
    const engine = session()?.engine;
    if (!engine || !this.drawer) return;
    // When the newest shape was ready: from here on, only drawing takes time.
    const { piece, frame } = useEditor.getState();
    if (engine.isReady(frame)) this.canvas.dataset.arrived = performance.now().toFixed(1);
    // Most arriving shapes are of frames ahead: the picture is redrawn only for its own.
    const shown = new Map(this.shown?.ribbons.map((r) => [r.id, r.shape]));
    const newer = piece.ribbons.some((r) => {
      const shape = r.on ? engine.geometry(r, frame) : undefined;
      return shape !== undefined && shape !== shown.get(r.id);
    });
    if (newer || this.canvas.dataset.complete !== 'true' || this.canvas.dataset.frame !== String(frame)) this.soon();
  };
}

/** Whether true light covers the picture, so that refining it below would be invisible. */
function followsRays(): boolean {
  const { light, mode } = useEditor.getState();
  return light === 'true' && mode === 'shaded' && !useTrueLight.getState().compare;
}

/** Whether two pieces differ in shapes at most: ribbons, finishes and scene are the same. */
function looksAlike(a: Piece, b: Piece): boolean {
  return (
    a.scene === b.scene &&
    a.ribbons.length === b.ribbons.length &&
    a.ribbons.every(
      (r, i) => r.id === b.ribbons[i].id && r.on === b.ribbons[i].on && r.finishes === b.ribbons[i].finishes,
    )
  );
}
