import { wholePhase } from '../../time/phase';
import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

/** Sine of a plane wave disturbed by turbulence: veins (K. Perlin, “An Image Synthesizer”, SIGGRAPH 1985). */
export const marble: NoiseKind = {
  kind: 'marble',
  title: 'Marble veins',
  help: 'Folded bands with sharp veins.',
  field(seed, rate, clock, options) {
    const mask = options?.mask ?? 255;
    const layers = [0, 1, 2].map((i) =>
      gradientField(seed + 907 * i, rate, clock, { mask: Math.min(255, (mask + 1) * 2 ** i - 1) }),
    );
    const [a, b, c] = layers;
    const turn = rate === 0 ? 0 : 2 * Math.PI * wholePhase(Math.max(1, Math.round(rate)), clock);
    // Four bands per tile of any size, so that it tiles when it travels.
    return (x, y, z) =>
      Math.sin(
        Math.PI * x +
          3.2 *
            (Math.abs(a(x, y, z)) + 0.5 * Math.abs(b(2 * x, 2 * y, 2 * z)) + 0.25 * Math.abs(c(4 * x, 4 * y, 4 * z))) *
            1.6 +
          turn,
      );
  },
};
