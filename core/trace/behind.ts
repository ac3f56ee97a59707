import type { PictureAt } from '../evaluate/picture-at';
import { hexToDisplay } from '../maths/srgb';
import { gradientShare } from '../scene/backdrop-shown';
import { fitFrame } from '../scene/lens';
import { lightShownAs } from '../scene/view-transform';

/** Colours of the ramp; see core/trace/assembly/backdrop.ts. */
const STEPS = 256;

/** The backdrop as the tracer takes it: where a pixel is on its ramp, and the ramp as light before exposure. */
export function behindOf(
  { scene: { camera, backdrop }, aspect }: Pick<PictureAt<unknown>, 'scene' | 'aspect'>,
  { width, height }: { readonly width: number; readonly height: number },
): number[] {
  const frame = fitFrame(camera.focalLength, aspect, width / height);
  const [from, to] = [backdrop.colour, backdrop.type === 'gradient' ? backdrop.to : backdrop.colour].map(hexToDisplay);
  // A place in the output frame, −½…½ right and up, from a pixel.
  const x = [1 / width / frame.width, 0, -0.5 / frame.width];
  const y = [0, -1 / height / frame.height, 0.5 / frame.height];
  const round = backdrop.type === 'gradient' && backdrop.round;
  const rows = round ? [x, y].map((row) => row.map((n) => n * Math.SQRT2)) : [x, y];
  if (backdrop.type === 'gradient' && !round) {
    const a = (backdrop.angle * Math.PI) / 180;
    const reach = Math.abs(Math.sin(a)) * aspect + Math.abs(Math.cos(a));
    rows[0] = x.map((n, k) => (Math.sin(a) * aspect * n - Math.cos(a) * y[k]) / reach + (k === 2 ? 0.5 : 0));
  }
  const ramp = Array.from({ length: STEPS }, (_, i) => {
    const share = backdrop.type === 'gradient' ? gradientShare((i + 0.5) / STEPS, backdrop.middle) : 0;
    const shown = from.map((c, k) => c + (to[k] - c) * share);
    return lightShownAs(shown).map((c) => c / camera.exposure);
  });
  return [...rows.flat(), round ? 1 : 0, ...ramp.flat()];
}
