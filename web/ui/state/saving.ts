import { readPiece, writePiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import { RequestTrouble, savePiece } from '../api';
import { tellTrouble } from '../parts/toasts';
import { useEditor } from './store';

const QUIET_MS = 700;
const RETRY_MS = 4000;

const backupKey = (id: string) => `maypole-unsaved-${id}`;

/** Work that never reached the server in an earlier visit, and the revision it was based on. */
export function unsavedWork(id: string): { piece: Piece; basedOn: number } | null {
  try {
    const text = localStorage.getItem(backupKey(id));
    if (!text) return null;
    const { source, basedOn } = JSON.parse(text) as { source: string; basedOn: number };
    const read = readPiece(source);
    return read.ok ? { piece: read.piece, basedOn } : null;
  } catch {
    return null;
  }
}

function keepBackup(): void {
  const { id, piece, revision } = useEditor.getState();
  try {
    localStorage.setItem(backupKey(id), JSON.stringify({ source: writePiece(piece), basedOn: revision }));
  } catch {
    // No room in the browser's store; the server is tried again anyway.
  }
}

function dropBackup(id: string): void {
  localStorage.removeItem(backupKey(id));
}

let running: Promise<void> | null = null;

/** Sends the piece as it is now; again until nothing has changed meanwhile. */
export async function saveNow(): Promise<void> {
  if (running) return running;
  running = (async () => {
    for (;;) {
      const { id, piece, revision, save } = useEditor.getState();
      if (save !== 'waiting' && save !== 'offline') return;
      useEditor.setState({ save: 'saving' });
      try {
        const answer = await savePiece(id, writePiece(piece), revision);
        if (useEditor.getState().id !== id) return;
        if ('error' in answer) {
          useEditor.setState({ save: 'conflict', conflict: { head: answer.head, kept: answer.kept } });
          dropBackup(id);
          return;
        }
        const unchanged = useEditor.getState().piece === piece;
        useEditor.setState({ revision: answer.revision, save: unchanged ? 'saved' : 'waiting' });
        if (unchanged) return dropBackup(id);
      } catch (error) {
        keepBackup();
        const first = useEditor.getState().save !== 'offline';
        useEditor.setState({ save: 'offline' });
        if (first) tellTrouble(error instanceof RequestTrouble ? error.message : 'The piece could not be saved; it is tried again by itself.');
        setTimeout(() => void saveNow(), RETRY_MS);
        return;
      }
    }
  })().finally(() => (running = null));
  return running;
}

/** Saves by itself a moment after each edit, and at once when the page is left. */
export function startAutosave(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const stop = useEditor.subscribe((state, before) => {
    if (state.piece === before.piece || state.save !== 'waiting') return;
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), QUIET_MS);
  });
  const leave = () => {
    const { id, piece, revision, save } = useEditor.getState();
    if (save === 'saved' || save === 'conflict') return;
    // Kept in the browser first: a page on its way out may not get its last word to the server.
    keepBackup();
    void savePiece(id, writePiece(piece), revision, true).then((answer) => !('error' in answer) && dropBackup(id), () => undefined);
  };
  window.addEventListener('pagehide', leave);
  return () => {
    stop();
    clearTimeout(timer);
    void saveNow();
    window.removeEventListener('pagehide', leave);
  };
}
