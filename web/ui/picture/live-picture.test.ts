import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useCovered } from '../state/covered';
import { useEditor } from '../state/store';
import { useTrueLight } from '../state/true-light';
import { LivePicture } from './live-picture';

/** A drawer that notes what it is asked for, and an engine whose shapes come when the test says so. */
const world = vi.hoisted(() => ({
  drawn: [] as { frame: unknown; number: number; of: number; coarse: number }[],
  size: [0, 0],
  disposed: 0,
  made: 0,
  /** Waits before a drawing is done, where a test holds it. */
  hold: null as Promise<void> | null,
  fails: '',
  lost: () => undefined as void,
  ready: true,
  listeners: new Set<() => void>(),
  shapes: new Map<string, object>(),
}));
vi.mock('@/view/stage/drawer', async (original) => ({
  ...(await original<object>()),
  rendererOnCanvas: (canvas: () => unknown, options: { onLost: () => void }) => {
    if (world.fails) return Promise.reject(new Error(world.fails));
    world.made++;
    world.lost = options.onLost;
    const drawer = {
      subframes: { edges: 4, soft: 8 },
      setSize: (w: number, h: number) => void (world.size = [w, h]),
      draw: async (frame: unknown, number = 0, of = 1, coarse = 1) => {
        world.drawn.push({ frame, number, of, coarse });
        await world.hold;
      },
      dispose: () => void world.disposed++,
    };
    return Promise.resolve({ drawer, canvas: canvas() });
  },
}));
vi.mock('../state/session', () => ({
  session: () => ({
    engine: {
      subscribe: (listener: () => void) => {
        world.listeners.add(listener);
        return () => world.listeners.delete(listener);
      },
      isReady: () => world.ready,
      isSettled: () => world.ready,
      geometry: (ribbon: { id: string }) => (world.ready ? world.shapes.get(ribbon.id) : undefined),
      failure: () => undefined,
      whenThere: () => Promise.resolve(),
    },
  }),
}));
vi.mock('@/engine/draw/compose', () => {
  const compose = (
    _engine: unknown,
    piece: { ribbons: { id: string; on: boolean }[]; scene: unknown },
    frame: number,
  ) => ({
    aspect: 1,
    mode: 'shaded',
    frame,
    scene: { camera: { shutter: 0, lensRadius: 0 }, lights: [], ground: [], air: [], picture: [] },
    ribbons: piece.ribbons
      .filter((r) => r.on && world.ready && world.shapes.has(r.id))
      .map((r) => ({ id: r.id, shape: world.shapes.get(r.id), surfaces: {} })),
  });
  return { composeFrame: compose, composeInstants: () => Promise.reject(new Error('not needed')) };
});

const piece = { ...newPiece('Live'), ribbons: [{ ...newRibbon('box', 0), steps: [newStep('box')] }] };
const [{ id }] = piece.ribbons;
const told = { sizes: [] as object[], refined: [] as number[][], trouble: [] as string[], lost: [] as string[] };
const reports = {
  onSize: (s: object) => void told.sizes.push(s),
  onRefined: (done: number, of: number) => void told.refined.push([done, of]),
  onTrouble: (words: string) => void told.trouble.push(words),
  onLost: (words: string) => void told.lost.push(words),
};

let observed = () => undefined as void;
let live: InstanceType<typeof LivePicture>;
const element = {
  clientWidth: 300,
  clientHeight: 200,
  children: [] as { dataset: Record<string, string> }[],
  appendChild(child: { dataset: Record<string, string> }) {
    this.children.push(child);
  },
};
const canvas = () => element.children.at(-1)!.dataset;
/** So many milliseconds go by. */
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

beforeEach(async () => {
  vi.useFakeTimers();
  Object.assign(world, { drawn: [], size: [0, 0], disposed: 0, made: 0, hold: null, fails: '', ready: true });
  world.listeners.clear();
  world.shapes = new Map([[id, { name: 'first' }]]);
  for (const list of Object.values(told)) list.length = 0;
  element.children = [];
  Object.assign(element, { clientWidth: 300, clientHeight: 200 });
  vi.stubGlobal(
    'ResizeObserver',
    class {
      constructor(tell: () => void) {
        observed = tell;
      }
      observe = () => undefined;
      disconnect = () => undefined;
    },
  );
  vi.stubGlobal('window', { devicePixelRatio: 1 });
  vi.stubGlobal('document', {
    createElement: () => ({ style: {}, dataset: {}, remove: () => undefined }),
  });
  vi.stubGlobal('requestAnimationFrame', (f: () => void) => setTimeout(f, 16));
  vi.stubGlobal('cancelAnimationFrame', (n: number) => clearTimeout(n));
  useCovered.setState({ covered: false });
  useTrueLight.setState({ compare: false });
  useEditor.setState({ light: 'quick', subframes: null, mode: 'shaded', focusing: false, pick: null, playing: false });
  useEditor.getState().open('id', piece, 1);
  live = new LivePicture(element as unknown as HTMLElement, reports);
  await pass(0);
});
afterEach(() => {
  live.end();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('the picture of the editor', () => {
  it('is the average of as many sub-frames as are chosen, begun anew when that is another number', async () => {
    await pass(1000);
    expect(canvas()).toMatchObject({ still: 'true', subframes: '4' });
    useEditor.setState({ subframes: 256 });
    await pass(10_000);
    expect(canvas()).toMatchObject({ still: 'true', subframes: '256' });
    expect(told.refined.at(-1)).toEqual([256, 256]);
    expect(new Set(world.drawn.slice(6).map((d) => d.of))).toEqual(new Set([256]));
    useEditor.setState({ subframes: null });
    await pass(1000);
    expect(canvas()).toMatchObject({ still: 'true', subframes: '4' });
  });
  it('is drawn at once, and made finer while nothing changes', async () => {
    expect(world.size).toEqual([300, 200]);
    expect(canvas()).toMatchObject({ complete: 'true', frame: '0', still: 'false', subframes: '1' });
    await pass(1000);
    expect(canvas()).toMatchObject({ still: 'true', subframes: '4' });
    expect(world.drawn.map((d) => [d.number, d.of])).toEqual([
      [0, 1],
      [0, 4],
      [1, 4],
      [2, 4],
      [3, 4],
    ]);
    expect(told.refined.at(-1)).toEqual([4, 4]);
    // And then it rests.
    const before = world.drawn.length;
    await pass(5000);
    expect(world.drawn).toHaveLength(before);
  });
  it('follows the playhead, once a turn of the screen, however often it is moved', async () => {
    world.drawn.length = 0;
    for (let f = 1; f <= 5; f++) useEditor.setState({ frame: f });
    await pass(20);
    expect(world.drawn.map((d) => (d.frame as { frame: number }).frame)).toEqual([5]);
    expect(canvas().frame).toBe('5');
  });
  it('draws what changed while it was drawing after that, and only the newest of it', async () => {
    let finish = () => undefined as void;
    world.hold = new Promise<void>((done) => (finish = done));
    useEditor.setState({ frame: 1 });
    await pass(20);
    useEditor.setState({ frame: 2 });
    await pass(20);
    useEditor.setState({ frame: 3 });
    await pass(20);
    world.drawn.length = 0;
    finish();
    world.hold = null;
    await pass(40);
    expect(world.drawn.map((d) => (d.frame as { frame: number }).frame)).toEqual([3]);
  });
  it('begins to be finer anew with every change: an edit on the way ends what was begun', async () => {
    world.hold = new Promise((done) => setTimeout(done, 100));
    useEditor.setState({ frame: 1 });
    await pass(16 + 100 + 160 + 50);
    useEditor.setState({ frame: 2 });
    world.hold = null;
    await pass(2000);
    expect(canvas()).toMatchObject({ frame: '2', still: 'true' });
    const last = world.drawn.slice(-5).map((d) => [(d.frame as { frame: number }).frame, d.of]);
    expect(last).toEqual([
      [2, 1],
      [2, 4],
      [2, 4],
      [2, 4],
      [2, 4],
    ]);
  });
  it('has fewer pixels while it moves where drawing is slow, and all of them once it stands', async () => {
    await pass(1000);
    world.drawn.length = 0;
    for (let f = 1; f <= 4; f++) {
      useEditor.setState({ frame: f });
      // From a turn of the screen on, 16 ms from here, it takes more than 50.
      world.hold = new Promise((done) => setTimeout(done, 80));
      await pass(100);
    }
    expect(world.drawn.map((d) => d.coarse)).toEqual([1, 2, 4, 4]);
    world.hold = null;
    world.drawn.length = 0;
    await pass(2000);
    expect(world.drawn.map((d) => [d.coarse, d.of])).toEqual([
      [1, 4],
      [1, 4],
      [1, 4],
      [1, 4],
    ]);
    expect(canvas().still).toBe('true');
  });
  it('is whole at rest beneath true light, too, until rays cover it', async () => {
    await pass(1000);
    useEditor.setState({ light: 'true' });
    await pass(500);
    for (let f = 1; f <= 3; f++) {
      useEditor.setState({ frame: f });
      world.hold = new Promise((done) => setTimeout(done, 80));
      await pass(100);
    }
    world.hold = null;
    world.drawn.length = 0;
    await pass(2000);
    expect(world.drawn.map((d) => [d.coarse, d.of])).toEqual([[1, 1]]);
  });
  it('keeps the last shape of a ribbon that is worked out, and says that it is not complete', async () => {
    world.ready = false;
    useEditor.setState({ frame: 4 });
    await pass(20);
    const shown = world.drawn.at(-1)!.frame as { ribbons: { id: string }[] };
    expect(shown.ribbons.map((r) => r.id)).toEqual([id]);
    expect(canvas().complete).toBe('false');
    // As soon as it is there it is drawn.
    world.ready = true;
    world.shapes.set(id, { name: 'second' });
    for (const listener of world.listeners) listener();
    await pass(20);
    expect(canvas().complete).toBe('true');
  });
  it('is not drawn for shapes of other frames, nor for edits that nobody can see yet', async () => {
    await pass(1000);
    const before = world.drawn.length;
    for (const listener of world.listeners) listener();
    await pass(100);
    expect(world.drawn).toHaveLength(before);
    world.ready = false;
    useEditor.setState((s) => ({
      piece: { ...s.piece, ribbons: s.piece.ribbons.map((r) => ({ ...r, steps: [newStep('box'), newStep('twist')] })) },
    }));
    await pass(100);
    expect(world.drawn).toHaveLength(before);
  });
  it('waits while something lies over it, and comes back after that', async () => {
    useCovered.setState({ covered: true });
    await pass(1000);
    const before = world.drawn.length;
    useEditor.setState({ frame: 9 });
    await pass(1000);
    expect(world.drawn).toHaveLength(before);
    useCovered.setState({ covered: false });
    await pass(1000);
    expect(canvas()).toMatchObject({ frame: '9', still: 'true' });
  });
  it('takes the size of its place, sharp on fine screens but never more than twice as fine', async () => {
    vi.stubGlobal('window', { devicePixelRatio: 3 });
    Object.assign(element, { clientWidth: 101, clientHeight: 50 });
    observed();
    expect(world.size).toEqual([202, 100]);
    expect(told.sizes.at(-1)).toEqual({ width: 101, height: 50 });
    element.clientWidth = 0;
    observed();
    expect(world.size).toEqual([202, 100]);
    await pass(0);
  });
  it('is not made finer beneath true light, but is where the two are compared', async () => {
    useEditor.setState({ light: 'true' });
    await pass(2000);
    expect(canvas().still).toBe('false');
    useTrueLight.setState({ compare: true });
    useEditor.setState({ frame: 2 });
    await pass(2000);
    expect(canvas().still).toBe('true');
  });
});

describe('a graphics device that goes away', () => {
  it('is told of, and all is made anew', async () => {
    world.lost();
    await pass(100);
    expect(told.lost).toHaveLength(1);
    expect(world.made).toBe(2);
    expect(canvas().complete).toBe('true');
  });
  it('is not begun with again and again', async () => {
    for (let k = 0; k < 4; k++) {
      world.lost();
      await pass(100);
    }
    expect(world.made).toBe(4);
    expect(told.trouble[0]).toContain('Your piece is safe');
  });
  it('may go away once a minute for as long as it likes', async () => {
    for (let k = 0; k < 6; k++) {
      world.lost();
      await pass(61_000);
    }
    expect(told.trouble).toEqual([]);
    expect(canvas().complete).toBe('true');
  });
  it('that is not there at all is told in words', async () => {
    live.end();
    world.fails = 'This browser gives no access to 3D drawing.';
    live = new LivePicture(element as unknown as HTMLElement, reports);
    await pass(10);
    expect(told.trouble).toEqual(['This browser gives no access to 3D drawing.']);
  });
});

it('a picture that ended draws nothing more, and lets go of what it had', async () => {
  const before = world.drawn.length;
  live.end();
  useEditor.setState({ frame: 8 });
  for (const listener of world.listeners) listener();
  await pass(1000);
  expect(world.drawn).toHaveLength(before);
  expect(world.disposed).toBe(1);
  expect(world.listeners.size).toBe(0);
});
