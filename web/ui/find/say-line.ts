import { understand, type Context, type Understood } from '@maypole/core/say/understand';
import { tell } from '../parts/toasts';
import { keepText, keptJson } from '../state/browser-store';
import { useEditor } from '../state/store';

const [LINES, KEPT] = ['maypole-lines', 'maypole-kept-lines'];
/** Most lines that come back, and most that are kept by a name. */
const [MOST_LINES, MOST_KEPT] = [30, 200];

/** A line that is kept by a name. */
export interface KeptLine {
  readonly name: string;
  readonly line: string;
}

const isText = (x: unknown): x is string => typeof x === 'string';

/** The last lines, newest first. */
export function lastLines(): readonly string[] {
  const kept = keptJson(LINES, []);
  return Array.isArray(kept) ? kept.filter(isText) : [];
}

export function keptLines(): readonly KeptLine[] {
  const kept = keptJson(KEPT, []);
  return Array.isArray(kept) ? kept.filter((k): k is KeptLine => isText(k?.name) && isText(k?.line)) : [];
}

/** "rim = glow 10 light blue" keeps a line by a name; null for anything else. */
export function namedLine(text: string): KeptLine | null {
  const [, name, line] = /^\s*([^=]{1,40}?)\s*=\s*(.+?)\s*$/.exec(text) ?? [];
  return name && line ? { name, line } : null;
}

export function keepLine(kept: KeptLine): void {
  const others = keptLines().filter((k) => k.name !== kept.name);
  keepText(KEPT, JSON.stringify([kept, ...others].slice(0, MOST_KEPT)));
}

const contextNow = (): Context => {
  const { piece, ribbonId, held } = useEditor.getState();
  return { piece, ribbonId, held };
};

/** Does what a line says, as one edit, and shows what it changed; false if it changes nothing. */
export function doLine(line: string): boolean {
  let done: Understood | undefined;
  const made = useEditor.getState().edit(`“${line.trim()}”`, (piece) => {
    done = understand(line, { ...contextNow(), piece });
    return done.after.piece;
  });
  keepText(LINES, JSON.stringify([line.trim(), ...lastLines().filter((l) => l !== line.trim())].slice(0, MOST_LINES)));
  if (!made || !done) return false;
  const { after, open, scene, words } = done;
  useEditor.setState((s) => ({
    ribbonId: after.ribbonId,
    ...(after.ribbonId === s.ribbonId ? {} : { alsoRibbons: [] }),
    held: after.held,
    openSteps: { ...s.openSteps, ...Object.fromEntries(open.map((key) => [key, true])) },
    ...(scene ? { drawer: 'scene' as const } : {}),
    // A shorter loop may end before the frame that is shown.
    frame: s.frame < after.piece.loop.frames ? s.frame : 0,
  }));
  tell(`${words.join('. ')}.`);
  return true;
}
