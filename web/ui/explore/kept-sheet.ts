import { sheetSettings, type KeptSheet, type SheetSettings } from '@maypole/core/explore/sheet-settings';
import type { Piece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { keepText, keptJson } from '../state/browser-store';
import type { SheetState, Way } from './sheet-state';

const keyOf = (id: string) => `maypole-sheet-${id}`;

type Asked = Pick<SheetState, 'chosen' | 'locked' | 'reach' | 'count' | 'seed' | 'way'>;

const settingsOf = ({ chosen, locked, reach, count, seed, way }: Asked): SheetSettings => ({
  chosen: [...chosen],
  locked: [...locked],
  reach,
  count,
  seed,
  way: way.type === 'mix' ? { type: 'spread' } : way,
});

/**
 * Remembers the settings of a piece's sheet in this browser. A sheet between two tiles, which are gone by then, is
 * remembered as one of the piece.
 */
export function leaveSheet(id: string, asked: Asked): void {
  keepText(keyOf(id), JSON.stringify(settingsOf(asked)));
}

/** The last settings of a piece's sheet in this browser; null if there are none or they cannot be read. */
export function leftSheet(id: string): SheetSettings | null {
  const read = sheetSettings.safeParse(keptJson(keyOf(id)));
  return read.success ? read.data : null;
}

/** A sheet as it is stored with the piece: its settings, and the indices of its tiles. */
export function sheetToKeep(sheet: SheetState): KeptSheet {
  const { way } = sheet;
  const throws = sheet.tiles.filter((t) => t.index >= 0).map((t) => t.index);
  return {
    ...settingsOf(sheet),
    ...(way.type === 'mix' ? { way: { type: 'mix', a: writePiece(way.a), b: writePiece(way.b) } } : {}),
    ...(way.type === 'axes' ? {} : { throws }),
  };
}

/** How the pieces of a stored sheet are found; a sentence if they cannot be any more. */
export function wayOf({ way }: KeptSheet): Way | string {
  if (way.type !== 'mix') return way;
  const ends: Piece[] = [];
  for (const text of [way.a, way.b]) {
    const read = readPiece(text);
    if (!read.ok) return read.message;
    ends.push(read.piece);
  }
  return { type: 'mix', a: ends[0], b: ends[1] };
}
