import { float, log2, max, mix, select, vec3 } from 'three/tsl';
import { rgb, scalar, type Rgb } from '../surfaces/tsl';
import { EXPOSURE_BANDS, MIDDLE_GREY } from './exposure-bands';

/** Display values of '#rrggbb' as written. */
export function shown(hex: string): Rgb {
  return vec3(...([1, 3, 5].map((k) => parseInt(hex.slice(k, k + 2), 16) / 255) as [number, number, number])) as Rgb;
}

/** Luminance (ITU-R BT.709) as bands, in stops from middle grey. */
export function falseColours(light: Rgb): Rgb {
  const luminance = max(light.dot(vec3(0.2126, 0.7152, 0.0722)), float(1e-6));
  const stops = scalar(log2(luminance.div(MIDDLE_GREY)).toVar());
  return EXPOSURE_BANDS.slice(1).reduce(
    (below, { from, colour }) => rgb(select(stops.greaterThanEqual(from), shown(colour), below)),
    shown(EXPOSURE_BANDS[0].colour),
  );
}

/** The backdrop, dimmed so that it is not taken for a band. */
export function dimmed(backdrop: Rgb): Rgb {
  return rgb(mix(backdrop, vec3(0.11, 0.11, 0.12), 0.8));
}
