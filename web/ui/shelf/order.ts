import { loopSeconds } from '@maypole/core/time/loop';
import type { PieceSummary } from '@/server/contract';

export const SORTS = {
  changed: 'Last changed',
  name: 'Name',
  longest: 'Longest first',
  shortest: 'Shortest first',
} as const;
export type Sort = keyof typeof SORTS;

export const KINDS = { all: 'All', closed: 'Closed', open: 'With gaps', trouble: 'Cannot be opened' } as const;
export type Only = keyof typeof KINDS;

/** Whether a piece is of a kind. */
export function isKind({ gaps, trouble }: PieceSummary, only: Only): boolean {
  if (only === 'all') return true;
  if (only === 'trouble') return trouble !== null;
  if (trouble !== null) return false;
  return only === 'closed' ? gaps === 0 : gaps !== null && gaps > 0;
}

const seconds = ({ frames, fps }: PieceSummary) => (frames && fps ? loopSeconds({ frames, fps }) : 0);

/** All labels that pieces have, in the order of the alphabet. */
export function labelsOf(pieces: readonly PieceSummary[]): string[] {
  return [...new Set(pieces.flatMap((p) => p.labels))].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
}

/**
 * The pieces that are looked for, in the order that was chosen. Names go by their numbers: "Loop 2" before "Loop 10".
 *
 * @param label only those with it; empty for all
 */
export function onShelf(
  pieces: readonly PieceSummary[],
  query: string,
  sort: Sort,
  only: Only,
  label = '',
): PieceSummary[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const found = pieces.filter((p) => {
    const text = [p.name, ...p.labels].join(' ').toLowerCase();
    return isKind(p, only) && (label === '' || p.labels.includes(label)) && words.every((w) => text.includes(w));
  });
  const byName = (a: PieceSummary, b: PieceSummary) => a.name.localeCompare(b.name, 'en', { numeric: true });
  return {
    changed: () => found,
    name: () => found.sort(byName),
    longest: () => found.sort((a, b) => seconds(b) - seconds(a) || byName(a, b)),
    shortest: () => found.sort((a, b) => seconds(a) - seconds(b) || byName(a, b)),
  }[sort]();
}
