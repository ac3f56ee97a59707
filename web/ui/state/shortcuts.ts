import type { ActionId } from '@maypole/core/find/actions';
import { chordOf } from '@maypole/core/find/chord';
import { useEffect, useRef } from 'react';
import { useCovered } from './covered';
import { actionWith, restoreKeys } from './keys';

/** Actions that repeat while their key is held. */
const HELD: readonly ActionId[] = ['step-on', 'step-back', 'far-on', 'far-back', 'undo', 'redo'];
/** Actions that also work while typing. */
const ANYWHERE: readonly ActionId[] = ['find', 'save'];

/** Handles shortcuts, except while typing; see keys.ts for what they are. */
export function useShortcuts(run: (action: ActionId) => void): void {
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  }, [run]);
  useEffect(() => {
    restoreKeys();
    const onKey = (event: KeyboardEvent) => {
      const chord = chordOf(event);
      const action = chord === null ? undefined : actionWith(chord);
      if (!action || event.defaultPrevented) return;
      const target = event.target as HTMLElement;
      if (!ANYWHERE.includes(action)) {
        if (
          useCovered.getState().covered ||
          document.querySelector('[role="dialog"][aria-modal="true"], [role="alertdialog"]')
        )
          return;
        if (target.closest('input, textarea, select, [contenteditable], [aria-modal="true"]')) return;
        // Space presses a focused button.
        if (chord === 'Space' && target.closest('button, a, [role="switch"], [role="button"]')) return;
      }
      event.preventDefault();
      if (!event.repeat || HELD.includes(action)) latest.current(action);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
