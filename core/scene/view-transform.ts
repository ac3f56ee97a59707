import { displayToLight, lightToDisplay } from '../maths/srgb';

/** Start of the Khronos tone mapper's roll-off, and strength of its desaturation. */
const [BEGINS, FADES] = [0.8 - 0.04, 0.15];

/**
 * Light to display values: the Khronos PBR Neutral tone mapper (E. Gritz and others, 2024), then the curve of
 * sRGB (IEC 61966-2-1). The same as web/view/effects/view-transform, in numbers.
 *
 * @returns 0…1 each
 */
export function viewTransform(red: number, green: number, blue: number): [number, number, number] {
  const least = Math.min(red, green, blue);
  const offset = least < 0.08 ? least - 6.25 * least * least : 0.04;
  let c = [red - offset, green - offset, blue - offset];
  const peak = Math.max(...c);
  if (peak >= BEGINS) {
    const rest = 1 - BEGINS;
    const rolled = 1 - (rest * rest) / (peak + rest - BEGINS);
    const fade = 1 - 1 / (FADES * (peak - rolled) + 1);
    c = c.map((x) => (x * rolled * (1 - fade)) / peak + rolled * fade);
  }
  return c.map(lightToDisplay) as [number, number, number];
}

/**
 * Inverse of the view transform below its roll-off: a backdrop as radiance. It undoes the tone mapper's offset, f = m −
 * 6.25·m² for a smallest component m < 0.08 and 0.04 above.
 */
export function lightShownAs(shown: readonly number[]): [number, number, number] {
  const light = shown.map(displayToLight);
  const more = lightAbove(Math.min(...light));
  return light.map((x) => x + more) as [number, number, number];
}

/** Offset between radiance and what is shown, by the smallest component of the latter. */
export function lightAbove(least: number): number {
  return (least < 0.04 ? Math.sqrt(least / 6.25) : least + 0.04) - least;
}
