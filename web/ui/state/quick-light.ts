import { create } from 'zustand';
import type { EditorState } from './store';

/** Why quick light cannot draw here: null where it can. Set by the picture. */
export const useQuickLight = create<{ readonly missing: string | null }>(() => ({ missing: null }));

/** Light of the shown picture: true light wherever quick light cannot draw. */
export const shownLight = ({ light }: Pick<EditorState, 'light'>): EditorState['light'] =>
  useQuickLight.getState().missing === null ? light : 'true';
