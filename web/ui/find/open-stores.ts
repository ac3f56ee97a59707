import { create } from 'zustand';

interface Open {
  readonly open: boolean;
}

/** Whether the command field is open. */
export const useCommandField = create<Open>()(() => ({ open: false }));
/** Whether the explainer is on. */
export const useExplainer = create<Open>()(() => ({ open: false }));
/** Whether the page of shortcuts is open. */
export const useShortcutsPage = create<Open>()(() => ({ open: false }));
