import BezierEasing from 'bezier-easing';
import { CubicInterpolant } from 'three';
import { cubicBezier } from '@maypole/core/time/keys/bezier';
import { compare, type Row } from './table';

/** So many values with eight cubic keys each, in three.js. */
export class KeyframeTrack {
  private readonly tracks: CubicInterpolant[];
  constructor(count: number) {
    const times = Float32Array.from({ length: 8 }, (_, i) => i / 7);
    this.tracks = Array.from(
      { length: count },
      (_, k) =>
        new CubicInterpolant(
          times,
          Float32Array.from({ length: 8 }, (_, i) => Math.sin(i * (k + 1))),
          1,
          new Float32Array(1),
        ),
    );
  }
  evaluate(t: number): number {
    let sum = 0;
    for (const track of this.tracks) sum += track.evaluate(t)[0];
    return sum;
  }
}

/** One easing curve ten thousand times. */
export const Easing = {
  async rows(): Promise<Row[]> {
    const peer = BezierEasing(0.42, 0, 0.58, 1);
    const times = (run: (x: number) => number) => () => {
      let sum = 0;
      for (let i = 0; i < 10_000; i++) sum += run(i * 1e-4);
      return sum;
    };
    return [
      await compare(
        '10k eased values, to the last digit',
        times((x) => cubicBezier(0.42, 0, 0.58, 1, x).value),
        'npm bezier-easing, to 1e-7',
        times(peer),
      ),
    ];
  },
};
