import { writePiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import { RequestTrouble, savePiece } from '../api';
import { tellTrouble } from '../parts/toasts';
import { backupsOf, dropBackup, dropKept, keepBackup, type Kept } from './backup';
import { lineOf } from './line';
import { owePicture } from './owed-pictures';
import { useEditor, type EditorState, type SaveState } from './store';

const QUIET_MS = 700;
const RETRY_MS = 4000;

let running: Promise<void> | null = null;
/** The pending retry of a failed save: one, however many edits have failed. */
let retry: ReturnType<typeof setTimeout> | undefined;

function retrySoon(): void {
  clearTimeout(retry);
  retry = setTimeout(() => void saveNow(), RETRY_MS);
}

/** Whether something has not reached the server. */
function owes(save: SaveState): boolean {
  return ['waiting', 'offline', 'full', 'signed-out'].includes(save);
}

/** Sends the current piece; repeats until nothing has changed meanwhile. */
export async function saveNow(): Promise<void> {
  if (useEditor.getState().readOnly) return;
  if (running) return running;
  running = (async () => {
    for (;;) {
      const { id, piece, revision, save } = useEditor.getState();
      if (!owes(save)) return;
      useEditor.setState({ save: 'saving' });
      if (!(await saveOnce(id, piece, revision))) return;
    }
  })().finally(() => (running = null));
  return running;
}

/** One save; true if newer edits may still have to be sent. */
async function saveOnce(id: string, piece: Piece, revision: number): Promise<boolean> {
  const source = writePiece(piece);
  const line = lineOf(id, source, revision);
  const open = () => useEditor.getState().id === id;
  try {
    const answer = await savePiece(id, source, revision, line);
    if ('error' in answer) {
      if (open()) useEditor.setState({ save: 'conflict', conflict: { ...answer, basedOn: revision } });
      dropBackup(id, line);
      return false;
    }
    owePicture(id);
    if (!open()) {
      dropBackup(id, line);
      return false;
    }
    const unchanged = useEditor.getState().piece === piece;
    useEditor.setState({ revision: answer.revision, save: unchanged ? 'saved' : 'waiting', saveTrouble: null });
    if (unchanged) dropBackup(id, line);
    return !unchanged;
  } catch (error) {
    // Stores what was to be saved, and not what may have been opened meanwhile.
    const kept = keepBackup(id, piece, revision);
    const trouble = error instanceof RequestTrouble ? error : null;
    if (!open()) {
      setTimeout(() => void saveElsewhere(id, source, revision), RETRY_MS);
      return false;
    }
    const save = stateAfter(trouble?.status);
    const refused = save === 'refused';
    const said = trouble?.message ?? 'The piece could not be saved; it is tried again by itself.';
    const message = kept
      ? said
      : `${said} This browser keeps nothing for Maypole, since its store is blocked or full: leave this page open until it is saved.`;
    if (useEditor.getState().save !== save || useEditor.getState().saveTrouble !== message)
      tellTrouble(refused && kept ? `${message} Your edits are kept in this browser.` : message);
    useEditor.setState({ save, saveTrouble: message });
    if (!refused) retrySoon();
    return false;
  }
}

/** State after a failed save, by its status; undefined for no answer. */
function stateAfter(status: number | undefined): SaveState {
  if (status === 401) return 'signed-out';
  if (status === 507) return 'full';
  return status !== undefined && [400, 403, 413, 422].includes(status) ? 'refused' : 'offline';
}

/** What became of work that an earlier page left in the browser. */
type Delivered =
  /** The server has it: as the current revision with that number, or as a version no newer than that. */
  | { readonly is: 'saved'; readonly revision: number }
  | { readonly is: 'conflict'; readonly conflict: NonNullable<EditorState['conflict']> }
  /** It did not arrive, or was refused: it stays in the browser. */
  | { readonly is: 'kept' };

/**
 * Sends what closed pages have left of a piece, in their own lines: the server knows whether it has that version, or a
 * newer one of the same page.
 */
export async function deliverLeft(id: string): Promise<{ readonly left: Kept; readonly as: Delivered }[]> {
  const all: { left: Kept; as: Delivered }[] = [];
  for (const left of backupsOf(id)) {
    try {
      const answer = await savePiece(id, left.source, left.basedOn, left.line);
      dropKept(left);
      owePicture(id);
      all.push({
        left,
        as:
          'error' in answer
            ? { is: 'conflict', conflict: { ...answer, basedOn: left.basedOn } }
            : { is: 'saved', revision: answer.revision },
      });
    } catch {
      all.push({ left, as: { is: 'kept' } });
    }
  }
  return all;
}

/**
 * Sends the last edits of a piece that is no longer open; what cannot be sent waits in the browser for the next visit.
 */
async function saveElsewhere(id: string, source: string, revision: number): Promise<void> {
  if (useEditor.getState().id === id) return;
  const line = lineOf(id, source, revision);
  const answer = await savePiece(id, source, revision, line).catch(() => null);
  if (answer && !('error' in answer)) dropBackup(id, line);
}

/** Saves automatically a moment after each edit, and at once when the page is left. */
export function startAutosave(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const soon = () => {
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), QUIET_MS);
  };
  const stop = useEditor.subscribe((state, before) => {
    if (state.piece !== before.piece && state.save === 'waiting') soon();
  });
  // Work of an earlier visit is restored before this starts.
  if (owes(useEditor.getState().save)) soon();
  const leave = () => {
    const { id, piece, revision, save } = useEditor.getState();
    if (save === 'saved' || save === 'conflict') return;
    // Stored in the browser first: a page being closed may not get its last request out.
    keepBackup(id, piece, revision);
    if (save === 'refused') return;
    const source = writePiece(piece);
    const line = lineOf(id, source, revision);
    void savePiece(id, source, revision, line, true).then(
      (answer) => {
        if ('error' in answer) return;
        owePicture(id);
        dropBackup(id, line);
        // The page may return unchanged from the back/forward cache.
        const now = useEditor.getState();
        if (now.id === id && now.revision === revision)
          useEditor.setState({ revision: answer.revision, ...(now.piece === piece ? { save: 'saved' as const } : {}) });
      },
      () => undefined,
    );
  };
  /** A page that returns may have saved without hearing the answer: it sends the same again. */
  const back = (event: PageTransitionEvent) => {
    if (event.persisted && owes(useEditor.getState().save)) void saveNow();
  };
  window.addEventListener('pagehide', leave);
  window.addEventListener('pageshow', back);
  return () => {
    stop();
    clearTimeout(timer);
    void saveNow();
    window.removeEventListener('pagehide', leave);
    window.removeEventListener('pageshow', back);
  };
}
