import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from '@maypole/core/piece/piece';
import type { MotionDoc } from '@maypole/core/time/motion';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { composeFrame } from './compose';
import { Engine } from './engine';
import { Evaluator } from './evaluator';
import type { EvaluateJob, ToEvaluator } from './protocol';

/** Jobs in the order workers were given them. */
let jobs: EvaluateJob[] = [];
let fail: ((job: EvaluateJob) => boolean) | null = null;

/** A worker in this thread: the real evaluator behind the real messages, answering a little later. */
class NearWorker {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: unknown = null;
  private readonly evaluator = new Evaluator();
  private ended = false;

  postMessage(data: ToEvaluator): void {
    const message = structuredClone(data);
    if (message.type === 'evaluate') jobs.push(message);
    setTimeout(() => {
      if (this.ended) return;
      const bad = message.type === 'evaluate' && fail?.(message);
      const answer = bad ? { message: { type: 'failed', id: message.id, message: 'No luck.' }, transfer: [] } : this.evaluator.handle(message);
      if (answer) this.onmessage?.({ data: structuredClone(answer.message, { transfer: answer.transfer }) });
    });
  }
  terminate(): void {
    this.ended = true;
  }
}

const wave = (low: number, high: number): MotionDoc => ({ motion: 'wave', shape: 'sine', low, high, turns: 1, phase: 0 });
const ring = (...more: ReturnType<typeof newStep>[]): RibbonDoc => ({ ...newRibbon('torus', 0), steps: [newStep('torus', { ringSegments: 8, pipeSegments: 6 }), ...more] });
const withRibbons = (...ribbons: RibbonDoc[]): Piece => ({ ...newPiece('Engine'), loop: { frames: 10, fps: 10 }, ribbons });
const moving = () => ring(newStep('twist', { angle: wave(-40, 40), axis: 'x' }));

let engine: Engine;
beforeEach(() => {
  jobs = [];
  fail = null;
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
    for (let f = 1; f < 10; f++) expect(engine.geometry(engineRibbon(), f)!.parts[0].positions).toBe(still!.parts[0].positions);
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
    const piece = withRibbons({ ...a, name: 'Other', finish: { ...a.finish, roughness: 3 } });
    engine.setPiece({ ...piece, loop: { frames: 10, fps: 50 }, scene: { ...piece.scene, camera: { ...piece.scene.camera, azimuth: 90 } } }, 'draft');
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
      engine.setPiece(withRibbons({ ...a, steps: [newStep('torus', { ringSegments: 8, pipeSegments: 6, ringRadius: 1 + i / 100 }), a.steps[1]] }), 'draft');
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
  it('a failing frame is told and does not hold up the rest', async () => {
    fail = (job) => job.frame === 3;
    engine.setPiece(withRibbons(moving()), 'draft');
    await complete();
    expect(engine.failure(engineRibbon(), 3)).toBe('No luck.');
    expect(engine.geometry(engineRibbon(), 3)).toBeUndefined();
    expect(engine.geometry(engineRibbon(), 4)).toBeDefined();
  });
  it('stops when the memory is used up, and says so', async () => {
    const small = new Engine({ workers: 1, budget: 3 * 48 * 3 * 4 * 2 });
    small.setPiece(withRibbons(moving()), 'draft');
    await vi.waitFor(() => expect(small.getReadiness().full).toBe(true), { timeout: 5000 });
    await new Promise((resolve) => setTimeout(resolve, 250));
    expect(small.getReadiness().count).toBeLessThan(6);
    // The frame shown is still worked out.
    await small.whenReady(8);
    expect(small.isReady(8)).toBe(true);
    small.dispose();
  });
  it('ribbons that are off are neither worked out nor drawn', async () => {
    const [a, b] = [moving(), { ...moving(), on: false }];
    const piece = withRibbons(a, b);
    engine.setPiece(piece, 'draft');
    await complete();
    expect(jobs.every((j) => j.ribbon.id === a.id)).toBe(true);
    const frame = composeFrame(engine, piece, 0, 'shaded');
    expect(frame.ribbons.map((r) => r.id)).toEqual([a.id]);
    expect(frame.outputAspect).toBe(1);
    expect(frame.ribbons[0].finish.roughness).toBeCloseTo(0.45, 9);
  });
  it('connectivities with equal faces have one key, whichever worker met them', async () => {
    const piece = withRibbons(moving(), ring(newStep('displace')));
    engine.setPiece(piece, 'draft');
    await complete();
    const keys = piece.ribbons.flatMap((r) => [0, 5].map((f) => engine.geometry(r, f)!.parts[0].topology.key));
    expect(new Set(keys).size).toBe(1);
  });
});
