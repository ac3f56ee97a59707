/** "barometer-blooms.maypole.json" for a document; "piece.maypole.json" where it has no readable name. */
export function fileName(source: string): string {
  let name = '';
  try {
    const value: unknown = JSON.parse(source)?.name;
    if (typeof value === 'string') name = value;
  } catch {
    // An unreadable document is still given out, under a plain name.
  }
  const plain = name
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/gi, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 80);
  return `${plain || 'piece'}.maypole.json`;
}
