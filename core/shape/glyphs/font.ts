/** Letters of a font: how far each moves on, and its outline as an SVG path; 1000 units to the em, y up. */
export type Font = Readonly<Record<string, readonly [number, string]>>;
