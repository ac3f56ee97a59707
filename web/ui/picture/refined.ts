import { create } from 'zustand';

/** Sub-frames that the picture is the average of, and how many it is to be. By itself, since it changes with every picture. */
export const useRefined = create<{ readonly done: number; readonly of: number }>(() => ({ done: 0, of: 0 }));
