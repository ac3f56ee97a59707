/** What a trial found, in figures, and what is wrong, in sentences; nothing wrong is an empty list. */
export interface Found {
  readonly figures: Readonly<Record<string, number | string>>;
  readonly wrong: readonly string[];
}

export interface Trial {
  readonly help: string;
  /** How often it tries, in short and in full. */
  readonly short: number;
  readonly full: number;
  /** @param address a Maypole that runs, for a trial that needs none of its own */
  readonly run: (times: number, seed: number, tell: (words: string) => void, address?: string) => Promise<Found>;
}

/** The value below which a share of a list lies (nearest rank). */
export function percentile(list: readonly number[], share: number): number {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1))] ?? 0;
}
