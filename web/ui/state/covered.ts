import { create } from 'zustand';

/** Whether something lies over the whole picture, so that drawing and working ahead for it would be for nobody. */
export const useCovered = create<{ readonly covered: boolean }>()(() => ({ covered: false }));
