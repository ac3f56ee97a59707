import { useEffect } from 'react';
import { useRefined } from '../picture/refined';
import { session } from '../state/session';
import { useEditor } from '../state/store';
import { useSheet } from './sheet-store';
import { coolSheet, warmSheet } from './sheet-work';

/** Milliseconds without user input after which the machine counts as idle. */
const REST = 6000;

/** Whether nothing is being evaluated, drawn, played or traced. */
function idle(): boolean {
  const { playing, light, piece } = useEditor.getState();
  const { done, of } = useRefined.getState();
  const { count, full } = session()?.engine.getReadiness() ?? { count: 0, full: false };
  return (
    document.visibilityState === 'visible' &&
    !playing &&
    light === 'quick' &&
    !useSheet.getState().open &&
    of > 0 &&
    done >= of &&
    (full || count >= piece.loop.frames)
  );
}

/**
 * Has what draws a sheet loaded and its shaders compiled, once for each piece that is opened, when the machine has nothing
 * else to do: the first tiles are there at once then. Given back with the editor.
 */
export function useWarmSheet(): void {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const later = () => {
      clearTimeout(timer);
      timer = setTimeout(look, REST);
    };
    const events = ['pointermove', 'pointerdown', 'keydown', 'wheel'] as const;
    const stop = () => {
      clearTimeout(timer);
      for (const e of events) window.removeEventListener(e, later, true);
    };
    const look = () => {
      if (!idle()) return later();
      stop();
      void warmSheet(useEditor.getState().piece);
    };
    for (const e of events) window.addEventListener(e, later, { capture: true, passive: true });
    later();
    return () => {
      stop();
      coolSheet();
    };
  }, []);
}
