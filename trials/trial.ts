/** What a trial found, in figures, and what is wrong, in sentences; nothing wrong is an empty list. */
export interface Found {
  readonly figures: Readonly<Record<string, number | string>>;
  readonly wrong: readonly string[];
  /** What takes too long. How long depends on what else the machine does: a trial by hand calls it wrong, no test does. */
  readonly slow?: readonly string[];
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
