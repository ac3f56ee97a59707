import type { KeyDoc, Segment } from '../../declare/documents';

export type { KeyDoc, Segment } from '../../declare/documents';

export const SEGMENTS: readonly { readonly value: Segment; readonly title: string; readonly help: string }[] = [
  { value: 'linear', title: 'Linear', help: 'Even speed to the next key.' },
  {
    value: 'smooth',
    title: 'Smooth',
    help: 'Through the keys with no jump of speed, at the seam neither, and never beyond them.',
  },
  {
    value: 'spline',
    title: 'Spline',
    help: 'The roundest curve through the keys; it may swing past them.',
  },
  { value: 'ease', title: 'Eased', help: 'Speeds up after this key and slows down before the next.' },
  { value: 'free', title: 'Free', help: 'A cubic curve whose tangents are dragged.' },
  { value: 'hold', title: 'Hold', help: 'Stands still, then jumps.' },
];

export const USUAL_EASE: readonly [number, number] = [0.45, 0.45];

/** Default tangents: a third of the way along the straight line. */
export function usualTangent(from: Pick<KeyDoc, 'at' | 'value'>, to: Pick<KeyDoc, 'at' | 'value'>): [number, number] {
  return [(to.at - from.at) / 3, (to.value - from.value) / 3];
}

/** Keys in the order of the circle; the sort is stable. */
export function sortKeys(keys: readonly KeyDoc[]): readonly KeyDoc[] {
  for (let i = 1; i < keys.length; i++) if (keys[i].at < keys[i - 1].at) return [...keys].sort((a, b) => a.at - b.at);
  return keys;
}
