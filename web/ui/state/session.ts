import { Engine } from '@/engine/engine';
import { SeamWatch } from '@/engine/evaluate/seam-watch';
import { shelfWord } from './shelf-word';
import { useEditor } from './store';

/** Workers of an open piece, alive as long as its page. */
interface Session {
  readonly engine: Engine;
  readonly seam: SeamWatch;
}

let current: Session | null = null;

/** The session of the open piece; null before the page is mounted. */
export function session(): Session | null {
  return current;
}

/** Starts the workers and informs them of every edit. */
export function startSession(): () => void {
  const engine = new Engine({ asksFirst: true });
  const seam = new SeamWatch((measure) => useEditor.setState({ measure }));
  current = { engine, seam };
  const state = useEditor.getState();
  engine.setPiece(state.piece, state.detail);
  seam.request(state.piece, state.detail, state.drawer === 'seam', 600);
  const tell = shelfWord();
  const stop = useEditor.subscribe((now, before) => {
    if (now.measure !== before.measure || now.save !== before.save) tell(now);
    if (now.frame !== before.frame) engine.setFrame(now.frame);
    if (now.piece !== before.piece || now.detail !== before.detail) engine.setPiece(now.piece, now.detail);
    const shapes =
      now.piece.ribbons !== before.piece.ribbons ||
      now.piece.loop !== before.piece.loop ||
      now.piece.scene !== before.piece.scene ||
      now.detail !== before.detail;
    const opened = now.drawer === 'seam' && before.drawer !== 'seam' && now.measure.state !== 'complete';
    if (shapes || opened) seam.request(now.piece, now.detail, now.drawer === 'seam', opened ? 0 : undefined);
  });
  return () => {
    stop();
    engine.dispose();
    seam.dispose();
    current = null;
  };
}
