import { keepable, LIMITS } from '../declare/limits';
import { copyAll, isIn } from './copy';
import { ribbonsNamed, sourcesOf } from './link';
import { newPiece, type Piece, type RibbonDoc } from './piece';
import { readPiece, writePiece } from './read';
import { ownersOf } from './walk';

/** Longest text that is examined for ribbons. */
const MOST_TEXT = 8 * 1024 * 1024;

/** Ribbons as text that can be pasted elsewhere, or mailed. */
export const clipRibbons = (piece: Piece, ids: readonly string[]): string => writePiece(clipping(piece, ids));

/** A small piece with some ribbons and those they name or follow. */
export function clipping(piece: Piece, ids: readonly string[]): Piece {
  const wanted = new Set(ids);
  const byId = new Map(piece.ribbons.map((r) => [r.id, r]));
  const queue = [...wanted];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    const ribbon = byId.get(id);
    if (!ribbon) continue;
    for (const other of needed(piece, ribbon))
      if (byId.has(other) && !wanted.has(other)) {
        wanted.add(other);
        queue.push(other);
      }
  }
  const ribbons = piece.ribbons.filter((r) => wanted.has(r.id));
  const name = ribbons.map((r) => r.name).join(', ');
  return { ...newPiece(keepable(name, LIMITS.nameOfPiece)), loop: piece.loop, ribbons };
}

/** Ribbons that a ribbon names as paths, cutters and the like, and those whose values it follows. */
function needed(piece: Piece, ribbon: RibbonDoc): string[] {
  const named = ribbon.steps.flatMap((s) => ribbonsNamed(s).map(([, id]) => id));
  const followed = ownersOf({ ...piece, ribbons: [ribbon] }).flatMap(({ item, ribbon: own }) =>
    own ? Object.values(item.values).flatMap((v) => sourcesOf(v).map((of) => of.split('/')[0])) : [],
  );
  return [...named, ...followed];
}

/** Result of pasting a text. */
export type Pasted =
  | {
      readonly ok: true;
      readonly piece: Piece;
      readonly ids: readonly string[];
      /** Links to something that is not in this piece, which were dropped. */
      readonly dropped: number;
    }
  /** `none`: it is no piece at all, so that nobody meant to paste ribbons. */
  | { readonly ok: false; readonly none: boolean; readonly message: string };

/** The piece with copies of a clipping's ribbons, or of any piece's, at its end. Nothing changes if that fails. */
export function pasteRibbons(piece: Piece, text: string): Pasted {
  if (text.length > MOST_TEXT || !/^\s*\{\s*"maypole"\s*:\s*"piece"/.test(text.slice(0, 200)))
    return { ok: false, none: true, message: 'What was copied holds no ribbons.' };
  const read = readPiece(text);
  if (!read.ok) return { ok: false, none: false, message: `What was copied cannot be used: ${read.message}` };
  return addRibbons(piece, read.piece.ribbons);
}

/** Why a piece cannot hold so many more ribbons; undefined if it can. */
export function roomFault(piece: Piece, count: number): string | undefined {
  const room = LIMITS.ribbons - piece.ribbons.length;
  if (count <= room) return undefined;
  return `${count} ribbons were copied, and this piece has room for ${room} more; remove some first.`;
}

/** Ribbons renamed so that all names in the piece are unique. */
export function freelyNamed(piece: Piece, ribbons: readonly RibbonDoc[]): RibbonDoc[] {
  const taken = new Set(piece.ribbons.map((r) => r.name));
  return ribbons.map((ribbon) => {
    const { name } = ribbon;
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${keepable(name, LIMITS.nameOfRibbon - 6)} ${n}`;
    taken.add(free);
    return { ...ribbon, name: free };
  });
}

/** The piece with copies of ribbons at its end. */
export function addRibbons(piece: Piece, ribbons: readonly RibbonDoc[]): Pasted {
  if (ribbons.length === 0) return { ok: false, none: false, message: 'What was copied is a piece without ribbons.' };
  const fault = roomFault(piece, ribbons.length);
  if (fault) return { ok: false, none: false, message: fault };
  const { piece: copied, dropped } = copyAll({ ...newPiece(), ribbons }, { exists: isIn(piece) });
  const copies = freelyNamed(piece, copied.ribbons);
  return {
    ok: true,
    piece: { ...piece, ribbons: [...piece.ribbons, ...copies] },
    ids: copies.map((c) => c.id),
    dropped,
  };
}
