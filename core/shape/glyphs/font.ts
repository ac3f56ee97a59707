/** Glyphs of a font: advance width, and outline as an SVG path; 1000 units to the em, y up. */
export type Font = Readonly<Record<string, readonly [number, string]>>;
