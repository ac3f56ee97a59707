import { needsOcclusion } from '@maypole/core/finish/finish';
import { ribbonFingerprint } from '@maypole/core/evaluate/ribbon';
import { linkPiece } from '@maypole/core/piece/link';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import { LoopCache, type RibbonGeometry, type RibbonPart } from './evaluate/loop-cache';
import { EvaluatorPool, type Job } from './evaluate/pool';
import type { EvaluateResult, Topology } from './evaluate/protocol';

const MB = 1024 * 1024;
/** Frames other than the current one wait until editing has paused for this long. */
const QUIET_MS = 400;
const MAX_TOPOLOGIES = 48;

/** From this many milliseconds on, a slow shape is reported and can be stopped. */
const SLOW_MS = 2000;

/** Automatic retries of a failed shape: the first failure may have been the worker's. */
const TRIES = 2;

/** How much of the loop is evaluated. */
export interface Readiness {
  /** One flag per frame, 0…N−1. */
  readonly ready: readonly boolean[];
  readonly count: number;
  /** The memory for frames is used up before the loop is complete. */
  readonly full: boolean;
  /** Frames with a shape that could not be made, and the first message. */
  readonly failed: number;
  readonly failure?: string;
  /** Seconds that one shape has been evaluated for; 0 unless it is slow. */
  readonly slow: number;
  /** Ribbons whose evaluation was stopped. */
  readonly stopped: number;
}

/** A shape that could not be made. */
class FrameTrouble extends Error {
  override readonly name = 'FrameTrouble';
}

/**
 * Keeps a loop evaluated: takes the current piece, has its shapes evaluated in workers (the current frame first, then
 * those ahead of it), and hands them out for drawing.
 */
export class Engine {
  private readonly cache: LoopCache;
  private readonly pool: EvaluatorPool;
  private readonly topologies = new Map<string, Topology>();
  private readonly running = new Set<string>();
  /** Failed shapes by job: number of attempts, and the message. */
  private readonly failed = new Map<string, { tries: number; frame: number; message: string }>();
  /** For each whole frame, the number of ribbons whose shape is there. */
  private counts = new Uint16Array(0);
  /** This many frames from `scannedFrom` on have no evaluation left to start. */
  private scanned = 0;
  private scannedFrom = 0;
  private readonly listeners = new Set<() => void>();
  private readonly waiters: { frame: number; resolve: () => void; reject: (error: Error) => void }[] = [];
  private ribbons: { doc: RibbonDoc; fingerprint: string }[] = [];
  /** Linked form of each ribbon of the newest piece, ready to evaluate. */
  private readonly links = new WeakMap<RibbonDoc, RibbonDoc>();
  private readonly prints = new WeakMap<RibbonDoc, { key: string; print: string }>();
  private piece: Piece | null = null;
  private detail: Detail = 'draft';
  private frame = 0;
  private quietUntil = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readiness: Readiness | null = null;
  private disposed = false;

  /** Fingerprints whose evaluation was stopped. */
  private readonly stoppedPrints = new Set<string>();
  /** Ribbons whose expensive steps are evaluated too. */
  private readonly allowed = new Set<string>();
  private watch: ReturnType<typeof setInterval> | undefined;
  private readonly asksFirst: boolean;

  /** @param options.asksFirst expensive steps wait until `allow` is called for their ribbon */
  constructor(options: { budget?: number; ahead?: boolean; workers?: number; asksFirst?: boolean } = {}) {
    this.asksFirst = options.asksFirst ?? false;
    this.cache = new LoopCache(options.budget ?? 1024 * MB, (print, frame) => this.count(print, frame, -1));
    this.pool = new EvaluatorPool(() => this.nextJob(), options.workers);
    this.ahead = options.ahead ?? true;
  }

  /** Whether frames ahead are evaluated; off for one-off uses. */
  private readonly ahead: boolean;

  private held = false;

  /** Pauses frames ahead, since something visible needs the processors. */
  holdAhead(on: boolean): void {
    this.held = on;
    if (!on) this.wake();
  }

  /** Called whenever a shape has arrived or the piece has changed. */
  subscribe(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  setPiece(piece: Piece, detail: Detail): void {
    const before = this.ribbons.map((r) => r.fingerprint).join();
    const frames = this.piece?.loop.frames;
    this.piece = piece;
    this.detail = detail;
    const linked = linkPiece(piece);
    piece.ribbons.forEach((r, i) => this.links.set(r, linked.ribbons[i]));
    this.ribbons = linked.ribbons.filter((r) => r.on).map((doc) => ({ doc, fingerprint: this.printOf(doc) }));
    const prints = this.ribbons.map((r) => r.fingerprint);
    if (prints.join() !== before || piece.loop.frames !== frames) {
      this.failed.clear();
      for (const print of this.stoppedPrints) if (!prints.includes(print)) this.stoppedPrints.delete(print);
      this.recount();
      this.quietUntil = performance.now() + QUIET_MS;
      for (const print of prints) this.cache.touch(print);
      this.cache.trim(new Set(prints));
    }
    this.changed();
    this.wake();
  }

  /** The current frame: whole or fractional, unwrapped. */
  setFrame(frame: number): void {
    this.frame = frame;
    this.wake();
  }

  /** The shape of a ribbon at a frame, if it is there. */
  geometry(ribbon: RibbonDoc, frame: number): RibbonGeometry | undefined {
    return this.cache.get(this.printOf(ribbon), frame);
  }

  /** Whether all shapes of a frame are there. */
  isReady(frame: number): boolean {
    return this.ribbons.every((r) => this.cache.get(r.fingerprint, frame));
  }

  /** Whether waiting will not improve a frame: everything is there, or has failed. */
  isSettled(frame: number): boolean {
    return this.ribbons.every((r) => this.cache.get(r.fingerprint, frame) || this.hasFailed(r.fingerprint, frame));
  }

  /** What went wrong with a ribbon at a frame, for a bug that no step foresaw. */
  failure(ribbon: RibbonDoc, frame: number): string | undefined {
    const print = this.printOf(ribbon);
    return this.hasFailed(print, frame) ? (this.failed.get(jobKey(print, frame))?.message ?? STOPPED) : undefined;
  }

  /** Evaluates expensive steps of a ribbon too. */
  allow(ribbon: string): void {
    if (this.allowed.has(ribbon) || !this.piece) return;
    this.allowed.add(ribbon);
    this.setPiece(this.piece, this.detail);
  }

  /**
   * Stops slow evaluations: those shapes are skipped until the piece changes, or `retry`.
   *
   * @returns identifiers of the slow steps
   */
  stopSlow(): string[] {
    this.stopping = true;
    const steps = this.pool.stop(SLOW_MS, 'It was stopped');
    this.stopping = false;
    return steps;
  }

  private stopping = false;

  /** Tries again what failed or was stopped. */
  retry(): void {
    this.failed.clear();
    this.stoppedPrints.clear();
    this.scanned = 0;
    this.changed();
    this.wake();
  }

  /** Resolves when all shapes of a frame are there; rejects with a FrameTrouble if one fails. */
  whenReady(frame: number): Promise<void> {
    this.setFrame(frame);
    return this.whenThere(frame);
  }

  /** The same for a frame that is not shown by itself. */
  whenThere(frame: number): Promise<void> {
    if (this.isReady(frame)) return Promise.resolve();
    if (this.isSettled(frame)) return Promise.reject(new FrameTrouble(this.troubleAt(frame)));
    return new Promise((resolve, reject) => {
      this.waiters.push({ frame, resolve, reject });
      this.wake();
    });
  }

  getReadiness(): Readiness {
    if (!this.readiness) {
      const wanted = this.ribbons.length;
      const ready = Array.from(this.counts, (n) => n === wanted);
      const count = ready.reduce((n, r) => n + (r ? 1 : 0), 0);
      const longest = this.pool.longest();
      const lost = [...this.failed.values()].filter((f) => f.tries >= TRIES);
      this.readiness = {
        ready,
        count,
        full: this.cache.room() < 1 && count < ready.length,
        failed: lost.length,
        ...(lost.length > 0 ? { failure: `Frame ${lost[0].frame}: ${lost[0].message}` } : {}),
        slow: longest >= SLOW_MS ? Math.floor(longest / 1000) : 0,
        stopped: this.ribbons.filter((r) => this.stoppedPrints.has(r.fingerprint)).length,
      };
    }
    return this.readiness;
  }

  dispose(): void {
    this.disposed = true;
    clearTimeout(this.timer);
    clearInterval(this.watch);
    this.pool.dispose();
    this.listeners.clear();
    for (const w of this.waiters.splice(0)) w.reject(new Error('Stopped.'));
  }

  private printOf(ribbon: RibbonDoc): string {
    const doc = this.links.get(ribbon) ?? ribbon;
    const loop = this.piece!.loop;
    const crevices = needsOcclusion(doc.finishes);
    const waits = this.asksFirst && !this.allowed.has(doc.id);
    const key = `${loop.frames}/${this.detail}/${waits}`;
    const known = this.prints.get(doc);
    if (known?.key === key) return known.print;
    const shape = ribbonFingerprint(doc, loop, this.detail);
    const print = `${shape}${crevices ? '/crevices' : ''}${waits ? '/waits' : ''}`;
    this.prints.set(doc, { key, print });
    return print;
  }

  private wake(): void {
    if (!this.disposed) this.pool.wake();
  }

  private nextJob(): { job: Job; done: (result: EvaluateResult | Error) => void } | null {
    if (!this.piece) return null;
    const { frames } = this.piece.loop;
    const shown = this.missingAt(this.frame);
    if (shown) return this.jobFor(shown, this.frame);
    for (const { frame } of this.waiters) {
      const waited = this.missingAt(frame);
      if (waited) return this.jobFor(waited, frame);
    }
    if (!this.ahead || this.held) return null;
    const wait = this.quietUntil - performance.now();
    if (wait > 0) {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.wake(), wait + 1);
      return null;
    }
    const start = ((Math.floor(this.frame) % frames) + frames) % frames;
    this.scanFrom(start, frames);
    // If the loop does not fit into memory, the frames that come next are evaluated all the same, as many as fit with
    // room to spare; past ones make way.
    const reach =
      this.cache.room() >= 1
        ? frames
        : Math.min(
            frames,
            2 * this.pool.size + 1,
            Math.floor(this.cache.capacity() / 2 / Math.max(1, this.ribbons.length)),
          );
    for (; this.scanned < reach; this.scanned++) {
      const f = (start + this.scanned) % frames;
      if (this.counts[f] === this.ribbons.length) continue;
      const missing = this.missingAt(f);
      if (missing) return this.jobFor(missing, f);
    }
    return null;
  }

  /** Moves the scanned range along with the current frame. */
  private scanFrom(start: number, frames: number): void {
    const gone = (((start - this.scannedFrom) % frames) + frames) % frames;
    this.scanned = gone <= this.scanned ? this.scanned - gone : 0;
    this.scannedFrom = start;
  }

  private missingAt(frame: number) {
    return this.ribbons.find(({ fingerprint }) => {
      if (this.cache.get(fingerprint, frame)) return false;
      const key = jobKey(fingerprint, frame);
      return !this.running.has(key) && !this.hasFailed(fingerprint, frame);
    });
  }

  private hasFailed(fingerprint: string, frame: number): boolean {
    if (this.stoppedPrints.has(fingerprint)) return true;
    return this.failed.size > 0 && (this.failed.get(jobKey(fingerprint, frame))?.tries ?? 0) >= TRIES;
  }

  private count(fingerprint: string, frame: number, by: 1 | -1): void {
    if (by < 0) this.scanned = 0;
    if (!Number.isInteger(frame) || frame < 0 || frame >= this.counts.length) return;
    for (const r of this.ribbons) if (r.fingerprint === fingerprint) this.counts[frame] += by;
  }

  private recount(): void {
    this.counts = new Uint16Array(this.piece?.loop.frames ?? 0);
    this.scanned = 0;
    for (const { fingerprint } of this.ribbons)
      for (const f of this.cache.framesOf(fingerprint))
        if (Number.isInteger(f) && f >= 0 && f < this.counts.length) this.counts[f]++;
  }

  private jobFor({ doc, fingerprint }: { doc: RibbonDoc; fingerprint: string }, frame: number) {
    const key = jobKey(fingerprint, frame);
    this.running.add(key);
    this.watchSlow();
    const job: Job = {
      ribbon: doc,
      loop: this.piece!.loop,
      frame,
      detail: this.detail,
      ...(needsOcclusion(doc.finishes) ? { occlusion: true } : {}),
      ...(this.asksFirst && !this.allowed.has(doc.id) ? { asksFirst: true } : {}),
      have: this.cache.keysOf(fingerprint),
    };
    return {
      job,
      done: (result: EvaluateResult | Error) => {
        this.running.delete(key);
        if (result instanceof Error && this.stopping) this.stoppedPrints.add(fingerprint);
        else if (result instanceof Error) {
          this.failed.set(key, { tries: (this.failed.get(key)?.tries ?? 0) + 1, frame, message: result.message });
          this.scanned = 0;
        } else {
          this.failed.delete(key);
          this.take(fingerprint, frame, result);
        }
        this.changed();
      },
    };
  }

  /** Reports slow evaluation for as long as something is under way. */
  private watchSlow(): void {
    this.watch ??= setInterval(() => {
      const told = (this.readiness?.slow ?? 0) > 0;
      if (told || this.pool.longest() >= SLOW_MS) this.changed();
      if (this.running.size > 0) return;
      clearInterval(this.watch);
      this.watch = undefined;
    }, 1000);
  }

  private take(fingerprint: string, frame: number, result: EvaluateResult): void {
    const { key, problems, notes, facts } = result;
    const known = this.cache.shape(key);
    if (known) this.keep(fingerprint, frame, { ...known, problems, notes });
    else {
      const parts: RibbonPart[] = [];
      for (const p of result.parts ?? []) {
        if (p.topology) this.topologies.set(p.topology.key, p.topology);
        const body = this.cache.body(p.key);
        const topology = this.topologies.get(p.topologyKey);
        const [positions, normals] = [p.positions ?? body?.positions, p.normals ?? body?.normals];
        // Dropped between request and answer: it will be requested again, in full.
        if (!topology || !positions || !normals) return this.again(p.topologyKey);
        const occlusion = p.occlusion ?? body?.occlusion;
        parts.push({
          key: p.key,
          topology,
          positions,
          normals,
          ...(occlusion ? { occlusion } : {}),
          ...(p.instances ? { instances: p.instances } : {}),
          ...(p.field ? { field: p.field } : {}),
        });
      }
      if (!result.parts) return this.again();
      this.keep(fingerprint, frame, { key, parts, problems, notes, ...(facts ? { facts } : {}) });
    }
    this.cache.trim(new Set(this.ribbons.map((r) => r.fingerprint)));
    this.cache.shed(this.frame, this.piece?.loop.frames ?? 1);
    this.trimTopologies();
  }

  /** An answer that omits buffers which have been dropped since: it is requested again. */
  private again(topology?: string): void {
    this.scanned = 0;
    if (topology) this.pool.forget([topology]);
  }

  private keep(fingerprint: string, frame: number, geometry: RibbonGeometry): void {
    if (this.cache.get(fingerprint, frame)) return;
    this.cache.set(fingerprint, frame, geometry);
    this.count(fingerprint, frame, 1);
  }

  private trimTopologies(): void {
    if (this.topologies.size <= MAX_TOPOLOGIES) return;
    const used = this.cache.topologies();
    const gone = [...this.topologies.keys()].filter((key) => !used.has(key));
    for (const key of gone) this.topologies.delete(key);
    if (gone.length > 0) this.pool.forget(gone);
  }

  private troubleAt(frame: number): string {
    for (const { doc, fingerprint } of this.ribbons) {
      const known = this.failed.get(jobKey(fingerprint, frame));
      if (known) return sentenceOf(frame, doc.name, known.message);
      if (this.stoppedPrints.has(fingerprint)) return sentenceOf(frame, doc.name, STOPPED);
    }
    return `Frame ${frame} could not be made.`;
  }

  private changed(): void {
    this.readiness = null;
    for (let i = this.waiters.length - 1; i >= 0; i--) {
      const { frame } = this.waiters[i];
      if (!this.isSettled(frame)) continue;
      const [waiter] = this.waiters.splice(i, 1);
      if (this.isReady(frame)) waiter.resolve();
      else waiter.reject(new FrameTrouble(this.troubleAt(frame)));
    }
    for (const listener of this.listeners) listener();
  }
}

const STOPPED = 'It was stopped, since it took long.';

/** What the delivery and the picture say about an incomplete frame. */
function sentenceOf(frame: number, name: string, message: string): string {
  return (
    `Frame ${frame} could not be made: ${name} said “${message.replace(/[.!]$/, '')}”. Change or switch off ` +
    'its last steps, or try again.'
  );
}

function jobKey(fingerprint: string, frame: number): string {
  return `${fingerprint}@${frame}`;
}
