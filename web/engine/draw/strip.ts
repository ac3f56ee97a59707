/** A strip of equal pictures side by side, played in a circle by the shelf. */
export const STRIP = { width: 480, height: 240, frames: 16 } as const;

/** Half way between the piece's format and the card's: little is cropped, and it is not tiny. */
export function stripFormat({ width, height }: { readonly width: number; readonly height: number }) {
  return { width: Math.sqrt((width / height) * (STRIP.width / STRIP.height)), height: 1 };
}
