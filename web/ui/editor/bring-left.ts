import { readPiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import type { StoredPiece } from '@/contract/pieces';
import { download, loadPiece } from '../api';
import { tell, tellTrouble } from '../parts/toasts';
import { dropKept, keepBackup } from '../state/backup';
import { deliverLeft } from '../state/saving';
import { useEditor } from '../state/store';

/**
 * Sends what earlier pages have left of a piece that is just being opened, and shows what came of it: the piece as it is
 * on the server by now, a conflict with somebody else's version, or, where it does not arrive, the work as an edit.
 */
export async function bringLeft(stored: StoredPiece, piece: Piece): Promise<void> {
  const { id } = stored;
  let head = stored.revision;
  for (const { left, as } of await deliverLeft(id)) {
    if (useEditor.getState().id !== id) return;
    if (as.is === 'saved') head = Math.max(head, as.revision);
    else if (as.is === 'conflict') useEditor.setState({ save: 'conflict', conflict: as.conflict });
    else if (left.piece === null) {
      tellTrouble(
        `Changes that had not reached the server are kept in this browser, but cannot be read: ${left.trouble}`,
      );
      download(`${id}.unsaved.maypole.json`, new Blob([left.source], { type: 'application/json' }));
      dropKept(left);
    } else if (JSON.stringify(left.piece) !== JSON.stringify(piece)) {
      useEditor.getState().edit('Bring back unsaved work', () => left.piece);
      tell('Changes that had not reached the server are back.');
      // From here on it is kept as this page's own.
      if (keepBackup(id, useEditor.getState().piece, stored.revision)) dropKept(left);
    }
  }
  if (head === stored.revision) return;
  const now = await loadPiece(id).catch(() => null);
  const read = now && readPiece(now.source);
  if (!now || !read?.ok || useEditor.getState().id !== id) return;
  const { save, conflict } = useEditor.getState();
  useEditor.getState().open(id, read.piece, now.revision);
  // Of two abandoned pages, one may conflict with the other.
  useEditor.setState({ save, conflict });
  tell('Changes that had not reached the server are back.');
}
