import { writeExr, type Layer } from '@maypole/core/files/exr';
import { packedExr } from '@maypole/render/files/exr';
import type { Row } from './table';

/** A frame with all passes as they are large: 43 channels at a quarter of 4K. */
const [WIDTH, HEIGHT] = [960, 540];

/** Slopes with grain, as light and places have them: in [−2, 2], from one start. */
function grainy(n: number, start: number): Float32Array {
  let s = start;
  return Float32Array.from({ length: n }, (_, i) => {
    s = (Math.imul(s, 1_664_525) + 1_013_904_223) >>> 0;
    return 1.98 * Math.sin(i * 0.0003) + (0.02 * s) / 2 ** 32;
  });
}

/** Seconds to write an OpenEXR file with all passes: by zlib in threads, beside the library fflate on one. */
export async function files(): Promise<Row[]> {
  const n = WIDTH * HEIGHT;
  const layers: Layer[] = Array.from({ length: 13 }, (_, i) => ({
    name: ['depth', 'position', 'motion'][i] ?? `mask_${i}`,
    channels: 'XYZ',
    values: grainy(3 * n, i),
  }));
  const light = grainy(4 * n, 99);
  const timed = async (work: () => unknown) => {
    let best = Infinity;
    for (let i = 0; i < 3; i++) {
      const from = performance.now();
      await work();
      best = Math.min(best, (performance.now() - from) / 1000);
    }
    return best;
  };
  const ours = await timed(() => packedExr(light, WIDTH, HEIGHT, layers, { precision: 'half' }));
  const theirs = await timed(() => writeExr(light, WIDTH, HEIGHT, layers, { precision: 'half', packed: true }));
  const name = 'OpenEXR, 43 channels, 960 × 540';
  return [{ name, ours, peer: theirs, peerName: 'packed by fflate, one thread', unit: 's', ratio: ours / theirs }];
}
