import { useSyncExternalStore } from 'react';
import { create } from 'zustand';

/** Below these sizes panels lie at the edge one at a time (WCAG 2.2, 1.4.10: 640 × 400 is 1280 × 800 at 200 %). */
const NARROW = '(max-width: 959px), (max-height: 559px)';
/** Below this width there is no room beside the picture, and words become pictures. */
const TIGHT = '(max-width: 599px)';

function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => window.matchMedia(query).matches,
    () => false,
  );
}

export const useNarrow = (): boolean => useMedia(NARROW);
export const useTight = (): boolean => useMedia(TIGHT);

/** What lies at the edge of a narrow screen when no drawer is open. */
export type Fold = 'steps' | 'time';

export const useFold = create<{ readonly fold: Fold | null }>()(() => ({ fold: 'steps' }));
