import { frameRate, wrapFrame } from '@maypole/core/time/loop';
import { session } from './session';
import { useEditor } from './store';

let running = 0;

/**
 * Plays from the loop cache: by the clock while frames are ready, so that the frame rate is exact; it waits for a
 * missing frame, and reports the actual rate.
 */
function run(): void {
  const ticket = ++running;
  let due = performance.now();
  let shown: number[] = [];
  let told = 0;
  const tick = (now: number) => {
    const { playing, piece, frame } = useEditor.getState();
    const engine = session()?.engine;
    if (!playing || ticket !== running || !engine) return;
    const rate = frameRate(piece.loop.fps);
    const length = (1000 * rate.den) / rate.num;
    if (now >= due) {
      // Frames due since the last; late ones are skipped.
      const steps = Math.max(1, Math.floor((now - due) / length) + 1);
      let next = wrapFrame(Math.round(frame) + steps, piece.loop.frames);
      if (!engine.isSettled(next)) next = wrapFrame(Math.round(frame) + 1, piece.loop.frames);
      if (engine.isSettled(next)) {
        useEditor.setState({ frame: next });
        due = steps > 1 && now - due > 500 ? now + length : due + steps * length;
        shown.push(now);
      } else {
        engine.setFrame(next);
        due = now;
      }
    }
    if (now - told > 500) {
      shown = shown.filter((t) => now - t < 1500);
      told = now;
      if (shown.length > 3) useEditor.setState({ rate: ((shown.length - 1) * 1000) / (shown.at(-1)! - shown[0]) });
    }
    requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
}

export function play(): void {
  const { piece, frame } = useEditor.getState();
  useEditor.setState({ playing: true, rate: null, frame: wrapFrame(Math.round(frame), piece.loop.frames) });
  run();
}

export function pause(): void {
  running++;
  useEditor.setState({ playing: false, rate: null });
}

export function togglePlay(): void {
  if (useEditor.getState().playing) pause();
  else play();
}

/** Steps some frames on or back, around the loop. */
export function stepFrames(by: number): void {
  const { piece, frame } = useEditor.getState();
  pause();
  useEditor.setState({ frame: wrapFrame(Math.round(frame) + by, piece.loop.frames) });
}

/** Shows a frame; N and beyond are shown as what they are. */
export function goTo(frame: number): void {
  pause();
  useEditor.setState({ frame });
}
