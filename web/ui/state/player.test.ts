import { newPiece } from '@maypole/core/piece/piece';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { goTo, pause, play, stepFrames, togglePlay } from './player';
import { useEditor } from './store';

let ready: (frame: number) => boolean = () => true;
vi.mock('./session', () => ({
  session: () => ({ engine: { isSettled: (f: number) => ready(f), setFrame: () => undefined } }),
}));

let callbacks: ((now: number) => void)[] = [];
let clock = 0;
/** Lets time pass in pictures of `every` milliseconds; gives the frames that were shown. */
function pass(ms: number, every = 1000 / 60): number[] {
  const shown: number[] = [];
  const stop = useEditor.subscribe((a, b) => a.frame !== b.frame && shown.push(a.frame));
  for (const end = clock + ms; clock < end;) {
    clock += every;
    const due = callbacks;
    callbacks = [];
    for (const c of due) c(clock);
  }
  stop();
  return shown;
}

beforeEach(() => {
  clock = 0;
  callbacks = [];
  ready = () => true;
  vi.stubGlobal('requestAnimationFrame', (c: (now: number) => void) => callbacks.push(c));
  vi.spyOn(performance, 'now').mockImplementation(() => clock);
  useEditor.getState().open('id', { ...newPiece('Play'), loop: { frames: 50, fps: 25 } }, 1);
});
afterEach(() => {
  pause();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe('playing', () => {
  it('holds the frame rate on a screen of 60 pictures a second, and wraps from N − 1 to 0', () => {
    play();
    const shown = pass(4000);
    expect(shown.length).toBeGreaterThanOrEqual(98);
    expect(shown.length).toBeLessThanOrEqual(101);
    for (let i = 1; i < shown.length; i++) expect(shown[i]).toBe((shown[i - 1] + 1) % 50);
    expect(useEditor.getState().rate!).toBeCloseTo(25, 0);
  });
  it('holds the length of the loop where drawing is slower, by leaving frames out', () => {
    play();
    const shown = pass(4000, 100);
    expect(shown.length).toBeLessThanOrEqual(41);
    // Four seconds are two loops of fifty frames, whatever was left out.
    const travelled = shown.reduce((s, f, i) => s + ((f - (i ? shown[i - 1] : 0) + 50) % 50), 0);
    expect(Math.abs(travelled - 100)).toBeLessThanOrEqual(4);
    expect(useEditor.getState().rate!).toBeLessThan(11);
  });
  it('waits for a frame that is not worked out, and leaves none out then', () => {
    let allowed = 3;
    ready = (f) => f <= allowed;
    play();
    expect(pass(500)).toEqual([1, 2, 3]);
    allowed = 5;
    expect(pass(500)).toEqual([4, 5]);
  });
  it('stops, starts where it stands, and begins inside the loop', () => {
    goTo(50);
    togglePlay();
    expect(useEditor.getState()).toMatchObject({ playing: true, frame: 0 });
    pass(200);
    togglePlay();
    const { frame } = useEditor.getState();
    expect(pass(300)).toEqual([]);
    expect(useEditor.getState()).toMatchObject({ playing: false, frame, rate: null });
  });
  it('steps round the loop both ways, and shows frame N as itself when asked', () => {
    stepFrames(-1);
    expect(useEditor.getState().frame).toBe(49);
    stepFrames(10);
    expect(useEditor.getState().frame).toBe(9);
    goTo(50);
    expect(useEditor.getState().frame).toBe(50);
    goTo(12.5);
    expect(useEditor.getState().frame).toBe(12.5);
  });
});
