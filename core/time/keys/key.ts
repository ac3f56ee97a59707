/** How a value goes from one key to the next. */
export type Segment = 'hold' | 'linear' | 'ease' | 'free' | 'smooth';

export const SEGMENTS: readonly { readonly value: Segment; readonly title: string; readonly help: string }[] = [
  { value: 'linear', title: 'Linear', help: 'Even speed to the next key.' },
  { value: 'smooth', title: 'Smooth', help: 'A spline through the keys, with no change of speed at them, nor at the seam.' },
  { value: 'ease', title: 'Eased', help: 'Speeds up after this key and slows down before the next.' },
  { value: 'free', title: 'Free', help: 'A cubic curve whose tangents are dragged.' },
  { value: 'hold', title: 'Hold', help: 'Stands still, then jumps.' },
];

/** One key. Keys live on a circle: after the last comes the first again, `adds` higher. */
export interface KeyDoc {
  /** Place in the loop, 0 ≤ at < 1. */
  readonly at: number;
  readonly value: number;
  /** The way to the next key. */
  readonly to: Segment;
  /** 'ease': shares 0…1 of the way in which it speeds up and slows down. */
  readonly ease?: readonly [number, number];
  /** 'free': the tangent that leaves this key, as share of the loop (≥ 0) and change of value. */
  readonly out?: readonly [number, number];
  /** The tangent by which a free segment comes in, as share of the loop (≤ 0) and change of value. */
  readonly in?: readonly [number, number];
  /** Tangents that may point apart from each other. */
  readonly broken?: boolean;
}

export const USUAL_EASE: readonly [number, number] = [0.45, 0.45];
export const MAX_KEYS = 1000;

/** Tangents that a key has when none are written: a third of the way along the straight line. */
export function usualTangent(from: Pick<KeyDoc, 'at' | 'value'>, to: Pick<KeyDoc, 'at' | 'value'>): [number, number] {
  return [(to.at - from.at) / 3, (to.value - from.value) / 3];
}

/** Keys in the order of the circle; those at the same place keep their order. */
export function sortKeys(keys: readonly KeyDoc[]): readonly KeyDoc[] {
  for (let i = 1; i < keys.length; i++) if (keys[i].at < keys[i - 1].at) return [...keys].sort((a, b) => a.at - b.at);
  return keys;
}
