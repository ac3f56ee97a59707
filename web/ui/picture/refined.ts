import { create } from 'zustand';
import type { Traced } from './traced';

/** Sub-frames that the picture is the average of, and how many it is to be. By itself, since it changes with every picture. */
export const useRefined = create<{ readonly done: number; readonly of: number }>(() => ({ done: 0, of: 0 }));

/** How far the picture in true light is; null while it is in quick light. */
export const useTraced = create<{ readonly traced: Traced | null }>(() => ({ traced: null }));
