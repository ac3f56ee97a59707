import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from '@maypole/core/piece/piece';
import type { MotionDoc } from '@maypole/core/time/motion';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { composeFrame } from '../draw/compose';
import { Engine } from '../engine';
import { Evaluator } from './evaluator';
import { LoopCache } from './loop-cache';
import { COLD_MS } from './pool';
import type { EvaluateJob, ToEvaluator } from './protocol';

/** Jobs in the order workers were given them. */
let jobs: EvaluateJob[] = [];
let fail: ((job: EvaluateJob) => boolean) | null = null;
let die: ((job: EvaluateJob) => boolean) | null = null;
/** Jobs that are never answered. */
let endless: ((job: EvaluateJob) => boolean) | null = null;
let [died, started] = [0, 0];

/** A worker in this thread: the real evaluator behind the real messages, answering a little later. */
class NearWorker {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  private readonly evaluator = new Evaluator();
  private ended = false;
  constructor() {
    started++;
  }

  postMessage(data: ToEvaluator): void {
    const message = structuredClone(data);
    if (message.type === 'evaluate') jobs.push(message);
    setTimeout(() => {
      if (this.ended || (message.type === 'evaluate' && endless?.(message))) return;
      if (message.type === 'evaluate' && die?.(message)) return this.onerror?.({ message: 'Out of memory.' });
      const bad = message.type === 'evaluate' && fail?.(message);
      const answer = bad
        ? { message: { type: 'failed', id: message.id, message: 'No luck.' }, transfer: [] }
        : this.evaluator.handle(message);
      if (answer) this.onmessage?.({ data: structuredClone(answer.message, { transfer: answer.transfer }) });
    });
  }
  terminate(): void {
    this.ended = true;
  }
}

const wave = (low: number, high: number): MotionDoc => ({
  motion: 'wave',
  shape: 'sine',
  low,
  high,
  turns: 1,
  phase: 0,
});
const ring = (...more: ReturnType<typeof newStep>[]): RibbonDoc => ({
  ...newRibbon('torus', 0),
  steps: [newStep('torus', { ringSegments: 8, pipeSegments: 6 }), ...more],
});
const withRibbons = (...ribbons: RibbonDoc[]): Piece => ({
  ...newPiece('Engine'),
  loop: { frames: 10, fps: 10 },
  ribbons,
});
const moving = () => ring(newStep('twist', { angle: wave(-40, 40), axis: 'x' }));

let engine: Engine;
beforeEach(() => {
  jobs = [];
  fail = die = endless = null;
  died = started = 0;
  vi.stubGlobal('Worker', NearWorker);
  engine = new Engine({ workers: 2 });
});
afterEach(() => {
  engine.dispose();
  vi.unstubAllGlobals();
});

const complete = () => vi.waitFor(() => expect(engine.getReadiness().count).toBe(10), { timeout: 5000, interval: 5 });

describe('engine', () => {
  it('works out the frame shown first, then those ahead of it, once round', async () => {
    engine.setFrame(7);
    engine.setPiece(withRibbons(moving()), 'draft');
    await complete();
    expect(jobs.map((j) => j.frame)).toEqual([7, 8, 9, 0, 1, 2, 3, 4, 5, 6]);
  });
  it('sends the buffers of what stands still once', async () => {
    engine.setPiece(withRibbons(ring(newStep('twist'))), 'draft');
    await complete();
    const still = engine.geometry(engineRibbon(), 0);
    expect(still!.parts[0].positions.length).toBe(48 * 3);
    for (let f = 1; f < 10; f++)
      expect(engine.geometry(engineRibbon(), f)!.parts[0].positions).toBe(still!.parts[0].positions);
    expect(jobs.filter((j) => j.have.length > 0).length).toBeGreaterThanOrEqual(8);
  });
  let current: Piece;
  const engineRibbon = () => current.ribbons[0];
  beforeEach(() => {
    const set = engine.setPiece.bind(engine);
    engine.setPiece = (piece, detail) => {
      current = piece;
      set(piece, detail);
    };
  });

  it('an edit to one ribbon leaves the frames of the others alone', async () => {
    const [a, b] = [moving(), moving()];
    engine.setPiece(withRibbons(a, b), 'draft');
    await complete();
    jobs = [];
    const changed = { ...b, steps: [...b.steps, newStep('smooth')] };
    engine.setPiece(withRibbons(a, changed), 'draft');
    await complete();
    expect(jobs).toHaveLength(10);
    expect(new Set(jobs.map((j) => j.ribbon.id))).toEqual(new Set([b.id]));
  });
  it('finish, name, camera and frame rate cost nothing', async () => {
    const a = moving();
    engine.setPiece(withRibbons(a), 'draft');
    await complete();
    jobs = [];
    const piece = withRibbons({ ...a, name: 'Other', finishes: [] });
    engine.setPiece(
      {
        ...piece,
        loop: { frames: 10, fps: 50 },
        scene: {
          ...piece.scene,
          cameras: [{ ...piece.scene.cameras[0], values: { ...piece.scene.cameras[0].values, azimuth: 90 } }],
        },
      },
      'draft',
    );
    expect(engine.getReadiness().count).toBe(10);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(jobs).toHaveLength(0);
  });
  it('undo shows at once: shapes of earlier edits are still there', async () => {
    const a = moving();
    engine.setPiece(withRibbons(a), 'draft');
    await complete();
    engine.setPiece(withRibbons({ ...a, steps: a.steps.slice(0, 1) }), 'draft');
    await complete();
    jobs = [];
    engine.setPiece(withRibbons(a), 'draft');
    expect(engine.getReadiness().count).toBe(10);
  });
  it('while a value is dragged only the frame shown is worked out, and stale work is never begun', async () => {
    const a = moving();
    for (let i = 0; i < 20; i++) {
      engine.setPiece(
        withRibbons({
          ...a,
          steps: [newStep('torus', { ringSegments: 8, pipeSegments: 6, ringRadius: 1 + i / 100 }), a.steps[1]],
        }),
        'draft',
      );
      await new Promise((resolve) => setTimeout(resolve, 4));
    }
    expect(new Set(jobs.map((j) => j.frame))).toEqual(new Set([0]));
    expect(jobs.length).toBeLessThanOrEqual(20);
    await complete();
  });
  it('frame N is asked for as frame N, and equals frame 0', async () => {
    engine.setPiece(withRibbons(ring(newStep('displace', { rate: 1 }))), 'draft');
    await engine.whenReady(0);
    await engine.whenReady(10);
    expect(jobs.some((j) => j.frame === 10)).toBe(true);
    const [first, last] = [0, 10].map((f) => engine.geometry(engineRibbon(), f)!);
    expect(last.parts[0].positions).not.toBe(first.parts[0].positions);
    expect(last.parts[0].positions).toEqual(first.parts[0].positions);
  });
  it('a frame that failed is not ready, is told and tried again, and does not hold up the rest', async () => {
    fail = (job) => job.frame === 3;
    engine.setPiece(withRibbons(moving()), 'draft');
    await vi.waitFor(
      () => expect(engine.getReadiness()).toMatchObject({ count: 9, failed: 1, failure: 'Frame 3: No luck.' }),
      { timeout: 5000, interval: 5 },
    );
    expect(jobs.filter((j) => j.frame === 3)).toHaveLength(2);
    expect(engine.failure(engineRibbon(), 3)).toBe('No luck.');
    expect([engine.isReady(3), engine.isSettled(3), engine.isReady(4)]).toEqual([false, true, true]);
    await expect(engine.whenReady(3)).rejects.toThrow(
      'Frame 3 could not be made: Ribbon 1 said “No luck”. Change or switch off its last steps, or try again.',
    );
    fail = null;
    engine.retry();
    await complete();
    expect(engine.geometry(engineRibbon(), 3)).toBeDefined();
    expect(engine.failure(engineRibbon(), 3)).toBeUndefined();
  });
  it('what failed is tried anew after an edit', async () => {
    fail = () => true;
    engine.setPiece(withRibbons(moving()), 'draft');
    await expect(engine.whenReady(0)).rejects.toThrow('Frame 0 could not be made');
    fail = null;
    engine.setPiece(withRibbons(moving()), 'draft');
    await engine.whenReady(0);
  });
  it('a worker that dies answers its frame and is replaced; its buffers are sent anew', async () => {
    die = (job) => job.frame === 2 && !died++;
    engine.setPiece(withRibbons(moving()), 'draft');
    await complete();
    expect(died).toBe(2);
    expect(started).toBe(3);
    for (let f = 0; f < 10; f++)
      expect(engine.geometry(engineRibbon(), f)!.parts[0].topology.triangles.length).toBeGreaterThan(0);
  });
  it('where no worker lives the frame is refused with a sentence, and nothing starts workers for ever', async () => {
    die = () => true;
    engine.setPiece(withRibbons(moving()), 'draft');
    await expect(engine.whenReady(0)).rejects.toThrow(/^Frame 0 could not be made: Ribbon 1 said “/);
    await vi.waitFor(() => expect(engine.getReadiness().failed).toBe(10), { timeout: 5000 });
    expect(started).toBeLessThan(12);
  });
  const shapeBytes = 48 * 3 * 4 * 2;
  it('stops when the memory is used up, and says so', async () => {
    const small = new Engine({ workers: 1, budget: 4 * shapeBytes + 4000 });
    small.setPiece(withRibbons(moving()), 'draft');
    await vi.waitFor(() => expect(small.getReadiness().full).toBe(true), { timeout: 5000 });
    await small.whenReady(8);
    expect(small.getReadiness().count).toBeLessThan(8);
    expect(small.isReady(8)).toBe(true);
    small.dispose();
  });
  it('goes on ahead of the frame shown once the memory is used up, so that all workers have something to do', async () => {
    const small = new Engine({ workers: 2, budget: 10 * shapeBytes + 4000 });
    const long: Piece = { ...withRibbons(moving()), loop: { frames: 60, fps: 10 } };
    small.setPiece(long, 'draft');
    await vi.waitFor(() => expect(small.getReadiness().full).toBe(true), { timeout: 5000 });
    // As a delivery does: frame after frame. The next ones have been begun before they are asked for.
    let begun = 0;
    for (let f = 20; f < 50; f++) {
      await small.whenReady(f);
      if (jobs.some((j) => j.frame === f + 1)) begun++;
      await vi.waitFor(() => expect(small.isReady(f + 1)).toBe(true), { timeout: 5000, interval: 1 });
    }
    expect(begun).toBeGreaterThan(20);
    small.dispose();
  });
  it('asks each job of a long loop in about the same time, whatever has been worked out already', async () => {
    const reads = vi.spyOn(LoopCache.prototype, 'get');
    const long: Piece = {
      ...withRibbons(
        ...Array.from({ length: 4 }, (_, i) => ({ ...newRibbon('box', i), steps: [newStep('box', { segments: 1 })] })),
      ),
      loop: { frames: 400, fps: 10 },
    };
    engine.setPiece(long, 'draft');
    await vi.waitFor(() => expect(engine.getReadiness().count).toBe(400), { timeout: 20_000, interval: 5 });
    // 1600 jobs; looking through every frame for each of them would read over a million times.
    expect(reads.mock.calls.length).toBeLessThan(60_000);
    reads.mockRestore();
  }, 30_000);
  it('ribbons that are off are neither worked out nor drawn', async () => {
    const [a, b] = [moving(), { ...moving(), on: false }];
    const piece = withRibbons(a, b);
    engine.setPiece(piece, 'draft');
    await complete();
    expect(jobs.every((j) => j.ribbon.id === a.id)).toBe(true);
    const frame = composeFrame(engine, piece, 0, 'shaded');
    expect(frame.ribbons.map((r) => r.id)).toEqual([a.id]);
    expect(frame.aspect).toBe(1);
    expect(frame.ribbons[0].surfaces[0].roughness).toBeCloseTo(0.45, 9);
  });
  it('connectivities with equal faces have one key, whichever worker met them', async () => {
    const piece = withRibbons(moving(), ring(newStep('displace')));
    engine.setPiece(piece, 'draft');
    await complete();
    const keys = piece.ribbons.flatMap((r) => [0, 5].map((f) => engine.geometry(r, f)!.parts[0].topology.key));
    expect(new Set(keys).size).toBe(1);
  });
});

describe('work that takes long', () => {
  const many = () => ({ ...ring(newStep('repeat-line', { count: 400_000 })), id: 'many' });
  const isMany = (job: EvaluateJob) => job.ribbon.id === 'many';
  beforeEach(() => vi.useFakeTimers({ toFake: ['performance', 'setInterval', 'clearInterval'] }));
  afterEach(() => vi.useRealTimers());
  const settle = async (ready: () => void) => vi.waitFor(ready, { timeout: 5000, interval: 5 });

  it('is told of, stopped with its worker, not begun again by itself, and worked out when asked', async () => {
    endless = isMany;
    const piece = withRibbons({ ...moving(), id: 'many' }, ring(newStep('bend')));
    engine.setPiece(piece, 'draft');
    await settle(() => expect(engine.geometry(piece.ribbons[1], 0)).toBeDefined());
    expect(jobs.filter(isMany).length).toBeGreaterThan(0);
    expect(engine.getReadiness().slow).toBe(0);
    vi.advanceTimersByTime(COLD_MS + 5200);
    expect(engine.getReadiness().slow).toBe(5);
    const before = started;
    engine.stopSlow();
    expect(started).toBeGreaterThan(before);
    await settle(() => expect(engine.isReady(0) || engine.isSettled(0)).toBe(true));
    expect(engine.getReadiness()).toMatchObject({ slow: 0, stopped: 1 });
    expect(engine.failure(piece.ribbons[0], 0)).toContain('stopped');
    expect(engine.geometry(piece.ribbons[1], 0)).toBeDefined();
    const asked = jobs.filter(isMany).length;
    engine.setFrame(3);
    await settle(() => expect(engine.geometry(piece.ribbons[1], 3)).toBeDefined());
    expect(jobs.filter(isMany).length).toBe(asked);
    endless = null;
    engine.retry();
    await settle(() => expect(engine.geometry(piece.ribbons[0], 3)).toBeDefined());
    expect(engine.getReadiness().stopped).toBe(0);
  });
  it('of another piece is not held up by what was stopped', async () => {
    endless = isMany;
    engine.setPiece(withRibbons({ ...moving(), id: 'many' }), 'draft');
    await settle(() => expect(jobs.length).toBeGreaterThan(0));
    vi.advanceTimersByTime(COLD_MS + 3000);
    engine.stopSlow();
    endless = null;
    engine.setPiece(withRibbons({ ...ring(newStep('bend')), id: 'many' }), 'draft');
    await settle(() => expect(engine.isReady(0)).toBe(true));
    expect(engine.getReadiness().stopped).toBe(0);
  });
  it('waits to be asked for where the engine asks first, by its cost, and says so', async () => {
    const asking = new Engine({ workers: 1, ahead: false, asksFirst: true });
    const piece = withRibbons(many());
    asking.setPiece(piece, 'draft');
    await settle(() => expect(asking.geometry(piece.ribbons[0], 0)).toBeDefined());
    const shown = asking.geometry(piece.ribbons[0], 0)!;
    expect(shown.problems).toMatchObject([
      { waits: true, message: expect.stringContaining('400 thousand copies') as string },
    ]);
    expect(shown.facts).toBeUndefined();
    asking.allow('many');
    await settle(() => expect(asking.geometry(piece.ribbons[0], 0)?.facts?.count).toBe(400_000));
    asking.dispose();
    // Whoever delivers is not asked.
    engine.setPiece(piece, 'draft');
    await settle(() => expect(engine.geometry(piece.ribbons[0], 0)?.facts?.count).toBe(400_000));
  });
});
