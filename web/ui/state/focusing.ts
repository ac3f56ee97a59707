import type { Address } from '@maypole/core/piece/addresses';
import type { Piece } from '@maypole/core/piece/piece';
import { ownedAt } from '@maypole/core/piece/walk';
import type { ViewMode } from '@/view/stage/frame';

/** Milliseconds for which focus is still shown after the last change. */
const LASTS = 900;

let ends: ReturnType<typeof setTimeout> | undefined;

/** Shows focus while one of these values sets it, and for a moment afterwards. */
export function noteFocusing(piece: Piece, addresses: readonly Address[], tell: (focusing: boolean) => void): void {
  if (!addresses.some((a) => ownedAt(piece, a.owner)?.params[a.param]?.focuses)) return;
  tell(true);
  clearTimeout(ends);
  ends = setTimeout(() => tell(false), LASTS);
}

/** Editor state that determines how the picture is viewed. */
interface Looking {
  readonly mode: ViewMode;
  readonly focusing: boolean;
  /** What the next click in the picture is for. */
  readonly pick: unknown;
}

/** The current view: as chosen, or focus while that is being set. */
export function shownMode({ mode, focusing, pick }: Looking): ViewMode {
  return focusing || pick === 'focus' ? 'sharp' : mode;
}
