import { beforeAll, describe, expect, it } from 'vitest';
import { provideAsset } from '../../assets/store';
import { backdropShown } from '../../scene/backdrop-shown';
import type { BackdropAt } from '../../scene/kind';
import { lightShownAs } from '../../scene/view-transform';
import { pictureOf, settings, square } from '../fixture';
import { Tracer } from '../paths/tracer';
import { SUMS } from '../paths/tile-result';

/** Glass that bends nothing and takes nothing: what is behind is seen as it is. */
const NOTHING = { transmission: 1, thickness: 1, ior: 1, specular: 0, roughness: 0 };

const file = 'behind';
const [WIDE, HIGH] = [16, 8];

beforeAll(() => {
  const values = new Uint8Array(4 * WIDE * HIGH);
  for (let y = 0; y < HIGH; y++)
    for (let x = 0; x < WIDE; x++) values.set([40 + 12 * x, 200 - 20 * y, 90, x < 12 ? 255 : 128], 4 * (y * WIDE + x));
  provideAsset(file, { type: 'image', image: { width: WIDE, height: HIGH, values } });
});

describe('what is behind everything, seen through glass', () => {
  it.each(['cover', 'contain', 'stretch'] as const)(
    'is a picture as it stands there, upright, where it fits by %s',
    (fit) => {
      const backdrop: BackdropAt = { type: 'image', file, fit, colour: '#804020' };
      const picture = pictureOf([{ mesh: square(20), surface: NOTHING }], [], { exposure: 2 });
      const tracer = new Tracer();
      const [width, height] = [16, 16];
      tracer.load({ ...picture, scene: { ...picture.scene, backdrop } }, { ...settings, width, height });
      const sums = tracer.samples({ x: 0, y: 0, width, height }, 0, 4);
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++) {
          const shown = backdropShown(backdrop, (x + 0.5) / width, (y + 0.5) / height, picture.aspect);
          lightShownAs(shown).forEach((c, k) => {
            const mean = sums[SUMS * (y * width + x) + k] / 4;
            expect(Math.abs(2 * mean - c), `${x}, ${y}: ${k}`).toBeLessThan(0.02);
          });
        }
    },
  );
  it('is its colour where the file is not here', () => {
    const picture = pictureOf([{ mesh: square(20), surface: NOTHING }], []);
    const tracer = new Tracer();
    const backdrop: BackdropAt = { type: 'image', file: 'elsewhere', fit: 'cover', colour: '#804020' };
    tracer.load({ ...picture, scene: { ...picture.scene, backdrop } }, settings);
    const sums = tracer.samples({ x: 0, y: 0, width: 1, height: 1 }, 0, 1);
    lightShownAs(backdropShown(backdrop, 0.5, 0.5, 1)).forEach((c, k) => expect(sums[k]).toBeCloseTo(c, 4));
  });
});
