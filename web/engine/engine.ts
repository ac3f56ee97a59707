import { ribbonFingerprint } from '@maypole/core/evaluate/ribbon';
import { linkPiece } from '@maypole/core/piece/link';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import { LoopCache, type RibbonGeometry, type RibbonPart } from './loop-cache';
import { EvaluatorPool, type Job } from './pool';
import type { EvaluateResult, Topology } from './protocol';

const MB = 1024 * 1024;
/** Work on frames other than the one shown waits until editing has paused for this long. */
const QUIET_MS = 400;
const MAX_TOPOLOGIES = 48;

/** How far the loop is worked out. */
export interface Readiness {
  /** One flag a frame, 0…N−1. */
  readonly ready: readonly boolean[];
  readonly count: number;
  /** True where the memory for frames is used up before the loop is complete. */
  readonly full: boolean;
}

/**
 * Keeps a loop worked out: takes the piece as it is now, has its shapes evaluated in workers (the
 * frame shown first, then those ahead of it), and hands them out for drawing.
 */
export class Engine {
  private readonly cache: LoopCache;
  private readonly pool: EvaluatorPool;
  private readonly topologies = new Map<string, Topology>();
  private readonly running = new Set<string>();
  private readonly failed = new Map<string, string>();
  private readonly listeners = new Set<() => void>();
  private readonly waiters: { frame: number; resolve: () => void; reject: (error: Error) => void }[] = [];
  private ribbons: { doc: RibbonDoc; fingerprint: string }[] = [];
  /** The ready-to-evaluate form of each ribbon as the newest piece has it. */
  private readonly links = new WeakMap<RibbonDoc, RibbonDoc>();
  private readonly prints = new WeakMap<RibbonDoc, { key: string; print: string }>();
  private piece: Piece | null = null;
  private detail: Detail = 'draft';
  private frame = 0;
  private quietUntil = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readiness: Readiness | null = null;
  private disposed = false;

  constructor(options: { budget?: number; ahead?: boolean; workers?: number } = {}) {
    this.cache = new LoopCache(options.budget ?? 1024 * MB);
    this.pool = new EvaluatorPool(() => this.nextJob(), options.workers);
    this.ahead = options.ahead ?? true;
  }

  /** Whether frames ahead are worked out; off for one-off uses. */
  private readonly ahead: boolean;

  /** Called whenever a shape has arrived or the piece has changed. */
  subscribe(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  setPiece(piece: Piece, detail: Detail): void {
    const before = this.ribbons.map((r) => r.fingerprint).join();
    this.piece = piece;
    this.detail = detail;
    const linked = linkPiece(piece);
    piece.ribbons.forEach((r, i) => this.links.set(r, linked.ribbons[i]));
    this.ribbons = linked.ribbons.filter((r) => r.on).map((doc) => ({ doc, fingerprint: this.printOf(doc) }));
    const prints = this.ribbons.map((r) => r.fingerprint);
    if (prints.join() !== before) {
      this.quietUntil = performance.now() + QUIET_MS;
      for (const print of prints) this.cache.touch(print);
      this.cache.trim(new Set(prints));
    }
    this.changed();
    this.wake();
  }

  /** The frame shown: any whole or fractional frame, unwrapped. */
  setFrame(frame: number): void {
    this.frame = frame;
    this.wake();
  }

  /** The shape of a ribbon at a frame if it is there. */
  geometry(ribbon: RibbonDoc, frame: number): RibbonGeometry | undefined {
    return this.cache.get(this.printOf(ribbon), frame);
  }

  isReady(frame: number): boolean {
    return this.ribbons.every((r) => this.cache.get(r.fingerprint, frame) || this.failed.has(jobKey(r.fingerprint, frame)));
  }

  /** What went wrong with a ribbon at a frame, for a bug that no step foresaw. */
  failure(ribbon: RibbonDoc, frame: number): string | undefined {
    return this.failed.get(jobKey(this.printOf(ribbon), frame));
  }

  /** Resolves when all shapes of a frame are there. */
  whenReady(frame: number): Promise<void> {
    this.frame = frame;
    if (this.isReady(frame)) return Promise.resolve();
    return new Promise((resolve, reject) => {
      this.waiters.push({ frame, resolve, reject });
      this.wake();
    });
  }

  getReadiness(): Readiness {
    if (!this.readiness) {
      const frames = this.piece?.loop.frames ?? 0;
      const ready = Array.from({ length: frames }, (_, f) => this.isReady(f));
      const count = ready.filter(Boolean).length;
      this.readiness = { ready, count, full: this.cache.isFull() && count < frames };
    }
    return this.readiness;
  }

  dispose(): void {
    this.disposed = true;
    clearTimeout(this.timer);
    this.pool.dispose();
    this.listeners.clear();
    for (const w of this.waiters.splice(0)) w.reject(new Error('Stopped.'));
  }

  private printOf(ribbon: RibbonDoc): string {
    const doc = this.links.get(ribbon) ?? ribbon;
    const loop = this.piece!.loop;
    const key = `${loop.frames}/${this.detail}`;
    const known = this.prints.get(doc);
    if (known?.key === key) return known.print;
    const print = ribbonFingerprint(doc, loop, this.detail);
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
    if (!this.ahead || this.cache.isFull()) return null;
    const wait = this.quietUntil - performance.now();
    if (wait > 0) {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.wake(), wait + 1);
      return null;
    }
    const start = Math.floor(this.frame);
    for (let i = 0; i < frames; i++) {
      const f = (((start + i) % frames) + frames) % frames;
      const missing = this.missingAt(f);
      if (missing) return this.jobFor(missing, f);
    }
    return null;
  }

  private missingAt(frame: number) {
    return this.ribbons.find(({ fingerprint }) => {
      const key = jobKey(fingerprint, frame);
      return !this.running.has(key) && !this.failed.has(key) && !this.cache.get(fingerprint, frame);
    });
  }

  private jobFor({ doc, fingerprint }: { doc: RibbonDoc; fingerprint: string }, frame: number) {
    const key = jobKey(fingerprint, frame);
    this.running.add(key);
    const job: Job = { ribbon: doc, loop: this.piece!.loop, frame, detail: this.detail, have: this.cache.keysOf(fingerprint) };
    return {
      job,
      done: (result: EvaluateResult | Error) => {
        this.running.delete(key);
        if (result instanceof Error) this.failed.set(key, result.message);
        else this.take(fingerprint, frame, result);
        this.changed();
      },
    };
  }

  private take(fingerprint: string, frame: number, result: EvaluateResult): void {
    const { key, problems, notes, facts } = result;
    const known = this.cache.shape(key);
    if (known) this.cache.set(fingerprint, frame, { ...known, problems, notes });
    else {
      const parts: RibbonPart[] = [];
      for (const p of result.parts ?? []) {
        if (p.topology) this.topologies.set(p.topology.key, p.topology);
        const body = this.cache.body(p.key);
        const topology = this.topologies.get(p.topologyKey);
        const [positions, normals] = [p.positions ?? body?.positions, p.normals ?? body?.normals];
        // Let go between asking and answering: it will be asked for again, in full.
        if (!topology) return this.pool.forget([p.topologyKey]);
        if (!positions || !normals) return;
        parts.push({ key: p.key, topology, positions, normals, ...(p.instances ? { instances: p.instances } : {}) });
      }
      if (!result.parts) return;
      this.cache.set(fingerprint, frame, { key, parts, problems, notes, ...(facts ? { facts } : {}) });
    }
    this.cache.trim(new Set(this.ribbons.map((r) => r.fingerprint)));
    this.cache.shed(this.frame, this.piece?.loop.frames ?? 1);
    this.trimTopologies();
  }

  private trimTopologies(): void {
    if (this.topologies.size <= MAX_TOPOLOGIES) return;
    const used = this.cache.topologies();
    const gone = [...this.topologies.keys()].filter((key) => !used.has(key));
    for (const key of gone) this.topologies.delete(key);
    if (gone.length > 0) this.pool.forget(gone);
  }

  private changed(): void {
    this.readiness = null;
    for (let i = this.waiters.length - 1; i >= 0; i--)
      if (this.isReady(this.waiters[i].frame)) this.waiters.splice(i, 1)[0].resolve();
    for (const listener of this.listeners) listener();
  }
}

function jobKey(fingerprint: string, frame: number): string {
  return `${fingerprint}@${frame}`;
}
