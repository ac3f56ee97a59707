/** A piece file with the files its piece names. */
export interface Bundle {
  readonly source: string;
  readonly assets?: Record<string, { name: string; data: string }>;
}

/** Removes a byte-order mark. */
export function withoutMark(text: string): string {
  return text.startsWith('\ufeff') ? text.slice(1) : text;
}

/** Contents of a piece file: a piece, or a bundle. Anything unknown is taken for a piece. */
export function readBundle(file: string): Bundle {
  const text = withoutMark(file);
  if (!/^\s*\{\s*"maypole"\s*:\s*"parcel"/.test(text)) return { source: text };
  try {
    const parcel = JSON.parse(text) as { piece?: unknown; assets?: Bundle['assets'] };
    if (typeof parcel.piece === 'string') return { source: parcel.piece, assets: parcel.assets };
  } catch {
    // A damaged bundle is reported by the reader of documents.
  }
  return { source: text };
}
