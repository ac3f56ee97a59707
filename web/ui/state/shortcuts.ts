import { useEffect } from 'react';
import { goTo, stepFrames, togglePlay } from './player';
import { frameAll } from './camera';
import { useEditor } from './store';

/** Keys that work wherever no text is being typed. */
export const SHORTCUTS = [
  { keys: 'Space', does: 'Play or pause' },
  { keys: '← →', does: 'One frame back or on (Shift: ten)' },
  { keys: 'Home', does: 'To the seam' },
  { keys: 'Ctrl Z, Ctrl Shift Z', does: 'Undo, redo' },
  { keys: 'C', does: 'Centre everything in the picture' },
] as const;

export function useShortcuts(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.defaultPrevented || target.closest('input, textarea, select, [contenteditable], [aria-modal="true"]')) return;
      const command = event.ctrlKey || event.metaKey;
      const { undo, redo } = useEditor.getState();
      if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
        return;
      }
      if (command || event.altKey) return;
      if (event.key === ' ' && !target.closest('button, a, [role="switch"], [role="button"]')) {
        event.preventDefault();
        togglePlay();
      } else if (event.key === 'ArrowRight') stepFrames(event.shiftKey ? 10 : 1);
      else if (event.key === 'ArrowLeft') stepFrames(event.shiftKey ? -10 : -1);
      else if (event.key === 'Home') goTo(0);
      else if (event.key === 'c') frameAll();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
