import { newPiece } from '@maypole/core/piece/piece';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { FromSeam, SeamJob } from './protocol';
import { SeamWatch, type SeamMeasure } from './seam-watch';

/** A worker that keeps what it is told and answers when the test says so. */
class FakeWorker {
  static last: FakeWorker;
  onmessage: ((event: { data: FromSeam }) => void) | null = null;
  readonly jobs: SeamJob[] = [];
  ended = false;
  constructor() {
    FakeWorker.last = this;
  }
  postMessage(job: SeamJob): void {
    this.jobs.push(job);
  }
  terminate(): void {
    this.ended = true;
  }
  answer(data: FromSeam): void {
    this.onmessage!({ data });
  }
}

const proof = (moving: number) => ({ closed: true, findings: [], moving, truePeriod: 100 });
const exact = { how: 'exact', byPoint: { largest: 0, rms: 0, by: 'vertex' } } as const;
const ribbons = [{ id: 'a', name: 'A', closure: exact }];

describe('watching the seam', () => {
  let told: SeamMeasure[];
  let watch: SeamWatch;
  let worker: FakeWorker;
  const types = () => worker.jobs.map((j) => `${j.type}${j.id}`);
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('Worker', FakeWorker);
    told = [];
    watch = new SeamWatch((m) => told.push(m));
    worker = FakeWorker.last;
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  const ask = (steps = false) => watch.request(newPiece('P'), 'draft', steps, 100);

  it('proves at once and measures when editing has paused', () => {
    ask();
    expect(types()).toEqual(['prove1']);
    vi.advanceTimersByTime(99);
    expect(types()).toEqual(['prove1']);
    vi.advanceTimersByTime(1);
    expect(types()).toEqual(['prove1', 'measure1']);
  });
  it('while a value is dragged asks for one proof at a time, and always for the newest', () => {
    for (let i = 0; i < 20; i++) ask();
    expect(types()).toEqual(['prove1']);
    worker.answer({ type: 'proof', id: 1, proof: proof(1) });
    expect(types()).toEqual(['prove1', 'prove20']);
    worker.answer({ type: 'proof', id: 20, proof: proof(20) });
    vi.advanceTimersByTime(100);
    // Of twenty edits only the last is measured.
    expect(types()).toEqual(['prove1', 'prove20', 'measure20']);
    expect(told.at(-1)!.proof!.moving).toBe(20);
  });
  it('keeps the last proof in sight until the next one comes, but never old shapes', () => {
    ask();
    worker.answer({ type: 'proof', id: 1, proof: proof(3) });
    vi.advanceTimersByTime(100);
    worker.answer({ type: 'shapes', id: 1, ribbons, symmetry: {} });
    expect(told.at(-1)).toMatchObject({ state: 'shapes', ribbons });
    ask();
    expect(told.at(-1)).toMatchObject({ state: 'measuring', ribbons: [], proof: { moving: 3 } });
    // What was measured of the piece before comes too late.
    worker.answer({ type: 'shapes', id: 1, ribbons, symmetry: {} });
    expect(told.at(-1)!.state).toBe('measuring');
  });
  it('tells progress and the finished steps, and what went wrong', () => {
    ask(true);
    worker.answer({ type: 'proof', id: 1, proof: proof(0) });
    vi.advanceTimersByTime(100);
    expect(worker.jobs.at(-1)).toMatchObject({ type: 'measure', steps: true });
    worker.answer({ type: 'progress', id: 1, done: 30, total: 60 });
    expect(told.at(-1)!.progress).toBe(0.5);
    worker.answer({ type: 'steps', id: 1, ribbons: [{ ...ribbons[0], steps: [1, 2] }] });
    expect(told.at(-1)).toMatchObject({ state: 'complete', progress: 1 });
    ask();
    worker.answer({ type: 'failed', id: 2, message: 'No memory' });
    expect(told.at(-1)).toMatchObject({ state: 'failed', message: 'No memory' });
  });
  it('ends its worker', () => {
    ask();
    watch.dispose();
    vi.advanceTimersByTime(1000);
    expect(worker.ended).toBe(true);
    expect(types()).toEqual(['prove1']);
  });
});
