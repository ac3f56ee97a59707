/** "about 40 s", "about 3 min". */
export function inWords(seconds: number): string {
  return seconds < 90 ? `about ${Math.max(1, Math.round(seconds))} s` : `about ${Math.round(seconds / 60)} min`;
}

/** "812 B", "34 kB", "1.2 MB": a size with two significant digits. */
export function fileSize(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  const [value, unit] = bytes < 1e6 ? [bytes / 1e3, 'kB'] : bytes < 1e9 ? [bytes / 1e6, 'MB'] : [bytes / 1e9, 'GB'];
  return `${Number(value.toPrecision(value < 100 ? 2 : 3))} ${unit}`;
}
