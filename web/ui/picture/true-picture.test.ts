import { newPiece } from '@maypole/core/piece/piece';
import { COUNT, SUMS } from '@maypole/core/trace/paths/tile-result';
import { tilesOf } from '@maypole/core/trace/paths/tiles';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ToDeveloper } from '@/engine/trace/develop-protocol';
import type { ToTracer } from '@/engine/trace/trace-protocol';
import type { Traced } from './traced';
import { useEditor } from '../state/store';
import { EFFORTS, useTrueLight } from '../state/true-light';
import { TruePicture } from './true-picture';

const held = vi.hoisted(() => ({ ahead: [] as boolean[] }));
vi.mock('../state/session', () => ({
  session: () => ({ engine: { holdAhead: (on: boolean) => void held.ahead.push(on) } }),
}));

/** A worker that notes what it is sent, and says what the test has it say. */
class FakeWorker {
  static all: FakeWorker[] = [];
  readonly sent: (ToTracer | ToDeveloper)[] = [];
  ended = false;
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: object) => void) | null = null;
  readonly name: string;
  constructor(url: URL) {
    this.name = url.href.split('/').at(-1)!;
    FakeWorker.all.push(this);
  }
  postMessage(message: ToTracer | ToDeveloper): void {
    this.sent.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
  of<T extends string>(type: T) {
    return this.sent.filter((m) => m.type === type) as Extract<ToTracer | ToDeveloper, { type: T }>[];
  }
}
const named = (name: string) => FakeWorker.all.filter((w) => w.name === name);
const tracers = () => named('trace.worker.ts');
const developer = () => named('develop.worker.ts')[0];
const firstDeveloper = () => named('coarse.worker.ts')[0];
const jobs = () => tracers()[0]?.of('picture') ?? [];

const element = {
  clientWidth: 640,
  clientHeight: 480,
  shown: null as object | null,
  listeners: new Map<string, (event: object) => void>(),
  appendChild(child: { isConnected: boolean }) {
    child.isConnected = true;
    this.shown = child;
  },
  addEventListener(name: string, listener: (event: object) => void) {
    this.listeners.set(name, listener);
  },
  removeEventListener(name: string) {
    this.listeners.delete(name);
  },
  getBoundingClientRect: () => ({ left: 100, top: 50, width: 640, height: 480 }),
};
const told = { traced: [] as (Traced | null)[], trouble: [] as string[] };
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const shown = { pictures: 0 };
let picture: InstanceType<typeof TruePicture>;

/** A picture as the darkroom gives it, of so many parts. */
const made = (width: number, height: number, parts = 0, map = false) => ({
  picture: { width, height, close: () => undefined },
  how: { denoise: useTrueLight.getState().denoise, shows: map ? 'samples' : 'picture' },
  parts,
});

/** Sums of a tile as if every pixel had so many samples of grey. */
function sums(width: number, height: number, samples: number): Float64Array {
  const out = new Float64Array(width * height * SUMS);
  for (let i = 0; i < out.length; i += SUMS) {
    out[i] = out[i + 1] = out[i + 2] = samples / 2;
    out[i + COUNT] = samples;
  }
  return out;
}

beforeEach(() => {
  vi.useFakeTimers();
  FakeWorker.all = [];
  held.ahead = [];
  shown.pictures = 0;
  element.shown = null;
  Object.assign(element, { clientWidth: 640, clientHeight: 480 });
  told.traced.length = told.trouble.length = 0;
  vi.stubGlobal('Worker', FakeWorker);
  vi.stubGlobal('navigator', { hardwareConcurrency: 4 });
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe = () => undefined;
      disconnect = () => undefined;
    },
  );
  const canvas = {
    style: {},
    dataset: {},
    isConnected: false,
    getContext: () => ({ transferFromImageBitmap: () => void shown.pictures++ }),
    remove() {
      this.isConnected = false;
      element.shown = null;
    },
  };
  vi.stubGlobal('document', { createElement: () => canvas });
  useTrueLight.setState({ ...EFFORTS[0].effort, brightest: 20, map: false, compare: false });
  useEditor.setState({ light: 'quick', mode: 'shaded', playing: false });
  useEditor.getState().open('id', { ...newPiece('Rays'), format: { width: 640, height: 480 } }, 1);
  picture = new TruePicture(element as unknown as HTMLElement, {
    onTraced: (t) => void told.traced.push(t),
    onTrouble: (words) => void told.trouble.push(words),
  });
});
afterEach(() => {
  picture.end();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const trueLight = async () => {
  useEditor.setState({ light: 'true' });
  await pass(150);
};

describe('true light', () => {
  it('costs nothing until it is switched on', async () => {
    useEditor.setState({ frame: 3 });
    await pass(1000);
    expect(FakeWorker.all).toEqual([]);
  });
  it('gives every worker but one for the hand a share of one picture', async () => {
    await trueLight();
    expect(tracers()).toHaveLength(3);
    const given = tracers().map((w) => w.of('picture')[0].job);
    expect(given.map((j) => [j.index, j.of])).toEqual([
      [0, 3],
      [1, 3],
      [2, 3],
    ]);
    expect(new Set(given.map((j) => j.id)).size).toBe(1);
    expect(given[0]).toMatchObject({ frame: 0, samples: EFFORTS[0].effort.most, place: [0.5, 0.5] });
    expect(developer().of('begin')[0]).toMatchObject({ width: 640, height: 480, samples: EFFORTS[0].effort.most });
  });
  it('stops at the first touch and begins when it is quiet, once, with what is there then', async () => {
    await trueLight();
    for (let f = 1; f <= 6; f++) {
      useEditor.setState({ frame: f });
      await pass(30);
    }
    // Told at once, six times, and nothing begun meanwhile.
    expect(tracers()[0].of('stop').length).toBeGreaterThanOrEqual(6);
    expect(jobs()).toHaveLength(1);
    await pass(150);
    expect(jobs()).toHaveLength(2);
    expect(jobs()[1].job.frame).toBe(6);
  });
  it('shows what comes of the newest picture alone', async () => {
    await trueLight();
    const { id } = jobs()[0].job;
    const arrive = (n: number) => developer().onmessage!({ data: { type: 'picture', id: n, ...made(640, 480) } });
    arrive(id);
    expect(shown.pictures).toBe(1);
    expect(element.shown).not.toBeNull();
    useEditor.setState({ frame: 2 });
    // A moving view is in quick light.
    expect(element.shown).toBeNull();
    arrive(id);
    expect(shown.pictures).toBe(1);
    await pass(150);
    arrive(jobs()[1].job.id);
    expect(shown.pictures).toBe(2);
  });
  it('keeps frames ahead waiting until the first picture is there', async () => {
    await trueLight();
    expect(held.ahead.at(-1)).toBe(true);
    developer().onmessage!({ data: { type: 'picture', id: jobs()[0].job.id, ...made(1, 1) } });
    expect(held.ahead.at(-1)).toBe(false);
  });
  it('has its first picture from a worker that has nothing else to do, and not after one that follows', async () => {
    await trueLight();
    const { id } = jobs()[0].job;
    const row = new Float64Array([1, 2, 3]);
    tracers()[0].onmessage!({ data: { type: 'coarse', id, row: 4, sums: row } });
    for (const worker of [firstDeveloper(), developer()]) {
      expect(worker.of('begin')).toHaveLength(1);
      expect(worker.of('coarse')).toEqual([{ type: 'coarse', id, row: 4, sums: row }]);
    }
    const said = { type: 'picture', id, ...made(1, 1) };
    firstDeveloper().onmessage!({ data: said });
    expect(shown.pictures).toBe(1);
    developer().onmessage!({ data: said });
    expect(shown.pictures).toBe(2);
    firstDeveloper().onmessage!({ data: said });
    expect(shown.pictures).toBe(2);
  });
  it('shows what is asked for by now, whatever comes late or in another order, and asks again for what does not come', async () => {
    await trueLight();
    const { id } = jobs()[0].job;
    const say = (parts: number, map = false) =>
      developer().onmessage!({ data: { type: 'picture', id, ...made(1, 1, parts, map) } });
    say(3);
    expect(shown.pictures).toBe(1);
    // An earlier one that comes after it.
    say(2);
    expect(shown.pictures).toBe(1);
    useTrueLight.setState({ map: true });
    expect(developer().of('how').at(-1)).toMatchObject({ how: { shows: 'samples' } });
    // What was under way, of what was asked for before.
    say(4);
    firstDeveloper().onmessage!({ data: { type: 'picture', id, ...made(1, 1) } });
    expect(shown.pictures).toBe(1);
    // The map does not come: it is asked for again once parts are there.
    const tile = tilesOf(640, 480)[0];
    const part = { sums: sums(tile.width, tile.height, 4), features: new Float32Array(0), worked: 0 };
    tracers()[0].onmessage!({ data: { type: 'part', id, tile, samples: 4, part } });
    const asked = developer().of('how').length;
    await pass(7000);
    expect(developer().of('how').length).toBeGreaterThan(asked);
    say(4, true);
    expect(shown.pictures).toBe(2);
    useTrueLight.setState({ map: false });
    say(4);
    expect(shown.pictures).toBe(3);
    // With the grain taken out or left in: the other one that comes late is not shown over it.
    useTrueLight.setState((s) => ({ denoise: !s.denoise }));
    say(4);
    expect(shown.pictures).toBe(4);
    firstDeveloper().onmessage!({
      data: {
        type: 'picture',
        id,
        ...made(1, 1, 4),
        how: { denoise: !useTrueLight.getState().denoise, shows: 'picture' },
      },
    });
    expect(shown.pictures).toBe(4);
    useTrueLight.setState((s) => ({ denoise: !s.denoise }));
  });
  it('tells how far it is, from what its tiles tell', async () => {
    await trueLight();
    const { id } = jobs()[0].job;
    const most = EFFORTS[0].effort.most;
    for (const tile of tilesOf(640, 480)) {
      const part = { sums: sums(tile.width, tile.height, most), features: new Float32Array(1), worked: 1 };
      tracers()[0].onmessage!({ data: { type: 'part', id, tile, samples: most, part } });
    }
    expect(told.traced.at(-1)).toMatchObject({ type: 'picture', samples: most, of: most, good: 1, leftOut: 0 });
    expect(developer().of('part')).toHaveLength(tilesOf(640, 480).length);
    // What belongs to a picture before is not counted.
    const before = told.traced.length;
    tracers()[0].onmessage!({ data: { type: 'part', id: id - 1, tile: tilesOf(640, 480)[0], samples: 1, part: {} } });
    expect(told.traced).toHaveLength(before);
  });
  it('begins where one has clicked', async () => {
    await trueLight();
    developer().onmessage!({ data: { type: 'picture', id: jobs()[0].job.id, ...made(640, 480) } });
    element.listeners.get('pointerup')!({ clientX: 100 + 160, clientY: 50 + 360 });
    await pass(150);
    expect(jobs()[1].job.place).toEqual([0.25, 0.75]);
  });
  it('traces a very large picture smaller, in the same shape', async () => {
    Object.assign(element, { clientWidth: 4000, clientHeight: 2000 });
    await trueLight();
    const { width, height } = developer().of('begin')[0];
    expect(width * height).toBeLessThanOrEqual(1_401_000);
    expect(width / height).toBeCloseTo(2, 2);
  });
  it('starts over for another effort, and not for another way of looking at the same rays', async () => {
    await trueLight();
    useTrueLight.setState({ denoise: false });
    useTrueLight.setState({ map: true });
    await pass(300);
    expect(jobs()).toHaveLength(1);
    expect(
      developer()
        .of('how')
        .map((m) => m.how),
    ).toEqual([
      { denoise: false, shows: 'picture' },
      { denoise: false, shows: 'samples' },
    ]);
    useTrueLight.setState({ most: 128 });
    await pass(300);
    expect(jobs()).toHaveLength(2);
    expect(jobs()[1].job.samples).toBe(128);
  });
  it('says what went wrong: a piece that cannot be traced, a worker without memory', async () => {
    await trueLight();
    const { id } = jobs()[0].job;
    tracers()[1].onmessage!({ data: { type: 'failed', id, message: 'The shape has no faces.' } });
    expect(told.trouble).toEqual(['The shape has no faces.']);
    expect(told.traced.at(-1)).toBeNull();
    tracers()[2].onerror!({});
    expect(told.trouble[1]).toContain('memory');
    expect(held.ahead.at(-1)).toBe(false);
  });
  it('goes with its switch, and with a way of looking that is not of light', async () => {
    await trueLight();
    useEditor.setState({ mode: 'edges' });
    expect(told.traced.at(-1)).toBeNull();
    await pass(500);
    expect(jobs()).toHaveLength(1);
    useEditor.setState({ mode: 'shaded' });
    await pass(150);
    expect(jobs()).toHaveLength(2);
    useEditor.setState({ light: 'quick' });
    expect(told.traced.at(-1)).toBeNull();
    expect(held.ahead.at(-1)).toBe(false);
  });
  it('ends with its workers', async () => {
    await trueLight();
    picture.end();
    expect(FakeWorker.all.every((w) => w.ended)).toBe(true);
    expect(element.listeners.size).toBe(0);
  });
});

describe('a loop that plays in true light', () => {
  const frames = () => tracers().flatMap((w) => w.of('frame').map((m) => m.job.frame));
  const answer = (worker: FakeWorker, frame: number) => {
    const { id } = worker.of('frame').at(-1)!.job;
    worker.onmessage!({ data: { type: 'frame', id, frame, picture: { close: () => undefined } } });
  };
  beforeEach(async () => {
    useEditor.setState((s) => ({ piece: { ...s.piece, loop: { frames: 8, fps: 25 } }, frame: 5 }));
    await trueLight();
    useEditor.setState({ playing: true });
  });

  it('is traced in the order in which it is played, round the seam, each frame once', () => {
    expect(frames()).toEqual([6, 7, 0]);
    for (let k = 0; k < 8; k++) for (const w of tracers()) answer(w, w.of('frame').at(-1)!.job.frame);
    expect(frames().sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(told.traced.at(-1)).toEqual({ type: 'loop', frames: 8, of: 8 });
  });
  it('is small and takes few samples', () => {
    const { settings, samples } = tracers()[0].of('frame')[0].job;
    expect(Math.max(settings.width, settings.height)).toBe(320);
    expect(samples).toBeLessThanOrEqual(16);
  });
  it('shows a frame that is there, and quick light where it is not', async () => {
    vi.stubGlobal('createImageBitmap', (p: object) => Promise.resolve({ ...p, width: 320, height: 240 }));
    answer(tracers()[0], 6);
    useEditor.setState({ frame: 6.4 });
    await pass(0);
    expect(shown.pictures).toBe(1);
    useEditor.setState({ frame: 7.1 });
    expect(element.shown).toBeNull();
    // A round later it is the same frame.
    useEditor.setState({ frame: 14.2 });
    await pass(0);
    expect(shown.pictures).toBe(2);
  });
  it('shows the newest frame that is wanted, in whatever order copies come, and none once it is switched or changed', async () => {
    const copies: ((picture: object) => void)[] = [];
    let closed = 0;
    const come = async (n: number) => {
      copies[n]({ width: 320, height: 240, close: () => closed++ });
      await pass(0);
    };
    vi.stubGlobal('createImageBitmap', () => new Promise((resolve) => copies.push(resolve)));
    answer(tracers()[0], 6);
    answer(tracers()[1], 7);
    useEditor.setState({ frame: 6.4 });
    useEditor.setState({ frame: 7.1 });
    await come(1);
    await come(0);
    expect([shown.pictures, closed]).toEqual([1, 1]);
    // A frame that is not there, the switch of the light, and an edit, while a copy is made.
    for (const after of [
      () => useEditor.setState({ frame: 2.5 }),
      () => useEditor.setState({ light: 'quick' }),
      () => useEditor.setState((s) => ({ piece: { ...s.piece, loop: { frames: 6, fps: 25 } } })),
    ]) {
      useEditor.setState({ light: 'true', frame: 14.3 });
      useEditor.setState({ frame: 14.6 });
      const last = copies.length - 1;
      after();
      await come(last);
      expect(element.shown).toBeNull();
    }
    expect(shown.pictures).toBe(1);
  });
  it('is made anew where grain is to be taken out, or left in', () => {
    answer(tracers()[0], 6);
    expect(told.traced.at(-1)).toEqual({ type: 'loop', frames: 1, of: 8 });
    useTrueLight.setState((s) => ({ denoise: !s.denoise }));
    expect(told.traced.at(-1)).toEqual({ type: 'loop', frames: 0, of: 8 });
    expect(tracers()[0].of('frame').at(-1)).toMatchObject({ denoise: useTrueLight.getState().denoise });
    useTrueLight.setState((s) => ({ denoise: !s.denoise }));
  });
  it('keeps what it has while it is stopped, and begins anew for another piece', async () => {
    answer(tracers()[0], 6);
    useEditor.setState({ playing: false });
    useEditor.setState({ playing: true });
    expect(told.traced.at(-1)).toEqual({ type: 'loop', frames: 1, of: 8 });
    useEditor.setState((s) => ({ piece: { ...s.piece, loop: { frames: 6, fps: 25 } } }));
    expect(told.traced.at(-1)).toEqual({ type: 'loop', frames: 0, of: 6 });
    await pass(0);
  });
  it('says once what went wrong, and asks for no more', () => {
    const [first] = tracers();
    const before = frames().length;
    first.onmessage!({
      data: { type: 'failed', id: first.of('frame')[0].job.id, message: 'There is not enough memory.' },
    });
    expect(told.trouble).toEqual(['There is not enough memory.']);
    answer(tracers()[1], 7);
    expect(frames()).toHaveLength(before);
  });
});
