import { float, min, neutralToneMapping, select, sqrt, sRGBTransferEOTF, sRGBTransferOETF } from 'three/tsl';
import { Color } from 'three/webgpu';
import { rgb, type Rgb } from '../surfaces/tsl';

/**
 * The view transform: light to display values, the last thing that happens to a picture. Bright light
 * is rolled off by the Khronos PBR Neutral tone mapper (E. Gritz and others, 2024), which leaves
 * colours of surfaces in plain light where they are; then the curve of sRGB (IEC 61966-2-1).
 */
export function viewTransform(light: Rgb): Rgb {
  return rgb(sRGBTransferOETF(neutralToneMapping(light, float(1))));
}

/**
 * The light that the view transform shows as a colour: for lines and marks that are to be seen in
 * just that colour. It undoes the tone mapper's offset, f = m − 6.25·m² for a smallest component
 * m < 0.08 and 0.04 above, which holds below a brightness of 0.76; brighter ones come out a little duller.
 */
export function throughViewTransform(target: Color, hex: string): Color {
  target.set(hex);
  const shown = Math.min(target.r, target.g, target.b);
  const before = shown < 0.04 ? Math.sqrt(shown / 6.25) : shown + 0.04;
  const offset = before - shown;
  return target.setRGB(target.r + offset, target.g + offset, target.b + offset);
}

/** The same as nodes, for display values that are worked out in the shader. */
export function lightShownAs(shown: Rgb): Rgb {
  const light = rgb(sRGBTransferEOTF(shown)).toVar();
  const least = min(light.r, light.g, light.b);
  const before = select(least.lessThan(0.04), sqrt(least.div(6.25)), least.add(0.04));
  return rgb(light.add(before.sub(least)));
}
