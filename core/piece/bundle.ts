/** A piece file that carries the files its piece names. */
export interface Bundle {
  readonly source: string;
  readonly assets?: Record<string, { name: string; data: string }>;
}

/** A text without the byte-order mark that some editors put before it. */
export function withoutMark(text: string): string {
  return text.startsWith('\ufeff') ? text.slice(1) : text;
}

/** What a piece file holds: a piece, or a piece with the files it names. Anything unknown is taken for a piece. */
export function readBundle(file: string): Bundle {
  const text = withoutMark(file);
  if (!/^\s*\{\s*"maypole"\s*:\s*"parcel"/.test(text)) return { source: text };
  try {
    const parcel = JSON.parse(text) as { piece?: unknown; assets?: Bundle['assets'] };
    if (typeof parcel.piece === 'string') return { source: parcel.piece, assets: parcel.assets };
  } catch {
    // A damaged parcel is said to be no document by what reads documents.
  }
  return { source: text };
}
