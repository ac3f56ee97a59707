import { withRibbons, withSteps } from '@maypole/core/looks/kept-parts';
import type { Pasted } from '@maypole/core/piece/clipping';
import type { Piece } from '@maypole/core/piece/piece';
import { tellTrouble } from '../parts/toasts';
import { tellDropped } from './take-look';
import { useEditor } from '../state/store';

/** Commits a paste as one edit, and shows what is new. */
export function takePasted(words: string, pasted: Pasted, shown: 'ribbons' | 'steps'): void {
  if (!pasted.ok) return tellTrouble(pasted.message);
  if (!useEditor.getState().edit(words, () => pasted.piece)) return;
  tellDropped(pasted.dropped);
  const last = pasted.piece.ribbons.find((r) => r.id === pasted.ids.at(-1));
  const open = shown === 'steps' ? pasted.ids : (last?.steps.slice(0, 2).map((s) => s.id) ?? []);
  useEditor.setState((s) => ({
    ...(last ? { ribbonId: last.id, alsoRibbons: [] } : {}),
    openSteps: { ...s.openSteps, ...Object.fromEntries(open.map((id) => [id, true])) },
  }));
}

/** Inserts kept ribbons into the piece. */
export const addKeptRibbons = (look: Piece, name: string): void =>
  takePasted(`Add ${name}`, withRibbons(useEditor.getState().piece, look), 'ribbons');

/** Appends kept steps to a ribbon. */
export const addKeptSteps = (ribbon: string, look: Piece, name: string): void =>
  takePasted(`Add ${name}`, withSteps(useEditor.getState().piece, ribbon, look), 'steps');
