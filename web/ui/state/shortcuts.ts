import { useEffect } from 'react';
import { goTo, stepFrames, togglePlay } from './player';
import { frameAll } from './camera';
import { useCovered } from './covered';
import { useEditor } from './store';

/**
 * Keys that work wherever no text is being typed: Space plays; arrows step (Shift: ten frames);
 * Home goes to the seam; Ctrl Z and Ctrl Shift Z undo and redo; C centres everything.
 */
export function useShortcuts(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (useCovered.getState().covered) return;
      if (event.defaultPrevented || target.closest('input, textarea, select, [contenteditable], [aria-modal="true"]'))
        return;
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
