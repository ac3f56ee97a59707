/**
 * What a document may hold at most. The schema, the clamping of edits (piece/hold.ts, piece/misfit.ts), every action
 * and every field read this table, so that the editor cannot make what the server refuses.
 */
export const LIMITS = {
  /** Bytes of a document as text. */
  document: 8 * 1024 * 1024,
  ribbons: 64,
  stepsOfRibbon: 200,
  partsOfFinish: 32,
  /** Layers of patterns on a part of a finish; each is evaluated at every pixel. */
  patternsOfPart: 16,
  /** Motions added to or multiplied with another. */
  layersOfMotion: 12,
  keysOfMotion: 1000,
  outputs: 64,
  /** Values of an item that differ from the linked one. */
  apartOfItem: 200,
  pointsOfPath: { least: 3, most: 64 },
  heightsOfCurve: { least: 4, most: 128 },
  stopsOfGradient: 16,
  /** Characters. */
  nameOfPiece: 120,
  nameOfRibbon: 80,
  identifier: 64,
  address: 200,
  formula: 500,
  /** Width or height of the picture in pixels. */
  side: { least: 16, most: 8192 },
} as const;

/** Whether any document can hold a text: no U+0000, which PostgreSQL cannot store, and no unpaired surrogate. */
export const isKeepable = (text: string): boolean => !text.includes('\0') && !/\p{Surrogate}/u.test(text);

/** The text without what no document can hold, cut to this many characters. */
export function keepable(text: string, most: number): string {
  const clean = isKeepable(text) ? text : text.replaceAll('\0', '').replace(/\p{Surrogate}/gu, '');
  // A surrogate pair is not cut in half.
  return clean.length <= most ? clean : clean.slice(0, most).replace(/\p{Surrogate}$/u, '');
}
