import { create } from 'zustand';

/** Whether something covers the whole picture, so that drawing and evaluating ahead would be invisible. */
export const useCovered = create<{ readonly covered: boolean }>()(() => ({ covered: false }));
