/**
 * How much a document may hold. The schema, what holds edits to it (piece/hold.ts, piece/misfit.ts), every action and
 * every field read this table, so that nothing can be made here that a server refuses.
 */
export const LIMITS = {
  /** Bytes of a document as text. */
  document: 8 * 1024 * 1024,
  ribbons: 64,
  stepsOfRibbon: 200,
  partsOfFinish: 32,
  /** Layers of patterns on a part of a finish; each is worked out at every point of the picture. */
  patternsOfPart: 16,
  /** Motions that are added to or multiplied with another. */
  layersOfMotion: 12,
  keysOfMotion: 1000,
  outputs: 64,
  /** Values of an item that do not go along with those of a paired one. */
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

/** A text that any document can hold: no U+0000, which no database keeps, and no half of a letter. */
export const isKeepable = (text: string): boolean => !text.includes('\0') && !/\p{Surrogate}/u.test(text);

/** The same text without what no document can hold, cut to so many characters. */
export function keepable(text: string, most: number): string {
  const clean = isKeepable(text) ? text : text.replaceAll('\0', '').replace(/\p{Surrogate}/gu, '');
  // A letter that takes two places is not cut in half.
  return clean.length <= most ? clean : clean.slice(0, most).replace(/\p{Surrogate}$/u, '');
}
