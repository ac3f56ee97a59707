import type { Address } from '@maypole/core/piece/addresses';
import type { Piece } from '@maypole/core/piece/piece';
import { ownedAt } from '@maypole/core/piece/walk';
import type { ViewMode } from '@/view/stage/frame';

/** Milliseconds after the last change for which what is sharp is still shown. */
const LASTS = 900;

let ends: ReturnType<typeof setTimeout> | undefined;

/** Tells that the focus is being set, where one of the values says so, and that it is not any more a moment later. */
export function noteFocusing(piece: Piece, addresses: readonly Address[], tell: (focusing: boolean) => void): void {
  if (!addresses.some((a) => ownedAt(piece, a.owner)?.params[a.param]?.focuses)) return;
  tell(true);
  clearTimeout(ends);
  ends = setTimeout(() => tell(false), LASTS);
}

/** What of the editor says how its picture is looked at. */
interface Looking {
  readonly mode: ViewMode;
  readonly focusing: boolean;
  /** What the next click in the picture is for. */
  readonly pick: unknown;
}

/** How the picture is looked at now: as chosen, or for what is sharp while that is being set. */
export function shownMode({ mode, focusing, pick }: Looking): ViewMode {
  return focusing || pick === 'focus' ? 'sharp' : mode;
}
