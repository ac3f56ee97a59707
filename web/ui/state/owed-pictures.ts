import { keepText, keptJson } from './browser-store';

/**
 * Pieces that were changed in this tab and have no picture of that yet. The tab that changed a piece
 * draws it, once, when its shelf is next in sight; whoever only looks sees the picture there is.
 */
const KEY = 'maypole-owed-pictures';
/** What the page remembers where the browser keeps nothing. */
let own: readonly string[] = [];

function owed(): readonly string[] {
  const list = keptJson(KEY, null, 'session');
  return Array.isArray(list) ? list.filter((x) => typeof x === 'string') : own;
}

function keep(list: readonly string[]): void {
  own = list;
  keepText(KEY, JSON.stringify(list), 'session');
}

export function owePicture(id: string): void {
  const list = owed();
  if (!list.includes(id)) keep([...list, id]);
}

export function owesPicture(id: string): boolean {
  return owed().includes(id);
}

export function pictureDrawn(id: string): void {
  keep(owed().filter((x) => x !== id));
}
