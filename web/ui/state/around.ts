import { tellHere } from '../api';
import { thisBrowser, thisPage } from './line';
import { useEditor } from './store';

/** Milliseconds between reports to the server: of a visible page, and of a hidden one. */
const EVERY = { shown: 10_000, hidden: 30_000 } as const;

/** Reports that the piece is open here, and stores what the server says of others. */
export function startAround(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let ended = false;
  const page = { client: thisPage(), browser: thisBrowser() };
  const look = async () => {
    clearTimeout(timer);
    const { id } = useEditor.getState();
    try {
      const { others, head } = await tellHere(id, page);
      const now = useEditor.getState();
      if (now.id === id && !ended) {
        // One's own saves are no news, whichever answer is still under way.
        const newer = !head.own && head.revision > now.revision ? head : null;
        if (now.newer?.revision !== newer?.revision) useEditor.setState({ newer });
        if (JSON.stringify(now.around) !== JSON.stringify(others)) useEditor.setState({ around: others });
      }
    } catch {
      // Saving reports whether the server answers.
    }
    if (!ended) timer = setTimeout(() => void look(), document.hidden ? EVERY.hidden : EVERY.shown);
  };
  const seen = () => void (document.hidden || look());
  const leave = () => void tellHere(useEditor.getState().id, { ...page, gone: true }).catch(() => undefined);
  void look();
  document.addEventListener('visibilitychange', seen);
  window.addEventListener('pagehide', leave);
  return () => {
    ended = true;
    clearTimeout(timer);
    leave();
    useEditor.setState({ around: [], newer: null });
    document.removeEventListener('visibilitychange', seen);
    window.removeEventListener('pagehide', leave);
  };
}

/** Another page that has the piece open, in words. */
export function wordsFor({ name, browser, own }: ReturnType<typeof useEditor.getState>['around'][number]): string {
  const where = browser === 'this' ? 'another tab' : 'another browser';
  if (name === null) return where;
  return own ? `you, in ${where}` : name;
}

/** “14:02”, or with the day if that differs. */
export function momentWords(at: string, now = new Date()): string {
  const when = new Date(at);
  const time = when.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
  return when.toDateString() === now.toDateString() ? time : `${when.toLocaleDateString()}, ${time}`;
}
