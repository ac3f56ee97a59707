import { keepText, keptJson } from './browser-store';

/**
 * Pieces changed in this tab without a new picture. The tab that changed a piece draws it, once, when its shelf is next
 * visible; whoever only looks sees the existing one.
 */
const KEY = 'maypole-owed-pictures';
/** In memory, for browsers without storage. */
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
