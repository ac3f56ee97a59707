/** A piece file that carries the files its piece names. */
export interface Parcel {
  readonly source: string;
  readonly assets?: Record<string, { name: string; data: string }>;
}

/** What a piece file holds: a piece, or a piece with the files it names. Anything unknown is taken for a piece. */
export function openParcel(text: string): Parcel {
  if (!/^\s*\{\s*"maypole"\s*:\s*"parcel"/.test(text)) return { source: text };
  try {
    const parcel = JSON.parse(text) as { piece?: unknown; assets?: Parcel['assets'] };
    if (typeof parcel.piece === 'string') return { source: parcel.piece, assets: parcel.assets };
  } catch {
    // A damaged parcel is said to be no document by what reads documents.
  }
  return { source: text };
}
