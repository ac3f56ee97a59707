import { readClip, type Clip } from '@maypole/core/piece/clip-text';
import { clipRibbons, pasteRibbons } from '@maypole/core/piece/clipping';
import { useEffect } from 'react';
import { tell, tellTrouble } from '../parts/toasts';
import { addKeptSteps, takePasted } from '../looks/keep-parts';
import { useCovered } from './covered';
import { useEditor } from './store';

/** Whether a clipboard event is about text, and not about ribbons. */
function aboutText(event: ClipboardEvent): boolean {
  const target = event.target as Element | null;
  if (target?.closest?.('input, textarea, select, [contenteditable], [aria-modal="true"]')) return true;
  return event.type !== 'paste' && String(window.getSelection() ?? '') !== '';
}

/** Steps go to the end of the selected ribbon; a motion needs a value, which its popover has. */
function pasteClip(clip: Clip): void {
  const { ribbonId } = useEditor.getState();
  if (!clip.ok) tellTrouble(clip.message);
  else if (clip.kind === 'motion') tell('A motion was copied. Open the motion of a value and press Paste there.');
  else if (!ribbonId) tell('Choose the ribbon that the steps are for, and paste again.');
  else addKeptSteps(ribbonId, clip.look, 'pasted steps');
}

/** Copies text to the clipboard, and says so. */
export async function copyText(text: string, words: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    tell(words);
  } catch {
    tellTrouble('The browser did not let it onto the clipboard. Allow it for this page, and try again.');
  }
}

/**
 * Copies and cuts the selected ribbons as text, and pastes ribbons of this or another piece: Ctrl C, Ctrl X, Ctrl V.
 */
export function useClipboard(): void {
  useEffect(() => {
    const away = (event: ClipboardEvent) => {
      const { piece, ribbonId, alsoRibbons, edit } = useEditor.getState();
      if (!ribbonId || useCovered.getState().covered || aboutText(event)) return;
      const ids = [ribbonId, ...alsoRibbons];
      event.clipboardData?.setData('text/plain', clipRibbons(piece, ids));
      event.preventDefault();
      const words =
        ids.length === 1 ? (piece.ribbons.find((r) => r.id === ribbonId)?.name ?? '') : `${ids.length} ribbons`;
      if (event.type === 'cut')
        edit(`Cut ${words}`, (p) => ({ ...p, ribbons: p.ribbons.filter((r) => !ids.includes(r.id)) }));
      tell(`${words} ${event.type === 'cut' ? 'is cut' : 'is copied'}; paste it into any piece, or into a mail.`);
    };
    const paste = (event: ClipboardEvent) => {
      if (useCovered.getState().covered || aboutText(event)) return;
      const { piece } = useEditor.getState();
      const text = event.clipboardData?.getData('text/plain') ?? '';
      const clip = readClip(text);
      if (clip.ok || !clip.none) {
        event.preventDefault();
        return pasteClip(clip);
      }
      const pasted = pasteRibbons(piece, text);
      if (!pasted.ok) {
        if (!pasted.none) tellTrouble(pasted.message);
        return;
      }
      event.preventDefault();
      takePasted(pasted.ids.length === 1 ? 'Paste ribbon' : `Paste ${pasted.ids.length} ribbons`, pasted, 'ribbons');
    };
    window.addEventListener('copy', away);
    window.addEventListener('cut', away);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('copy', away);
      window.removeEventListener('cut', away);
      window.removeEventListener('paste', paste);
    };
  }, []);
}
