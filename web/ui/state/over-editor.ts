import { useEffect } from 'react';
import { useCovered } from './covered';
import { session } from './session';
import { useEditor } from './store';

/**
 * For what covers the whole editor: what is below pauses, so that all processors serve what is visible; Escape closes
 * it, and so does an edit, or a drawer opened from the bar above.
 */
export function useOverEditor(close: () => void): void {
  useEffect(() => {
    useCovered.setState({ covered: true });
    session()?.engine.holdAhead(true);
    const stop = useEditor.subscribe((a, b) => {
      if (a.piece !== b.piece || (a.drawer !== b.drawer && a.drawer !== null)) close();
    });
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape' && !(e.target as HTMLElement).closest('[role="menu"], [role="dialog"], input, select'))
        close();
    };
    window.addEventListener('keydown', onKey);
    return () => {
      stop();
      window.removeEventListener('keydown', onKey);
      useCovered.setState({ covered: false });
      session()?.engine.holdAhead(false);
    };
  }, [close]);
}
