import { loopSeconds } from '@maypole/core/time/loop';
import type { PieceSummary } from '@/contract/pieces';

export const SORTS = {
  changed: 'Last changed',
  name: 'Name',
  longest: 'Longest first',
  shortest: 'Shortest first',
} as const;
export type Sort = keyof typeof SORTS;

export const KINDS = {
  all: 'All kinds',
  closed: 'Closed',
  open: 'With gaps',
  trouble: 'Cannot be opened',
  delivered: 'Delivered',
  kept: 'Not delivered',
} as const;
export type Only = keyof typeof KINDS;

export const LENGTHS = { all: 'Any length', short: 'Up to 3 s', middle: '3 to 8 s', long: 'Over 8 s' } as const;
export type Length = keyof typeof LENGTHS;

export const SHAPES = { all: 'Any format', square: 'Square', wide: 'Wide', upright: 'Upright' } as const;
export type Shape = keyof typeof SHAPES;

/** Filter and order of the shelf. */
export interface Sought {
  readonly query: string;
  readonly sort: Sort;
  readonly only: Only;
  /** Only pieces with this label; empty for all. */
  readonly label: string;
  readonly length: Length;
  readonly shape: Shape;
}

export const EVERYTHING: Sought = { query: '', sort: 'changed', only: 'all', label: '', length: 'all', shape: 'all' };

/** Whether a piece is of a kind. */
export function isKind({ gaps, trouble, delivered }: PieceSummary, only: Only): boolean {
  if (only === 'all') return true;
  if (only === 'trouble') return trouble !== null;
  if (trouble !== null) return false;
  if (only === 'delivered' || only === 'kept') return delivered === (only === 'delivered');
  return only === 'closed' ? gaps === 0 : gaps !== null && gaps > 0;
}

/** Whether a loop has such a length. */
export function isLong(piece: PieceSummary, length: Length): boolean {
  if (length === 'all') return true;
  if (!piece.frames) return false;
  const s = seconds(piece);
  return length === 'short' ? s <= 3 : length === 'middle' ? s > 3 && s <= 8 : s > 8;
}

/** Whether a picture has such a format. */
export function isShaped({ width, height }: PieceSummary, shape: Shape): boolean {
  if (shape === 'all') return true;
  if (width === null || height === null) return false;
  return shape === 'square' ? width === height : shape === 'wide' ? width > height : width < height;
}

const seconds = ({ frames, fps }: PieceSummary) => (frames && fps ? loopSeconds({ frames, fps }) : 0);

/** All labels of the pieces, in alphabetical order. */
export function labelsOf(pieces: readonly PieceSummary[]): string[] {
  return [...new Set(pieces.flatMap((p) => p.labels))].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
}

/** The pieces that match, in the chosen order. Numbers in names count as numbers: "Loop 2" before "Loop 10". */
export function onShelf(
  pieces: readonly PieceSummary[],
  { query, sort, only, label, length, shape }: Sought,
): PieceSummary[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const found = pieces.filter((p) => {
    const text = [p.name, ...p.labels].join(' ').toLowerCase();
    return (
      isKind(p, only) &&
      isLong(p, length) &&
      isShaped(p, shape) &&
      (label === '' || p.labels.includes(label)) &&
      words.every((w) => text.includes(w) || w.replace('×', 'x') === `${p.width}x${p.height}`)
    );
  });
  const byName = (a: PieceSummary, b: PieceSummary) => a.name.localeCompare(b.name, 'en', { numeric: true });
  return {
    changed: () => found,
    name: () => found.sort(byName),
    longest: () => found.sort((a, b) => seconds(b) - seconds(a) || byName(a, b)),
    shortest: () => found.sort((a, b) => seconds(a) - seconds(b) || byName(a, b)),
  }[sort]();
}

/** Whether a filter other than text is set. */
export function isNarrowed({ only, label, length, shape }: Sought): boolean {
  return only !== 'all' || label !== '' || length !== 'all' || shape !== 'all';
}
