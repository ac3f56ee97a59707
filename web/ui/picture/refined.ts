import { create } from 'zustand';
import type { Traced } from './traced';

/** Sub-frames averaged so far, and in all. A store of its own, since it changes with every picture. */
export const useRefined = create<{ readonly done: number; readonly of: number }>(() => ({ done: 0, of: 0 }));

/** Progress of the picture in true light; null in quick light. */
export const useTraced = create<{ readonly traced: Traced | null }>(() => ({ traced: null }));
